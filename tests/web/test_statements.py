"""Lists take a fixed number of statements and answer a page, however many meetings there are; a record its window."""

from typing import Any

import pytest
from sqlalchemy import event

from nuntius.store.models import User
from tests.filling import TURN, fill
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
    counts, held = [], 0
    for more in (4, 120):
        with desk.installation.database.write() as session:
            fill(session, session.query(User).one(), held, more)
        held += more
        counts.append(statements(desk, path)[0])
    assert counts[0] == counts[1] <= LISTS[path]


def test_pages_follow_each_other_without_gap_or_repeat(desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 0, 124)
    titles: list[str] = []
    after = ""
    while True:
        page = desk.client.get(f"/api/meetings?words=BOAT{after}").json
        assert page["total"] == 124 and len(page["meetings"]) <= 50
        titles += [meeting["title"] for meeting in page["meetings"]]
        if page["after"] is None:
            break
        after = f"&after={page['after'].replace('+', '%2B')}"
    assert titles == [f"Boat affairs {number}" for number in range(124)]
    assert desk.client.get("/api/meetings?after=nonsense").status_code == 409


def test_words_are_found_in_title_kind_and_people(desk: Desk) -> None:
    desk.client.post("/api/rooms", {"title": "Élan vital", "people": ["Ines Carvell"]})
    desk.client.post("/api/rooms", {"title": "Rota 100%", "template": "committee", "people": ["Tobias Pryce"]})

    def found(words: str) -> list[str]:
        query = {"words": words}
        return [m["title"] for m in desk.client.get("/api/meetings", query_string=query).json["meetings"]]

    assert found("élan") == found("INES carv") == ["Élan vital"]
    assert found("committee tobias") == found("100%") == ["Rota 100%"]
    assert found("nothing") == found("%")[1:] == []


def test_today_counts_all_and_shows_the_newest(desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 0, 150)
    desk.client.post("/api/rooms", {"title": "On now"})
    today = desk.client.get("/api/meetings/today").json
    assert (today["on"]["total"], today["busy"]["total"], today["check"]["total"]) == (1, 50, 100)
    assert (len(today["busy"]["meetings"]), len(today["check"]["meetings"])) == (50, 50)
    actions = desk.client.get("/api/meetings/actions?most=8").json
    assert (len(actions["actions"]), actions["total"]) == (8, 150)
    assert actions["actions"][0]["owner"] == ["Person 0"]


RECORD = {"": 30, "/turns?first=500": 8}  # statements at most of a record, those of the session included


@pytest.mark.parametrize("part", RECORD)
def test_a_record_comes_by_windows(part: str, desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 1, 1, words=1200 * TURN, lines=3)
    (meeting,) = desk.client.get("/api/meetings").json["meetings"]
    count, answer = statements(desk, f"/api/meetings/{meeting['id']}{part}")
    assert count <= RECORD[part]
    assert (len(answer["turns"]), answer.get("total_turns", answer.get("total"))) == (500, 1200)
    rest = desk.client.get(f"/api/meetings/{meeting['id']}/turns?first=1000").json
    assert [turn["number"] for turn in rest["turns"]] == list(range(1000, 1200))


def test_ticking_a_line_answers_with_that_line(desk: Desk) -> None:
    with desk.installation.database.write() as session:
        fill(session, session.query(User).one(), 1, 1, words=12_000, lines=400)
    (meeting,) = desk.client.get("/api/meetings").json["meetings"]
    line = desk.record(meeting["id"])["minutes"]["lines"][7]["id"]
    changed = desk.client.put(f"/api/meetings/{meeting['id']}/lines/{line}/tick", {"checked": True})
    assert [(each["id"], each["checked"]) for each in changed.json["lines"]] == [(line, True)]
    assert (changed.json["minutes"], changed.json["turns"]) == (None, [])
    undone = desk.client.post(f"/api/meetings/{meeting['id']}/undo").json
    assert [(each["id"], each["checked"]) for each in undone["lines"]] == [(line, False)]
