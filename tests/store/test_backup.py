"""Backup and restore: complete, verified, made while everything goes on."""

import json
from dataclasses import replace
from pathlib import Path
from threading import Event, Thread

import pytest
from click.testing import CliRunner

from nuntius.cli import main
from nuntius.jobs.queue import Queue
from nuntius.store import backup
from nuntius.store.backup import MANIFEST, back_up, restore
from nuntius.store.errors import BackupDamaged, BackupUnfinished, FolderTaken
from nuntius.store.installation import Installation
from nuntius.store.models import Meeting
from nuntius.store.removal import drop, remove_meeting
from nuntius.web.app import create_app
from tests.help import MAREN, PASSWORD, Client, Desk, in_memory
from tests.rooms import RoomDesk, sound


@pytest.fixture
def full(desk: Desk, wav: Path, tmp_path: Path, room: RoomDesk) -> RoomDesk:
    """A finished record, a file half uploaded, and a room that records."""
    talk = tmp_path / "talk.vtt"
    talk.write_text("WEBVTT\n\n00:00:01.000 --> 00:00:03.000\n<v Maren>We take the slipway first.\n")
    desk.bring_in(talk)
    desk.bring_in(wav)  # waits: nobody works on it
    room.announce()
    room.begin()
    room.send(4)
    return room


def opened(desk: Desk, data: Path) -> tuple[Installation, Client]:
    """The installation in a restored data folder, and Maren signed in to it."""
    store = Installation(replace(desk.installation.settings, data=data))
    app = create_app(store.settings, Queue(store, in_memory))
    client = Client(app.test_client())
    client.token = client.post("/api/session", {"email": MAREN, "password": PASSWORD}).json["csrf"]
    return store, client


def test_a_restored_copy_holds_all_and_goes_on_recording(full: RoomDesk, tmp_path: Path) -> None:
    target, data = tmp_path / "backup", tmp_path / "restored"
    copied = back_up(full.desk.installation, target)
    full.send(3, first=4)  # recorded after the backup: lost with this machine
    assert restore(target, data) == copied
    store, client = opened(full.desk, data)
    before, after = full.client.get("/api/meetings").json, client.get("/api/meetings").json
    assert [m["title"] for m in after["meetings"]] == [m["title"] for m in before["meetings"]]
    again = RoomDesk(replace_installation(full.desk, store), client, full.meeting)
    answer = again.put(7, sound(7), earliest=6)  # the page has parts 6 and 7 left
    assert answer.status_code == 200
    assert again.put(6, sound(6), earliest=6).json["held"] == 8
    assert again.held().tobytes() == b"".join(sound(number) for number in (0, 1, 2, 3, 6, 7))
    assert again.breaks() == [("gap", 2.0, 1.0)]
    assert (data / "secret").read_text() == full.desk.installation.secret
    assert all((data / each.path).stat().st_mode & 0o077 == 0 for each in copied)


def replace_installation(desk: Desk, store: Installation) -> Desk:
    made = Desk.__new__(Desk)
    made.__dict__.update(desk.__dict__, installation=store)
    return made


def test_it_is_made_while_sound_arrives(full: RoomDesk, tmp_path: Path) -> None:
    ended, sent = Event(), [4]

    def record() -> None:
        while not ended.is_set():
            full.send(1, first=sent[0])
            sent[0] += 1

    recording = Thread(target=record)
    recording.start()
    try:
        for number in range(3):
            back_up(full.desk.installation, tmp_path / f"b{number}")
    finally:
        ended.set()
        recording.join()
    held = []
    for number in range(3):
        restore(tmp_path / f"b{number}", tmp_path / f"r{number}")
        store, client = opened(full.desk, tmp_path / f"r{number}")
        again = RoomDesk(replace_installation(full.desk, store), client, full.meeting)
        parts = len(again.held()) * 2 // len(sound(0))
        assert again.held().tobytes() == b"".join(sound(each) for each in range(parts))
        held.append(parts)
    assert 4 <= held[0] <= held[1] <= held[2] <= sent[0]


def test_what_was_removed_meanwhile_is_not_in_it(
    full: RoomDesk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    store, copy = full.desk.installation, backup._copy
    meetings = full.client.get("/api/meetings").json["meetings"]
    victim = next(m["id"] for m in meetings if m["id"] != full.meeting)
    removed: list[str] = []

    def copy_after_removal(source: Path, target: Path) -> bool:
        if not removed:
            removed.append(victim)
            with store.database.write() as session:
                leftovers = remove_meeting(session, session.get_one(Meeting, victim))
            drop(store.database, store.files, leftovers)
        return copy(source, target)

    monkeypatch.setattr(backup, "_copy", copy_after_removal)
    copied = back_up(store, tmp_path / "backup")
    on_disk = {
        path.relative_to(tmp_path / "backup").as_posix() for path in (tmp_path / "backup").rglob("*") if path.is_file()
    }
    assert on_disk == {each.path for each in copied} | {MANIFEST}
    restore(tmp_path / "backup", tmp_path / "restored")
    _, client = opened(full.desk, tmp_path / "restored")
    assert victim not in [m["id"] for m in client.get("/api/meetings").json["meetings"]]


def test_it_gives_up_where_a_file_is_always_missing(
    full: RoomDesk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(backup, "_copy", lambda source, target: False)
    with pytest.raises(BackupUnfinished):
        back_up(full.desk.installation, tmp_path / "backup")


def damage_file(folder: Path) -> None:
    next(path for path in (folder / "files").rglob("*") if path.is_file()).write_bytes(b"others")


def lose_file(folder: Path) -> None:
    next(path for path in (folder / "files").rglob("*") if path.is_file()).unlink()


def lose_list(folder: Path) -> None:
    (folder / MANIFEST).unlink()


def leave_folder(folder: Path) -> None:
    listed = json.loads((folder / MANIFEST).read_text())
    listed["files"].append(["../outside", 1, "0" * 64])
    (folder / MANIFEST).write_text(json.dumps(listed))


@pytest.mark.parametrize("damage", [damage_file, lose_file, lose_list, leave_folder])
def test_a_damaged_backup_is_refused_before_anything_is_written(damage: object, full: RoomDesk, tmp_path: Path) -> None:
    back_up(full.desk.installation, tmp_path / "backup")
    damage(tmp_path / "backup")  # type: ignore[operator]
    with pytest.raises(BackupDamaged):
        restore(tmp_path / "backup", tmp_path / "restored")
    assert not (tmp_path / "restored").exists()


def test_nothing_is_written_over(full: RoomDesk, tmp_path: Path) -> None:
    back_up(full.desk.installation, tmp_path / "backup")
    with pytest.raises(FolderTaken):
        back_up(full.desk.installation, tmp_path / "backup")
    with pytest.raises(FolderTaken):
        restore(tmp_path / "backup", full.desk.installation.settings.data)


def test_both_are_commands(full: RoomDesk, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("NUNTIUS_DATA", str(full.desk.installation.settings.data))
    made = CliRunner().invoke(main, ["backup", str(tmp_path / "backup")])
    assert made.exit_code == 0 and "each verified" in made.output, made.output
    again = CliRunner().invoke(main, ["backup", str(tmp_path / "backup")])
    assert (again.exit_code, "nothing is written over" in again.output) == (1, True)
    monkeypatch.setenv("NUNTIUS_DATA", str(tmp_path / "restored"))
    put_back = CliRunner().invoke(main, ["restore", str(tmp_path / "backup")])
    assert put_back.exit_code == 0, put_back.output
