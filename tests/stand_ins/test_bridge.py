"""The simulated call bridge and the line that listens to it, over real WebSockets."""

import asyncio
import json
import struct
import time
import urllib.request
from collections.abc import Callable, Iterator
from contextlib import suppress
from pathlib import Path
from threading import Event, Thread

import numpy as np
import pytest
from websockets.exceptions import ConnectionClosed
from websockets.sync.client import connect
from websockets.sync.connection import Connection
from websockets.sync.server import ServerConnection, serve

from nuntius.core.audio.decode import RATE
from nuntius.demonstration import FILES, free_port
from nuntius.jobs.line import AGAIN, CallLine
from nuntius.settings import Settings
from nuntius.stand_ins.bridge import Bridge, channels
from nuntius.store.capture import breaks_of, joined, pieces
from nuntius.store.models import Room
from nuntius.store.rooms import room_of
from tests.help import Desk


@pytest.fixture
def address() -> Iterator[str]:
    """A bridge with the demo's meetings."""
    port, loop, bridge = free_port(), asyncio.new_event_loop(), Bridge(FILES)
    thread = Thread(target=loop.run_forever)
    thread.start()
    server = asyncio.run_coroutine_threadsafe(bridge.serve("127.0.0.1", port), loop).result(10)
    yield f"ws://127.0.0.1:{port}"
    asyncio.run_coroutine_threadsafe(bridge.end(), loop).result(10)
    loop.call_soon_threadsafe(server.close)
    asyncio.run_coroutine_threadsafe(server.wait_closed(), loop).result(10)
    loop.call_soon_threadsafe(loop.stop)
    thread.join()
    loop.close()


@pytest.fixture
def move(address: str) -> Iterator[Callable[[str, str], None]]:
    with connect(f"{address}/control") as control:
        yield lambda do, call: control.send(json.dumps({"do": do, "call": call}))


def told(call: Connection, kind: str) -> dict[str, object]:
    """The next message of this kind."""
    while True:
        message = call.recv(timeout=10)
        if isinstance(message, str) and (found := json.loads(message))["type"] == kind:
            return dict(found)


def test_each_speaker_has_a_channel_and_together_they_are_the_meeting() -> None:
    made = channels(FILES, "engine-room")
    assert set(made) == {"Ines", "Douglas", "Tobias", "Priya"}
    active = {name: float(np.mean(np.abs(sound.astype(np.float32)) > 300)) for name, sound in made.items()}
    assert all(share > 0.005 for share in active.values())
    assert sum(active.values()) < 0.9


def test_a_comer_waits_until_let_in_then_hears_every_channel(address: str, move: Callable[[str, str], None]) -> None:
    with connect(f"{address}/call/engine-room?waiting=1&pace=4") as call:
        call.send(json.dumps({"type": "join", "name": "Line"}))
        told(call, "waiting")
        move("admit", "engine-room")
        admitted = told(call, "admitted")
        assert admitted["rate"] == RATE
        frames: list[tuple[int, int]] = []
        while len(frames) < 12:
            message = call.recv(timeout=10)
            if isinstance(message, bytes):
                frames.append(struct.unpack(">BI", message[:5]))
                assert len(message) == 5 + 2 * RATE // 10
        assert [frame for frame in frames if frame[1] == 0] == [(n, 0) for n in range(4)]
        call.send(json.dumps({"type": "say", "text": "This is being recorded."}))
        assert told(call, "said") == {"type": "said", "by": "Line", "text": "This is being recorded."}
        move("end", "engine-room")
        told(call, "ended")


def test_one_who_is_denied_is_sent_away(address: str, move: Callable[[str, str], None]) -> None:
    with connect(f"{address}/call/engine-room?waiting=1") as call:
        call.send(json.dumps({"type": "join", "name": "Line"}))
        told(call, "waiting")
        move("deny", "engine-room")
        told(call, "denied")


def test_the_page_says_that_it_is_simulated(address: str) -> None:
    with urllib.request.urlopen(address.replace("ws:", "http:")) as answer:
        assert b"This is no real call" in answer.read()


class Line:
    """A room's line in a thread."""

    def __init__(self, desk: Desk, link: str) -> None:
        self.desk, self._end = desk, Event()
        self.meeting = desk.client.post("/api/rooms", {"title": "Call"}).json["board"]["meeting"]["id"]
        self.base = f"/api/meetings/{self.meeting}/room"
        assert desk.client.post(f"{self.base}/line", {"link": link}).status_code == 200
        self.thread = self._begun()

    def _begun(self) -> Thread:
        thread = Thread(target=CallLine(self.desk.installation, self.room().id, self.desk.queue.put, self._end).run)
        thread.start()
        return thread

    def call_back(self, link: str) -> None:
        self.desk.client.post(f"{self.base}/line", {"link": link})
        self.thread = self._begun()

    def room(self) -> Room:
        with self.desk.installation.database.read() as session:
            found = room_of(session, self.meeting)
        assert found is not None
        return found

    def until(self, state: str, held: float = 0.0) -> None:
        patience = time.monotonic() + 30
        while self.room().line_state != state or self.room().held < held * RATE:
            assert time.monotonic() < patience, f"{self.room().line_state} with {self.room().held / RATE} s"
            time.sleep(0.05)

    def kinds(self) -> list[str]:
        with self.desk.installation.database.read() as session:
            return [each.kind for each in breaks_of(session, self.meeting)]

    def stop(self) -> None:
        self._end.set()
        self.thread.join(timeout=30)


@pytest.fixture
def line(desk: Desk, address: str) -> Iterator[Line]:
    made = Line(desk, f"{address}/call/engine-room?pace=4")
    yield made
    made.stop()


def test_the_line_announces_itself_and_brings_the_whole_sound(line: Line) -> None:
    line.until("listening", held=8)
    board = line.desk.client.get(line.base).json["board"]
    assert board["announced_at"] is not None and board["source"] == "line"
    with line.desk.installation.database.read() as session:
        room = room_of(session, line.meeting)
        assert room is not None
        parts = pieces(session, room)
    sound = np.frombuffer(b"".join(joined(line.desk.installation.files, parts)), "<i2")
    mixed = sum(channel[: 6 * RATE].astype(np.int32) for channel in channels(FILES, "engine-room").values())
    assert np.array_equal(sound[: 6 * RATE], np.clip(mixed, -32768, 32767).astype(np.int16))


def test_hold_pauses_a_dropped_call_leaves_a_gap_and_the_end_ends_it(
    desk: Desk, address: str, move: Callable[[str, str], None]
) -> None:
    line = Line(desk, f"{address}/call/engine-room")  # in real time, so that sound and clock agree
    line.until("listening", held=3)
    move("hold", "engine-room")
    line.until("on hold")
    held = line.room().held
    assert line.room().state == "paused"
    move("resume", "engine-room")
    line.until("listening", held=held / RATE + 2)
    move("drop", "engine-room")
    line.until("away")
    line.until("listening", held=line.room().held / RATE + 3)
    assert line.kinds() == ["pause", "gap"]
    move("end", "engine-room")
    line.thread.join(timeout=30)
    assert (line.room().line_state, line.room().state) == ("ended", "stopped")


def test_a_dismissed_line_leaves_and_can_be_called_back(line: Line, address: str) -> None:
    line.until("listening", held=3)
    line.desk.client.send("DELETE", f"{line.base}/line")
    line.thread.join(timeout=30)
    assert not line.thread.is_alive()
    assert (line.room().line_state, line.room().state) == ("dismissed", "paused")
    held = line.room().held
    line.call_back(f"{address}/call/engine-room?pace=4")
    line.until("listening", held=held / RATE + 2)
    assert line.kinds() == ["pause"]


def test_a_link_that_nobody_answers_says_so(desk: Desk) -> None:
    line = Line(desk, f"ws://127.0.0.1:{free_port()}/call/none")
    line.until("unreachable")
    line.stop()
    assert desk.client.post(f"{line.base}/line", {"link": "https://no.example"}).status_code == 422
    refused = desk.client.post(f"{line.base}/line", {"link": "ws://10.0.0.1/call/x"})
    assert refused.status_code == 409 and "may not call 10.0.0.1" in refused.json["detail"]


GARBLED = (
    "no JSON", '{"kind": "hello"}', "[]", "7", '{"type": "hold"}', "[" * 30_000, b"", b"\x00", b"\x00\x00\x00\x00\x00odd",
    struct.pack(">BI", 3, 0) + b"\x00\x01" * 4,
)  # fmt: skip


@pytest.mark.parametrize("garbled", GARBLED, ids=range(len(GARBLED)))
def test_what_does_not_speak_as_a_call_is_left_at_once(desk: Desk, garbled: str | bytes) -> None:
    calls = []

    def speak(connection: ServerConnection) -> None:
        calls.append(connection.recv())
        connection.send(garbled)
        with suppress(ConnectionClosed):
            connection.recv(timeout=10)

    with serve(speak, "127.0.0.1", 0) as server:
        thread = Thread(target=server.serve_forever)
        thread.start()
        line = Line(desk, f"ws://127.0.0.1:{server.socket.getsockname()[1]}/call/x")
        line.until("garbled")
        line.thread.join(timeout=10)
        line.stop()
        server.shutdown()
        thread.join()
    assert len(calls) == 1


def test_calls_follow_each_other_more_and_more_slowly() -> None:
    assert list(AGAIN) == sorted(AGAIN) and AGAIN[-1] >= 10


def test_outside_the_demo_no_host_may_be_called() -> None:
    assert Settings.from_environment({}).call_hosts == ()
    assert Settings.from_environment({"NUNTIUS_DEMO": "1"}).call_hosts == ("127.0.0.1", "localhost")
    given = Settings.from_environment({"NUNTIUS_CALL_HOSTS": "Calls.example, b.example,"})
    assert given.call_hosts == ("calls.example", "b.example")


def test_a_meeting_that_is_not_there_is_no_call(address: str, tmp_path: Path) -> None:
    with connect(f"{address}/call/..%2Fsecret") as call, pytest.raises(ConnectionClosed):
        call.recv(timeout=5)
