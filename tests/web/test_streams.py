"""Streams of news on the real server: who gets what, how many, and when they end."""

import asyncio
import json
import time
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from http.client import HTTPConnection
from pathlib import Path

import pytest
from sqlalchemy import delete, event

from nuntius.store.accounts import create_workspace
from nuntius.store.database import CommitWatch
from nuntius.store.installation import Installation
from nuntius.store.meetings import open_to, readers_of
from nuntius.store.models import Meeting, SignInSession, User
from nuntius.web.streams import BACKLOG, MOST, Subscription
from tests.help import MAREN, PASSWORD, Client, Desk
from tests.rooms import RoomDesk
from tests.serving import listen, served

EVENTS = "/api/events"
STATES = ('"state":"waiting"', '"state":"done"', '"state":"failed"', '"state":"cancelled"')


@pytest.fixture
def port(desk: Desk) -> Iterator[int]:
    with served(desk.app) as number:
        yield number


class TestWork:
    def test_it_is_followed_by_those_who_may_read_the_meeting(self, desk: Desk, port: int, wav: Path) -> None:
        tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        streams = [listen(port, client, EVENTS) for client in (desk.client, tobias, ines)]
        for stream in streams:
            stream.until("retry")
        meeting = desk.bring_in(wav, people=("Tobias Pryce",))
        for stream in streams[:2]:
            assert meeting in stream.until('"state":"waiting"')
        assert desk.client.post(f"/api/meetings/{meeting}/cancel").status_code == 200
        for stream in streams[:2]:
            stream.until('"state":"cancelled"')
        theirs = desk.bring_in(wav, title="Another one", people=("Ines Carvell",))
        assert meeting not in streams[2].until(theirs)
        assert theirs in streams[0].until(theirs)

    def test_a_page_that_comes_back_gets_the_state(self, desk: Desk, port: int, wav: Path) -> None:
        meeting = desk.bring_in(wav)
        data = listen(port, desk.client, EVENTS).until(meeting)
        job = json.loads(data.rsplit("data: ", 1)[1])
        assert (job["meeting_id"], job["state"]) == (meeting, "waiting")
        assert any(state in data for state in STATES)

    def test_where_nothing_is_committed_nothing_is_looked_up(
        self, desk: Desk, port: int, monkeypatch: pytest.MonkeyPatch
    ) -> None:
        monkeypatch.setattr("nuntius.web.streams.QUIET", 1.0)
        statements: list[str] = []
        stream = listen(port, desk.client, EVENTS)
        stream.until("retry")
        engine = desk.app.extensions["nuntius"].database._engine
        stream.until(": nothing new")  # behind the first look, for the one who is new
        event.listen(engine, "before_cursor_execute", lambda *given: statements.append(str(given[2])))
        stream.until(": nothing new")
        assert [each for each in statements if "sign_in_session" not in each] == []


class TestRooms:
    def test_watchers_get_speech_lines_and_board(self, room: RoomDesk) -> None:
        with served(room.desk.app) as port:
            stream = listen(port, room.client, f"{room.base}/events")
            assert "event: speech" in stream.until("event: board")
            room.hear((0.0, 1.0, "good morning"))
            assert "good morning" in stream.until("event: lines")
            late = listen(port, room.client, f"{room.base}/events")
            assert "good morning" in late.until("event: board")

    def test_the_own_pad_is_seen_by_nobody_else(self, room: RoomDesk) -> None:
        tobias = room.desk.account("Tobias Pryce", "tobias@saltmarsh.example")
        room.client.post(f"{room.base}/people", {"name": "Tobias Pryce"})
        with served(room.desk.app) as port:
            mine, his = (listen(port, client, f"{room.base}/events") for client in (room.client, tobias))
            note = {"text": "he looks tired", "at": 0.0, "position": 1.0, "private": True}
            assert room.client.put(f"{room.base}/notes/note-0001", note).status_code == 200
            room.announce()
            assert "he looks tired" in mine.until('"announced_at":"')
            assert "he looks tired" not in his.until('"announced_at":"')

    def test_a_stream_ends_when_its_listener_is_taken_off_the_meeting(self, room: RoomDesk) -> None:
        tobias = room.desk.account("Tobias Pryce", "tobias@saltmarsh.example")
        board = room.client.post(f"{room.base}/people", {"name": "Tobias Pryce"}).json
        person = next(each["id"] for each in board["there"] if each["name"] == "Tobias Pryce")
        with served(room.desk.app) as port:
            his = listen(port, tobias, f"{room.base}/events")
            his.until("event: board")
            taken = room.client.send("DELETE", f"/api/meetings/{room.meeting}/people/{person}")
            assert taken.status_code == 200
            assert "event" not in his.rest()

    def test_a_stream_ends_when_its_meeting_is_removed(self, room: RoomDesk) -> None:
        with served(room.desk.app) as port:
            stream = listen(port, room.client, f"{room.base}/events")
            stream.until("event: board")
            assert room.client.send("DELETE", f"/api/meetings/{room.meeting}").status_code == 200
            stream.rest()


class TestEnds:
    def test_a_stream_ends_with_its_session(self, desk: Desk, port: int, monkeypatch: pytest.MonkeyPatch) -> None:
        monkeypatch.setattr("nuntius.web.streams.SESSION", 0.0)
        monkeypatch.setattr("nuntius.web.streams.QUIET", 1.0)
        other = desk.sign_in(MAREN, PASSWORD)
        streams = [listen(port, client, EVENTS) for client in (desk.client, other)]
        for stream in streams:
            stream.until("event: exports")  # which each page begins with
        lasting = _session_id(other)
        with desk.installation.database.write() as session:
            session.execute(delete(SignInSession).where(SignInSession.id != lasting))
        assert "event" not in streams[0].rest()
        assert streams[1].until(": nothing new")

    def test_one_person_has_six(self, desk: Desk, port: int) -> None:
        streams = [listen(port, desk.client, EVENTS) for _ in range(MOST)]
        for stream in streams:
            stream.until("retry")
        refused = listen(port, desk.client, EVENTS)
        assert (refused.response.status, "too many windows" in refused.rest()) == (429, True)
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        assert listen(port, ines, EVENTS).response.status == 200
        streams[0].close()
        _wait_for(lambda: listen(port, desk.client, EVENTS).response.status == 200)

    def test_without_a_session_there_is_none(self, port: int) -> None:
        connection = HTTPConnection("127.0.0.1", port)
        connection.request("GET", EVENTS)
        answer = connection.getresponse()
        assert (answer.status, answer.headers["Content-Type"]) == (401, "application/problem+json")


def test_who_may_listen_is_who_may_read(desk: Desk, wav: Path) -> None:
    """The rule of the streams, by meeting, against the rule of the lists, by account."""
    for name in ("Tobias Pryce", "Ines Carvell"):
        desk.account(name, f"{name[:3]}@saltmarsh.example")
    meetings = {desk.bring_in(wav, title=f"{n}", people=("Tobias Pryce",) if n % 2 else ()) for n in range(4)}
    with desk.installation.database.read() as session:
        readers = readers_of(session, {*meetings, "none"})
        for user in session.query(User):
            mine = {meeting.id for meeting in session.scalars(open_to(user))}
            assert mine == {meeting for meeting, users in readers.items() if user.id in users}
    assert readers["none"] == set()


def test_a_watch_notices_what_others_commit(installation: Installation) -> None:
    watch = CommitWatch(installation.database.path)
    assert watch.moved() and not watch.moved()
    with installation.database.read() as session:
        session.query(Meeting).count()
    assert not watch.moved()
    with installation.database.write() as session:
        create_workspace(session, "Saltmarsh Ferry Cooperative")
    assert watch.moved()
    assert not watch.moved()


def _session_id(client: Client) -> int:
    """Which session a client's is."""
    return int(next(each["id"] for each in client.get("/api/account").json["sessions"] if each["this"]))


def _wait_for(holds: Callable[[], bool], seconds: float = 10.0) -> None:
    end = time.monotonic() + seconds
    while not holds():
        assert time.monotonic() < end
        time.sleep(0.05)


def test_what_waits_for_a_client_that_has_stopped_reading_is_bounded() -> None:
    async def overfill() -> tuple[int, bool]:
        user = User(id=1, email="maren@saltmarsh.example", password_hash="-")
        subscription = Subscription(user, "token", "", lambda _: None)
        for number in range(3 * BACKLOG):
            subscription.offer("job", str(number))
        await asyncio.sleep(0)
        return subscription._waiting.qsize(), [piece async for piece in subscription] == []

    # In a thread of its own: the browser tests leave an event loop running in this one.
    with ThreadPoolExecutor(1) as thread:
        assert thread.submit(asyncio.run, overfill()).result(10) == (BACKLOG + 1, True)
