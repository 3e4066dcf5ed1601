"""A simulated call bridge: plays a recorded meeting to whoever joins. PROTOCOL.md beside this file says how."""

import asyncio
import json
import logging
import struct
from dataclasses import dataclass, field
from functools import lru_cache
from http import HTTPStatus
from pathlib import Path
from typing import Any
from urllib.parse import parse_qs, urlsplit

import numpy as np
from numpy.typing import NDArray
from websockets.asyncio.server import Server, ServerConnection, serve
from websockets.datastructures import Headers
from websockets.exceptions import ConnectionClosed
from websockets.http11 import Request, Response

from nuntius.core.audio.decode import RATE, load

log = logging.getLogger(__name__)

TICK = 0.1  # seconds of sound in a frame
FADE = 0.02  # seconds over which a channel opens and closes
PAGE = Path(__file__).with_name("bridge.html")

Channel = NDArray[np.int16]


@lru_cache(maxsize=4)
def channels(folder: Path, name: str) -> dict[str, Channel]:
    """The sound of each speaker of a demo meeting, shape (n,) each: the mix where that speaker's turns lie."""
    mix = load(folder / f"{name}.ogg")
    turns = json.loads((folder / f"{name}.truth.json").read_text())["turns"]
    made = {}
    for speaker in dict.fromkeys(turn["speaker"] for turn in turns):
        gain = np.zeros(len(mix), np.float32)
        for turn in turns:
            if turn["speaker"] == speaker:
                gain[round((turn["start"] - 0.1) * RATE) : round((turn["end"] + 0.2) * RATE)] = 1.0
        smooth = np.convolve(gain, np.ones(round(FADE * RATE), np.float32) / round(FADE * RATE), "same")
        made[str(speaker)] = (np.clip(mix * smooth, -1, 1) * 32767).astype(np.int16)
    return made


@dataclass
class Call:
    """One call: who is in it or waits, and how far its meeting has been played."""

    name: str
    sound: dict[str, Channel]
    pace: float
    waiting_room: bool
    inside: dict[ServerConnection, str] = field(default_factory=dict)
    waiting: dict[ServerConnection, str] = field(default_factory=dict)
    said: list[dict[str, str]] = field(default_factory=list)
    held: bool = False
    tick: int = 0
    player: asyncio.Task[None] | None = None

    @property
    def ticks(self) -> int:
        longest = max(len(sound) for sound in self.sound.values())
        return -(-longest // round(TICK * RATE))

    def state(self) -> dict[str, Any]:
        return {
            "name": self.name,
            "inside": list(self.inside.values()),
            "waiting": list(self.waiting.values()),
            "said": self.said[-20:],
            "held": self.held,
            "seconds": round(self.tick * TICK),
            "of": round(self.ticks * TICK),
        }

    async def tell(self, who: list[ServerConnection], **message: Any) -> None:
        for each in who:
            try:
                await each.send(json.dumps(message))
            except ConnectionClosed:
                self.inside.pop(each, None)

    async def admit(self, who: ServerConnection) -> None:
        self.inside[who] = self.waiting.pop(who)
        await self.tell([who], type="admitted", rate=RATE, channels=list(self.sound))
        if self.player is None:
            self.player = asyncio.create_task(self._play())

    async def _play(self) -> None:
        """Sends the meeting tick by tick, whoever is there; it goes on while a line is away, as a meeting does."""
        clock = asyncio.get_running_loop()
        begun, size = clock.time(), round(TICK * RATE)
        while self.tick < self.ticks:
            at = self.tick * size
            if not self.held:
                for number, sound in enumerate(self.sound.values()):
                    part = sound[at : at + size]
                    frame = (
                        struct.pack(">BI", number, self.tick)
                        + np.pad(part, (0, size - len(part))).astype("<i2").tobytes()
                    )
                    for each in list(self.inside):
                        try:
                            await each.send(frame)
                        except ConnectionClosed:
                            self.inside.pop(each, None)
            self.tick += 1
            await asyncio.sleep(max(0.0, begun + self.tick * TICK / self.pace - clock.time()))
        await self.end()

    async def end(self) -> None:
        """Tells everybody that the call is over."""
        await self.tell([*self.inside, *self.waiting], type="ended")
        for each in [*self.inside, *self.waiting]:
            await each.close()
        if self.player is not None and self.player is not asyncio.current_task():
            self.player.cancel()
        self.inside.clear()
        self.waiting.clear()
        self.player, self.tick, self.held = None, 0, False


class Bridge:
    """All calls, and the page that moves them."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._calls: dict[str, Call] = {}

    async def serve(self, host: str, port: int) -> Server:
        """Begins to answer."""
        return await serve(self._connected, host, port, process_request=self._page, max_size=2**16)

    async def end(self) -> None:
        """Ends all calls."""
        for call in self._calls.values():
            await call.end()

    def _page(self, connection: ServerConnection, request: Request) -> Response | None:
        """The page for a browser; everything else is a WebSocket."""
        if request.headers.get("Upgrade", "").lower() == "websocket":
            return None
        if urlsplit(request.path).path != "/":
            return connection.respond(HTTPStatus.NOT_FOUND, "There is nothing here.\n")
        body = PAGE.read_bytes()
        headers = Headers(
            {"Content-Type": "text/html; charset=utf-8", "Content-Length": str(len(body)), "Connection": "close"}
        )
        return Response(HTTPStatus.OK.value, "OK", headers, body)

    async def _connected(self, connection: ServerConnection) -> None:
        path = urlsplit(connection.request.path if connection.request else "")
        try:
            if path.path == "/control":
                await self._control(connection)
            elif (call := self._call(path.path.removeprefix("/call/"), parse_qs(path.query))) is not None:
                await self._line(connection, call)
        except ConnectionClosed:
            pass

    def _call(self, name: str, query: dict[str, list[str]]) -> Call | None:
        if not (self._folder / f"{name}.truth.json").is_file() or "/" in name:
            return None
        if name not in self._calls:
            pace, waiting = float(query.get("pace", ["1"])[0]), query.get("waiting", ["0"])[0] == "1"
            self._calls[name] = Call(name, channels(self._folder, name), max(0.1, pace), waiting)
        return self._calls[name]

    async def _line(self, connection: ServerConnection, call: Call) -> None:
        joined = json.loads(await connection.recv())
        call.waiting[connection] = str(joined.get("name", "Somebody"))[:100]
        try:
            if call.waiting_room:
                await call.tell([connection], type="waiting")
            else:
                await call.admit(connection)
            async for message in connection:
                if isinstance(message, bytes):
                    continue
                heard = json.loads(message)
                if heard["type"] == "leave":
                    return
                if heard["type"] == "say" and connection in call.inside:
                    line = {"by": call.inside[connection], "text": str(heard["text"])[:2000]}
                    call.said.append(line)
                    await call.tell(list(call.inside), type="said", **line)
        finally:
            call.waiting.pop(connection, None)
            call.inside.pop(connection, None)

    async def _control(self, connection: ServerConnection) -> None:
        async def show() -> None:
            while True:
                await connection.send(json.dumps([call.state() for call in self._calls.values()]))
                await asyncio.sleep(0.25)

        showing = asyncio.create_task(show())
        try:
            async for message in connection:
                asked = json.loads(message)
                call = self._calls.get(asked.get("call", ""))
                if call is not None:
                    await self._move(call, asked.get("do", ""))
        finally:
            showing.cancel()

    async def _move(self, call: Call, do: str) -> None:
        if do == "admit":
            for each in list(call.waiting):
                await call.admit(each)
        elif do == "deny":
            await call.tell(list(call.waiting), type="denied")
            for each in list(call.waiting):
                await each.close()
        elif do in ("hold", "resume"):
            call.held = do == "hold"
            await call.tell(list(call.inside), type="hold", on=call.held)
        elif do == "drop":
            for each in list(call.inside):
                each.transport.abort()
        elif do == "end":
            await call.end()


def run(folder: Path, host: str, port: int) -> None:
    """Serves calls until asked to end."""

    async def serving() -> None:
        server = await Bridge(folder).serve(host, port)
        await server.serve_forever()

    asyncio.run(serving())
