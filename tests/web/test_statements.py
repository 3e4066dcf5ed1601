"""Lists take a fixed number of statements and answer a page, however many meetings there are."""

from datetime import timedelta
from typing import Any

import pytest
from sqlalchemy import event
from sqlalchemy.orm import Session

from nuntius.store.models import (
    EvidenceRow,
    Excerpt,
    Job,
    LineRow,
    Meeting,
    MinutesRow,
    Person,
    Recording,
    Speaker,
    TurnRow,
    User,
    now,
)
from tests.help import Desk

LISTS = {
    "/api/meetings": 14,
    "/api/meetings?words=boat": 14,
    "/api/meetings/today": 20,
    "/api/meetings/actions": 8,
    "/api/people": 8,
    "/api/excerpts": 8,
    "/api/compilations": 6,
    "/api/setup/trust": 8,
    "/api/setup/terms": 6,
    "/api/templates": 6,
    "/api/activity": 6,
}  # statements at most, those of the session included


def fill(session: Session, user: User, count: int) -> None:
    """`count` meetings of the same people, each with a recording, a job, minutes and an excerpt."""
    people = [Person(workspace_id=user.workspace_id, name=f"P{n}", name_key=f"p{n}") for n in range(3)]
    session.add_all(people)
    for number in range(count):
        meeting = Meeting(
            workspace_id=user.workspace_id, title=f"Boat {number}", kind="committee", time_zone="UTC",
            starts_at=now() - timedelta(days=number), runner_id=user.id, people=list(people),
        )  # fmt: skip
        session.add(meeting)
        session.flush()
        session.add(Recording(meeting_id=meeting.id, name="a.wav", digest="0" * 64, duration=60.0))
        session.add(Job(meeting_id=meeting.id, state="done" if number % 3 else "waiting"))
        speaker = Speaker(meeting_id=meeting.id, label="Voice A", person_id=people[0].id)
        minutes = MinutesRow(meeting_id=meeting.id, sections=[], detailed=[], coverage=1.0, gaps=[], chapters=[])
        session.add_all([speaker, minutes])
        session.flush()
        words = [["Paint", 0.0, 0.5, 1.0], ["it.", 0.5, 1.0, 1.0]]
        session.add(TurnRow(meeting_id=meeting.id, number=0, speaker_id=speaker.id, cue="", words=words))
        session.add(
            LineRow(
                minutes_id=minutes.id, number=0, kind="action", chapter=0, text="Paint it.", owner=["Voice A"],
                state="", why="", evidence=[EvidenceRow(turn=0, first=0, last=1, start=0.0, end=1.0, quote="Paint it.")],
            )
        )  # fmt: skip
        session.add(
            Excerpt(meeting_id=meeting.id, user_id=user.id, title="T", speakers=["Voice A"], start=0, end=1, quote="Q")
        )


def statements(desk: Desk, path: str) -> tuple[int, Any]:
    """How many statements a request takes, and its answer."""
    seen: list[str] = []
    engine = desk.app.extensions["nuntius"].database._engine

    def note(*given: Any) -> None:
        seen.append(given[2])

    event.listen(engine, "before_cursor_execute", note)
    try:
        answer = desk.client.get(path)
    finally:
        event.remove(engine, "before_cursor_execute", note)
    assert answer.status_code == 200, answer.json
    return len([each for each in seen if not each.startswith("BEGIN")]), answer.json


@pytest.mark.parametrize("path", LISTS)
def test_their_number_does_not_grow_with_the_meetings(path: str, desk: Desk) -> None:
    counts = []
    for more in (4, 120):
        with desk.installation.database.write() as session:
            fill(session, session.query(User).one(), more)
        counts.append(statements(desk, path)[0])
    assert counts[0] == counts[1] <= LISTS[path]


def test_pages_follow_each_other_without_gap_or_repeat(desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 124)
    titles: list[str] = []
    after = ""
    while True:
        page = desk.client.get(f"/api/meetings?words=BOAT{after}").json
        assert page["total"] == 124 and len(page["meetings"]) <= 50
        titles += [meeting["title"] for meeting in page["meetings"]]
        if page["after"] is None:
            break
        after = f"&after={page['after'].replace('+', '%2B')}"
    assert titles == [f"Boat {number}" for number in range(124)]
    assert desk.client.get("/api/meetings?after=nonsense").status_code == 409


def test_words_are_found_in_title_kind_and_people(desk: Desk) -> None:
    desk.client.post("/api/rooms", {"title": "Élan vital", "people": ["Ines Carvell"]})
    desk.client.post("/api/rooms", {"title": "Rota 100%", "template": "committee", "people": ["Tobias Pryce"]})

    def found(words: str) -> list[str]:
        query = {"words": words}
        return [m["title"] for m in desk.client.raw.get("/api/meetings", query_string=query).json["meetings"]]

    assert found("élan") == found("INES carv") == ["Élan vital"]
    assert found("committee tobias") == found("100%") == ["Rota 100%"]
    assert found("nothing") == found("%")[1:] == []


def test_today_counts_all_and_shows_the_newest(desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 150)
    desk.client.post("/api/rooms", {"title": "On now"})
    today = desk.client.get("/api/meetings/today").json
    assert (today["on"]["total"], today["busy"]["total"], today["check"]["total"]) == (1, 50, 100)
    assert (len(today["busy"]["meetings"]), len(today["check"]["meetings"])) == (50, 50)
    actions = desk.client.get("/api/meetings/actions?most=8").json
    assert (len(actions["actions"]), actions["total"]) == (8, 150)
    assert actions["actions"][0]["owner"] == ["P0"]
