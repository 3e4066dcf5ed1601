"""A title or time that is set right, and what follows from it."""

from pathlib import Path

import pytest

from nuntius.core.jobs import JobKind
from tests.help import Desk
from tests.rooms import RoomDesk

TALK = "Maren Tull: Ines, could you send the harbour office the new times by Friday?\nInes Carvell: Yes, I'll do it.\n"


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    path = tmp_path / "talk.txt"
    path.write_text(TALK)
    made = desk.bring_in(path, people=("Ines Carvell",))
    desk.work()
    return made


def details(desk: Desk, meeting: str, title: str, starts_at: str) -> dict[str, object]:
    answer = desk.client.put(f"/api/meetings/{meeting}/details", {"title": title, "starts_at": starts_at})
    assert answer.status_code == 200, answer.text
    return dict(answer.json)


def due_of(desk: Desk, meeting: str) -> list[str | None]:
    return [line["due"] for line in desk.record(meeting)["minutes"]["lines"] if line["kind"] == "action"]


def test_days_that_were_said_are_counted_from_the_new_day(desk: Desk, meeting: str) -> None:
    assert due_of(desk, meeting) == ["2026-10-09"]
    changed = details(desk, meeting, "Winter timetable", "2026-10-13T09:30:00")
    assert changed["job"]["kind"] == JobKind.MINUTES  # type: ignore[index]
    desk.work()
    assert due_of(desk, meeting) == ["2026-10-16"]


def test_another_hour_of_the_same_day_writes_nothing_again(desk: Desk, meeting: str) -> None:
    changed = details(desk, meeting, " Winter timetable, second reading ", "2026-10-06T14:00:00")
    assert changed["job"]["kind"] == JobKind.WORK  # type: ignore[index]
    assert (changed["title"], changed["starts_at"]) == ("Winter timetable, second reading", "2026-10-06T14:00:00+01:00")


def test_ticks_stay_where_the_minutes_are_written_again(desk: Desk, meeting: str) -> None:
    line = next(each for each in desk.record(meeting)["minutes"]["lines"] if each["kind"] == "action")
    desk.client.put(f"/api/meetings/{meeting}/lines/{line['id']}/tick", {"checked": True})
    details(desk, meeting, "Winter timetable", "2026-10-07T09:30:00")
    desk.work()
    assert [each["checked"] for each in desk.record(meeting)["minutes"]["lines"] if each["kind"] == "action"] == [True]


def test_everybody_in_the_room_sees_another_title(room: RoomDesk) -> None:
    details(room.desk, room.meeting, "Crew rota and leave", "2026-10-06T09:30:00")
    assert room.board()["meeting"]["title"] == "Crew rota and leave"


@pytest.mark.parametrize("body", [{"title": "", "starts_at": "2026-10-06T09:30:00"}, {"title": "X", "starts_at": "0001-01-01T00:00:00"}])  # fmt: skip
def test_what_is_no_title_or_time_is_refused(desk: Desk, meeting: str, body: dict[str, str]) -> None:
    assert desk.client.put(f"/api/meetings/{meeting}/details", body).status_code == 422
    assert desk.record(meeting)["meeting"]["title"] == "Winter timetable"
