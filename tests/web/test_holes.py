"""Sound that was lost on the server: taken up from its files, sent again, or marked as a gap; never what follows it."""

from datetime import timedelta

import pytest
from sqlalchemy import delete, event, select, update

from nuntius.core.audio.decode import RATE
from nuntius.store import heartbeats
from nuntius.store.capture import VANISHED, end_vanished, folder
from nuntius.store.database import Database
from nuntius.store.models import Room, Run, SoundPart, now
from nuntius.store.recovery import recover_sound
from nuntius.store.rooms import room_of
from tests.help import Desk
from tests.rooms import RoomDesk, sound


@pytest.fixture(autouse=True)
def begun(room: RoomDesk) -> None:
    room.announce()
    room.begin()


def lose(room: RoomDesk, first: int, last: int, files: bool = False) -> None:
    """What a power cut leaves when commits are lost: rows of parts `first` to `last` gone, with their files or not."""
    store = room.desk.installation
    with store.database.write() as session:
        run = session.scalars(select(Run)).one()
        session.execute(delete(SoundPart).where(SoundPart.number >= first, SoundPart.number <= last))
        session.execute(update(SoundPart).where(SoundPart.number > last).values(first=None))
        run.parts, run.samples = first, first * RATE // 2
        session.get_one(Room, run.room_id).held = run.samples
    if files:
        for number in range(first, last + 1):
            store.files.part_path(folder(run), number).unlink()


def whole(*numbers: int) -> bytes:
    return b"".join(sound(number) for number in numbers)


def test_rows_are_rebuilt_from_files_at_the_start(room: RoomDesk) -> None:
    room.send(8)
    lose(room, 3, 7)
    assert recover_sound(room.desk.installation) == 5
    assert room.held().tobytes() == whole(*range(8))
    assert room.put(3, sound(3)).json["held"] == 8  # sent again by a page that had no answer: fine
    assert recover_sound(room.desk.installation) == 0


def test_what_is_lost_is_counted_so_that_the_page_sends_it_again(room: RoomDesk) -> None:
    room.send(5)
    lose(room, 2, 4, files=True)
    assert room.put(5, sound(5)).json["held"] == 2
    for number in (2, 3, 4):
        answer = room.put(number, sound(number))
    assert answer.json["held"] == 6
    assert room.held().tobytes() == whole(*range(6))
    assert room.breaks() == []


def test_what_the_page_has_no_more_becomes_a_gap_at_once(room: RoomDesk) -> None:
    room.send(5)
    lose(room, 2, 4, files=True)
    answer = room.put(7, sound(7), earliest=7)
    assert answer.json["held"] == 8
    assert room.held().tobytes() == whole(0, 1, 7)
    assert room.breaks() == [("gap", 1.0, 2.5)]
    room.send(1, first=8)
    assert room.held().tobytes() == whole(0, 1, 7, 8)


def test_parts_between_two_holes_are_kept(room: RoomDesk) -> None:
    for number in (0, 3, 4, 7):
        room.put(number, sound(number))
    room.client.post(f"{room.base}/finish")
    assert room.held().tobytes() == whole(0, 3, 4, 7)
    assert room.breaks() == [("gap", 0.5, 1.0), ("gap", 1.5, 1.0)]
    with room.desk.installation.database.read() as session:
        found = room_of(session, room.meeting)
        assert found is not None and (found.state, found.held) == ("stopped", 4 * RATE // 2)


def test_going_on_after_a_pause_keeps_what_came_behind_a_hole(room: RoomDesk) -> None:
    for number in (0, 1, 4):
        room.put(number, sound(number))
    room.end("pause", 5)
    assert room.begin().status_code == 409  # the page may still have what is missing
    assert room.begin(all_sent=True).status_code == 200
    assert room.held().tobytes() == whole(0, 1, 4)
    assert [kind for kind, _, _ in room.breaks()] == ["gap", "pause"]


def test_the_earliest_part_may_be_nonsense(room: RoomDesk) -> None:
    room.put(0, sound(0))
    for nonsense in ("abc", "-1", "9" * 40, "²", "99"):
        assert room.put(1, sound(1), earliest=nonsense).status_code == 200
    assert room.held().tobytes() == whole(0, 1)
    assert room.breaks() == []


def test_a_recording_whose_page_has_vanished_ends_by_the_clock(room: RoomDesk) -> None:
    room.send(4)
    with room.desk.installation.database.write() as session:
        assert end_vanished(session) == []
        session.scalars(select(Room)).one().held_at = now() - VANISHED - timedelta(seconds=1)
    with room.desk.installation.database.write() as session:
        assert len(end_vanished(session)) == 1
    assert room.board()["state"] == "stopped"
    assert room.held().tobytes() == whole(0, 1, 2, 3)


class TestHealth:
    """What `/api/health` says."""

    def faults(self, desk: Desk) -> tuple[int, str, list[str]]:
        answer = desk.stranger().get("/api/health")
        return answer.status_code, answer.json["status"], [fault["name"] for fault in answer.json["faults"]]

    def test_it_names_processes_without_heartbeat(self, room: RoomDesk) -> None:
        desk = room.desk
        assert self.faults(desk) == (200, "degraded", ["worker", "listener"])
        with desk.installation.database.write() as session:
            heartbeats.beat(session, "worker", "w1")
            heartbeats.beat(session, "listener", "l1")
        assert self.faults(desk) == (200, "ok", [])

    def test_it_reports_a_full_disk_and_a_queue_that_is_away(
        self, room: RoomDesk, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        with room.desk.installation.database.write() as session:
            for role in heartbeats.ROLES:
                heartbeats.beat(session, role, role)
        monkeypatch.setattr("nuntius.web.routes.system.free_space", lambda folder: 0)
        monkeypatch.setattr(type(room.desk.queue), "answers", lambda self: False)
        assert self.faults(room.desk) == (503, "down", ["disk", "queue"])


def served(desk: Desk) -> Database:
    """The database as the server has it open."""
    return desk.app.extensions["nuntius"].database  # type: ignore[no-any-return]


def test_a_full_disk_is_reported_everywhere(room: RoomDesk) -> None:
    room.send(2)
    database = served(room.desk)
    with database._engine.connect() as connection:
        pages = connection.exec_driver_sql("PRAGMA page_count").scalar()
    database.close()
    event.listen(database._engine, "connect", lambda c, _: c.execute(f"PRAGMA max_page_count={pages}"))
    names = [f"Somebody {number} {'x' * 100}" for number in range(90)]
    answers = [room.client.post("/api/people", {"name": name}) for name in names]
    refused = [each for each in answers if each.status_code != 200]
    assert refused and {(each.status_code, each.json["title"]) for each in refused} == {(507, "Disk full")}
    assert all("make room" in each.json["detail"] for each in refused)


def test_a_lock_that_is_held_too_long_is_reported_with_when_to_try_again(
    room: RoomDesk, monkeypatch: pytest.MonkeyPatch
) -> None:
    database = served(room.desk)
    database.close()
    monkeypatch.setattr("nuntius.store.database.PRAGMAS", ("journal_mode=WAL", "busy_timeout=50"))
    with database.write() as session:
        session.connection()  # now it holds the lock
        answer = room.client.post("/api/people", {"name": "Ann"})
    assert (answer.status_code, answer.json["title"], answer.headers["Retry-After"]) == (503, "Busy", "5")
