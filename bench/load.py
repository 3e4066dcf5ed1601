"""What a team of fifty costs a server: open pages that only listen, then people who work.

`PYTHONPATH=. python bench/load.py [--pages 500] [--people 50] [--seconds 120] [--meetings 103] [--words 10000]
[--arriving 4]`

First so many pages follow their streams while nothing happens: processor time of the server, milliseconds of a plain
request. Then each person has a page with its stream, ten of them watch a room that is written to five times a second,
and each opens lists and Records and ticks lines, one after another with pauses of three to ten seconds: milliseconds
(p50, p95) by kind of request, answers other than 200, processor time. With `--arriving` a file of so many GB comes in
meanwhile, and what a writer waits for the lock of the database is measured, too. The talk is invented.
"""

import argparse
import asyncio
import hashlib
import os
import random
import statistics
import subprocess
import sys
import time
from collections import defaultdict
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from tempfile import TemporaryDirectory

import httpx
from sqlalchemy import text
from tests.filling import fill
from tests.help import MAREN, PASSWORD

from nuntius.core.live.line import LiveLine
from nuntius.core.rights import Role
from nuntius.core.rooms import RoomState
from nuntius.demonstration import free_port, wait_for
from nuntius.settings import Settings
from nuntius.store import sessions
from nuntius.store.accounts import create_account, create_workspace
from nuntius.store.installation import Installation
from nuntius.store.live import add_lines
from nuntius.store.meetings import readers_of
from nuntius.store.models import LineRow, Meeting, MinutesRow, Person, Room, User, now
from nuntius.store.rooms import open_room, room_of
from nuntius.store.uploads import PART_SIZE

STREAMS = 6  # of one person
PAUSE = (3.0, 10.0)  # seconds between two requests of one person
LINES = 35  # of each meeting's minutes
ATTENDANCE = 8  # accounts of each meeting, beside two people without one
WATCHERS, EVENTS = 10, 5  # people who watch the room, lines a second that come into it
PLAIN = "/api/account"


@dataclass
class Ticks:
    """Milliseconds of each request by its kind, and answers that were no 200."""

    took: dict[str, list[float]]
    refused: dict[str, int]

    def __str__(self) -> str:
        rows = []
        for kind, each in sorted(self.took.items()):
            p95 = sorted(each)[int(len(each) * 0.95)]
            rows.append(f"  {kind:<28}{len(each):>7}{statistics.median(each):>9.1f}{p95:>9.1f}{max(each):>9.1f}")
        head = f"  {'request':<28}{'count':>7}{'p50 ms':>9}{'p95 ms':>9}{'worst':>9}"
        return "\n".join([head, *rows, f"  other answers than 200: {dict(self.refused) or 'none'}"])


@dataclass
class Team:
    """An installation with people in it, and the cookie of a session of each."""

    store: Installation
    cookies: list[str]
    room: str


def prepare(store: Installation, accounts: int, meetings: int, words: int) -> Team:
    """Fills an installation; each may read some of the meetings, all of them the room."""
    from flask.sessions import SecureCookieSessionInterface

    from nuntius.web.app import create_app

    app = create_app(store.settings)
    serializer = SecureCookieSessionInterface().get_signing_serializer(app)
    assert serializer is not None
    with store.database.write() as session:
        workspace = create_workspace(session, "Saltmarsh Ferry Cooperative")
        maren = create_account(session, workspace, "Maren Tull", MAREN, PASSWORD, Role.ADMINISTRATOR)
        users = [maren]
        for number in range(accounts - 1):
            user = User(
                workspace_id=workspace.id, email=f"p{number}@saltmarsh.example", password_hash="-", role=Role.MEMBER
            )
            session.add(user)
            session.flush()
            name = f"Account {number}"
            session.add(Person(workspace_id=workspace.id, name=name, name_key=name.lower(), user_id=user.id))
            users.append(user)
        session.flush()
        tokens = [sessions.begin(session, user, "127.0.0.1", "bench") for user in users]
        fill(session, maren, 0, meetings, words, LINES)
        room = open_room(session, maren, "Crew rota", "general meeting", now(), "UTC", [], [])
        room.state = RoomState.RECORDING
        everybody = list(session.query(Person).filter(Person.user_id.is_not(None)))
        for number, meeting in enumerate(session.query(Meeting)):
            watched = meeting.id == room.meeting_id
            there = everybody if watched else [everybody[(number * 5 + n) % len(everybody)] for n in range(ATTENDANCE)]
            meeting.people = [*meeting.people[:2], *(each for each in there if each not in meeting.people[:2])]
        meeting_id = room.meeting_id
    return Team(store, [str(serializer.dumps({"_user_id": token, "_fresh": True})) for token in tokens], meeting_id)


async def listener(port: int, path: str, cookie: str, got: list[int]) -> None:
    """Follows one stream; notes the bytes that come."""
    reader, writer = await asyncio.open_connection("127.0.0.1", port)
    writer.write(f"GET {path} HTTP/1.1\r\nHost: localhost\r\nCookie: nuntius={cookie}\r\n\r\n".encode())
    head = await reader.readuntil(b"\r\n\r\n")
    assert b" 200 " in head.splitlines()[0], head
    try:
        while piece := await reader.read(65536):
            got.append(len(piece))
    finally:
        writer.close()


@asynccontextmanager
async def listening(port: int, streams: list[tuple[str, str]]) -> AsyncIterator[list[int]]:
    """Follows streams (path, cookie) beside what is done in it."""
    got: list[int] = []
    tasks = [asyncio.create_task(listener(port, path, cookie, got)) for path, cookie in streams]
    await asyncio.sleep(5)
    for task in tasks:
        assert not task.done(), task.exception()
    yield got
    for task in tasks:
        task.cancel()
    await asyncio.gather(*tasks, return_exceptions=True)


def processor(pid: int) -> float:
    """Seconds of processor time that a process has used."""
    fields = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
    return (int(fields[11]) + int(fields[12])) / os.sysconf("SC_CLK_TCK")


async def ask(
    client: httpx.AsyncClient, kind: str, path: str, ticks: Ticks, method: str = "GET", body: object = None
) -> None:
    begun = time.perf_counter()
    try:
        status = (await client.request(method, path, json=body)).status_code
    except httpx.HTTPError as error:
        status = type(error).__name__  # type: ignore[assignment]
    ticks.took[kind].append((time.perf_counter() - begun) * 1000)
    if status != 200:
        ticks.refused[f"{kind}: {status}"] += 1


def lines_of(team: Team) -> list[list[tuple[str, int]]]:
    """Meeting and line of all minutes that each account may read, in the order of the cookies."""
    with team.store.database.read() as session:
        query = session.query(MinutesRow.meeting_id, LineRow.id).join(LineRow, LineRow.minutes_id == MinutesRow.id)
        lines = [(meeting, line) for meeting, line in query]
        readers = readers_of(session, {meeting for meeting, _ in lines})
        return [
            [(meeting, line) for meeting, line in lines if user.id in readers[meeting]]
            for user in session.query(User).order_by(User.id)
        ]


async def person(port: int, cookie: str, end: float, ticks: Ticks, lines: list[tuple[str, int]]) -> None:
    """Somebody who looks at things and ticks lines until `end`."""
    chance = random.Random(cookie)
    async with httpx.AsyncClient(base_url=f"http://127.0.0.1:{port}", timeout=30) as client:
        client.cookies.set("nuntius", cookie, domain="127.0.0.1")
        token = (await client.get("/api/session")).json()["csrf"]
        client.headers["X-CSRF-Token"] = token
        while time.monotonic() < end:
            await asyncio.sleep(chance.uniform(*PAUSE))
            meeting, line = chance.choice(lines)
            kind, path, method, body = chance.choice(
                (
                    ("Today", "/api/meetings/today", "GET", None),
                    ("Archive", "/api/meetings", "GET", None),
                    ("actions", "/api/meetings/actions?most=8", "GET", None),
                    ("Record", f"/api/meetings/{meeting}", "GET", None),
                    ("tick", f"/api/meetings/{meeting}/lines/{line}/tick", "PUT", {"checked": chance.random() < 0.5}),
                )
            )
            await ask(client, kind, path, ticks, method, body)


async def speak(team: Team, end: float) -> None:
    """Lines come into the room, as the listener writes them."""
    at = 0.0
    while time.monotonic() < end:
        with team.store.database.write() as session:
            room = room_of(session, team.room)
            assert isinstance(room, Room)
            room.partial = ""
            add_lines(session, room, [LiveLine(at, at + 0.9, f"the slipway needs new rails {at:.0f}")])
        at += 1.0
        await asyncio.sleep(1 / EVENTS)


async def arrival(port: int, cookie: str, gigabytes: float) -> None:
    """Brings a file in, part by part, as a page does."""
    part = os.urandom(PART_SIZE)
    digest, count = hashlib.sha256(part).hexdigest(), round(gigabytes * 1024**3 / PART_SIZE)
    async with httpx.AsyncClient(base_url=f"http://127.0.0.1:{port}", timeout=60) as client:
        client.cookies.set("nuntius", cookie, domain="127.0.0.1")
        client.headers["X-CSRF-Token"] = (await client.get("/api/session")).json()["csrf"]
        begun = time.monotonic()
        body = {"name": "long.wav", "size": count * PART_SIZE, "fingerprint": digest}
        upload = (await client.post("/api/uploads", json=body)).json()["id"]
        for number in range(count):
            path = f"/api/uploads/{upload}/parts/{number}"
            (await client.put(path, content=part, headers={"X-Part-SHA256": digest})).raise_for_status()
    print(f"{gigabytes:g} GB arrived in {time.monotonic() - begun:.0f} s")


async def waits_for_the_lock(team: Team, end: float, ticks: Ticks) -> None:
    """What a writer waits, asked ten times a second."""

    def wait() -> float:
        begun = time.perf_counter()
        with team.store.database.write() as session:
            session.execute(text("SELECT 1"))
            return (time.perf_counter() - begun) * 1000

    while time.monotonic() < end:
        ticks.took["wait for the lock"].append(await asyncio.to_thread(wait))
        await asyncio.sleep(0.1)


async def quiet_pages(port: int, pid: int, team: Team, pages: int) -> None:
    """Pages that only listen, while nothing happens."""
    ticks = Ticks(defaultdict(list), defaultdict(int))
    async with listening(port, [("/api/events", team.cookies[n // STREAMS]) for n in range(pages)]) as got:
        used, begun, count = processor(pid), time.monotonic(), len(got)
        await asyncio.sleep(20)
        core = (processor(pid) - used) / (time.monotonic() - begun)
        print(f"{pages} open pages: {core:.3f} of a core, {len(got) - count} comments in 20 s")
        async with httpx.AsyncClient(
            base_url=f"http://127.0.0.1:{port}", cookies={"nuntius": team.cookies[-1]}
        ) as client:
            for _ in range(100):
                await ask(client, "plain", PLAIN, ticks)
    print(ticks)


async def working_people(port: int, pid: int, team: Team, people: int, seconds: float, gigabytes: float) -> None:
    ticks = Ticks(defaultdict(list), defaultdict(int))
    streams = [("/api/events", cookie) for cookie in team.cookies[:people]]
    streams += [(f"/api/meetings/{team.room}/room/events", cookie) for cookie in team.cookies[:WATCHERS]]
    lines = lines_of(team)
    async with listening(port, streams) as got:
        used, begun = processor(pid), time.monotonic()
        end = begun + seconds
        work = [person(port, cookie, end, ticks, lines[n]) for n, cookie in enumerate(team.cookies[:people])]
        work += [waits_for_the_lock(team, end, ticks)]
        work += [arrival(port, team.cookies[0], gigabytes)] if gigabytes else []
        await asyncio.gather(speak(team, end), *work)
        core = (processor(pid) - used) / (time.monotonic() - begun)
        print(f"{people} people, {seconds:.0f} s: {core:.2f} of a core, {sum(got) / 1e6:.1f} MB of events")
    print(ticks)


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__, formatter_class=argparse.RawDescriptionHelpFormatter)
    parser.add_argument("--pages", type=int, default=500)
    parser.add_argument("--people", type=int, default=50)
    parser.add_argument("--seconds", type=float, default=120)
    parser.add_argument("--meetings", type=int, default=103)
    parser.add_argument("--words", type=int, default=10_000)
    parser.add_argument("--arriving", type=float, default=0, help="GB of a file that comes in meanwhile")
    asked = parser.parse_args()
    with TemporaryDirectory() as folder:
        store = Installation(replace(Settings.from_environment({}), data=Path(folder)))
        accounts = max(asked.people, -(-asked.pages // STREAMS)) + 1
        team = prepare(store, accounts, asked.meetings, asked.words)
        port = free_port()
        environment = {**os.environ, "NUNTIUS_DATA": folder, "NUNTIUS_PORT": str(port)}
        server = subprocess.Popen([sys.executable, "-m", "nuntius", "serve"], env=environment)
        try:
            begun = time.monotonic()
            wait_for(f"http://127.0.0.1:{port}/api/health?ready")
            print(f"start to first answer: {time.monotonic() - begun:.1f} s")
            asyncio.run(quiet_pages(port, server.pid, team, asked.pages))
            asyncio.run(working_people(port, server.pid, team, asked.people, asked.seconds, asked.arriving))
        finally:
            server.terminate()
            server.wait(20)


if __name__ == "__main__":
    main()
