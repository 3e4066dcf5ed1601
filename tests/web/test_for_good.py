"""For good means for good: planted words and pictures are removed in every way, and no byte of them is left."""

import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest

from nuntius.core.live.line import LiveLine
from nuntius.jobs import engines
from nuntius.store import cutting
from nuntius.store.database import Database
from nuntius.store.live import add_lines
from nuntius.store.rooms import room_of
from tests.help import Client, Desk
from tests.rooms import RoomDesk, sound

WORDS = ("Xylophonist", "xylophonist", "WALRUSES", "walruses")
PICTURE = b"\xff\xd8\xff\xe0" + b"picture-of-the-xylophone" * 40


def left(desk: Desk, *planted: bytes) -> list[str]:
    """Files of the data folder and the cache that still hold one of the planted bytes."""
    folders = (desk.installation.settings.data, desk.installation.settings.cache)
    files = [path for folder in folders if folder.exists() for path in folder.rglob("*") if path.is_file()]
    return [path.name for path in files if any(each in path.read_bytes() for each in planted)]


def words() -> list[bytes]:
    return [word.encode() for word in WORDS]


def talk(folder: Path) -> Path:
    path = folder / "talk.txt"
    path.write_text(
        "[0:01] Maren: Good morning, let us talk about the boats first.\n"
        "[0:08] Ines: The xylophonist wants 400 pounds for the walruses by Friday.\n"
        "[0:16] Maren: I will ring the xylophonist on Monday, and then we decide.\n"
        "[0:24] Ines: The winter timetable begins in November.\n"
    )
    return path


def reading(desk: Desk) -> Any:
    """A reader who goes on seeing the state before, as a long answer or another program would."""
    connection = sqlite3.connect(desk.installation.settings.data / "nuntius.db")
    connection.execute("BEGIN")
    connection.execute("SELECT count(*) FROM meeting").fetchone()
    return closing(connection)


def finish_forgetting(desk: Desk) -> None:
    """What the worker does every few seconds."""
    assert desk.installation.database.forget_rest()


@pytest.mark.parametrize("with_reader", [False, True])
def test_a_removed_meeting_leaves_no_word(desk: Desk, tmp_path: Path, with_reader: bool) -> None:
    meeting = desk.bring_in(talk(tmp_path), title="Walruses", people=("Ines Carvell",))
    desk.work()
    line = desk.record(meeting)["minutes"]["lines"][0]["id"]
    desk.client.put(f"/api/meetings/{meeting}/lines/{line}", {"text": "Pay the xylophonist."})
    assert left(desk, *words())
    if with_reader:
        with reading(desk):
            assert desk.client.send("DELETE", f"/api/meetings/{meeting}").status_code == 200
            assert not desk.installation.database.forget_rest()  # it cannot be done yet, and that is known
    else:
        assert desk.client.send("DELETE", f"/api/meetings/{meeting}").status_code == 200
    finish_forgetting(desk)
    assert left(desk, *words()) == []


def picture(room: RoomDesk, at: float, data: bytes) -> None:
    head = {"X-CSRF-Token": room.client.token, "X-At": str(at)}
    assert room.client.raw.post(f"{room.base}/pictures", data=data, headers=head).status_code == 200


@pytest.fixture
def shown(room: RoomDesk) -> RoomDesk:
    """A recording of eight seconds with three planted pictures and a planted line."""
    room.announce()
    room.begin()
    room.send(16)
    for at, data in ((0.5, b"first"), (3.0, b"second"), (6.0, b"third")):
        picture(room, at, PICTURE + data)
    with room.desk.installation.database.write() as session:
        found = room_of(session, room.meeting)
        assert found is not None
        lines = [LiveLine(1.0, 2.0, "Good morning."), LiveLine(3.2, 4.4, "The xylophonist and the walruses.")]
        add_lines(session, found, lines)
    return room


def test_a_cut_while_recording_leaves_no_word_picture_or_sound(shown: RoomDesk) -> None:
    planted = [PICTURE + b"second", sound(7), sound(8), *words()]
    assert len(left(shown.desk, *planted)) >= 3
    with reading(shown.desk):
        answer = shown.client.post(f"{shown.base}/cut", {"start": 3.2, "end": 4.6})
        assert answer.status_code == 200, answer.json
    finish_forgetting(shown.desk)
    assert left(shown.desk, *planted) == []
    assert left(shown.desk, PICTURE + b"first") and left(shown.desk, PICTURE + b"third")


def test_a_cut_takes_no_more_than_was_chosen(shown: RoomDesk) -> None:
    assert shown.client.post(f"{shown.base}/cut", {"start": 3.2, "end": 6.0}).status_code == 200
    assert left(shown.desk, PICTURE + b"third")  # shown from the very second at which the cut ends


def test_a_removed_recording_leaves_no_picture_and_no_sound(shown: RoomDesk) -> None:
    assert shown.client.send("DELETE", f"/api/meetings/{shown.meeting}").status_code == 200
    finish_forgetting(shown.desk)
    assert left(shown.desk, PICTURE, sound(3), *words()) == []


def test_an_equal_picture_of_another_meeting_stays(shown: RoomDesk) -> None:
    other = shown.client.post("/api/rooms", {"title": "Other"}).json["board"]["meeting"]["id"]
    second = RoomDesk(shown.desk, shown.client, other)
    second.announce()
    second.begin()
    second.send(2)
    picture(second, 0.2, PICTURE + b"second")
    shown.client.post(f"{shown.base}/cut", {"start": 3.2, "end": 4.6})
    kept = second.client.get(f"/api/meetings/{other}/pictures/4")
    assert (kept.status_code, kept.data) == (200, PICTURE + b"second")


class TestAfterTheRecording:
    @pytest.fixture
    def record(self, desk: Desk, wav: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> str:
        """A recording with a transcript beside it that holds the planted words."""
        monkeypatch.setattr(engines, "diarizer", lambda settings: None)
        transcript = tmp_path / "talk.vtt"
        cues = "00:00:00.100 --> 00:00:01.000\n<v Maren>Good morning all.\n\n00:00:01.200 --> 00:00:02.200\n<v Ines>The xylophonist and the walruses.\n"
        transcript.write_text(f"WEBVTT\n\n{cues}")
        meeting = desk.bring_in(wav, beside={transcript: "transcript"})
        desk.work()
        return meeting

    def test_a_stretch_leaves_no_word_and_the_menu_is_true(self, desk: Desk, record: str) -> None:
        before = desk.client.get(f"/api/meetings/{record}/original").data
        with reading(desk):
            cut = desk.client.post(f"/api/meetings/{record}/cut", {"start": 1.1, "end": 2.3})
            assert cut.status_code == 200, cut.json
            assert not cut.json["recording"]["has_original"]
        finish_forgetting(desk)
        assert left(desk, *words(), before) == []
        desk.work()
        finish_forgetting(desk)
        assert left(desk, *words(), before) == []
        after = desk.record(record)["recording"]
        assert (after["has_original"], after["name"]) == (True, "tone.flac")
        assert desk.client.get(f"/api/meetings/{record}/original").data[:4] == b"fLaC"

    def test_two_cuts_at_one_moment_do_not_undo_each_other(
        self, desk: Desk, record: str, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        silenced = cutting.silenced_copy
        other = Client(desk.app.test_client())
        other.token = other.post(
            "/api/session", {"email": "maren@saltmarsh.example", "password": "low water at noon"}
        ).json["csrf"]
        seen: list[int] = []

        def slowly(*given: Any) -> str:
            if not seen:
                seen.append(0)
                seen.append(other.post(f"/api/meetings/{record}/cut", {"start": 0.0, "end": 0.5}).status_code)
            return str(silenced(*given))

        monkeypatch.setattr(cutting, "silenced_copy", slowly)
        first = desk.client.post(f"/api/meetings/{record}/cut", {"start": 1.1, "end": 2.3})
        assert (seen[1], first.status_code) == (200, 409)


def test_forgetting_says_whether_it_is_done(tmp_path: Path) -> None:
    database = Database(tmp_path / "n.db")
    database.migrate()
    assert database.forget() and database.forget_rest()
    database.close()
