"""A listening line: joins a call by its link, announces itself, and brings what it hears into the room."""

import hashlib
import json
import logging
import struct
import time
from collections.abc import Callable
from contextlib import suppress
from threading import Event

import numpy as np
from websockets.exceptions import ConnectionClosed, InvalidHandshake, InvalidURI
from websockets.sync.client import connect
from websockets.sync.connection import Connection

from nuntius.core.audio.decode import RATE
from nuntius.core.errors import Fault
from nuntius.core.rooms import ENDING, LINE_WANTED, CallState, RoomState, SoundSource
from nuntius.store import capture
from nuntius.store.installation import Installation
from nuntius.store.models import Meeting, Room, Run, User, Workspace
from nuntius.store.rooms import announce, touch

log = logging.getLogger(__name__)

NAME = "Nuntius (listening line)"
PART = RATE // 2  # samples of a part
PATIENCE = 60.0  # seconds for which a call that dropped is called again
AGAIN = (1.0, 2.0, 4.0, 8.0, 15.0)  # seconds between two calls, longer each time that nobody answers
LOOK = 0.2  # seconds to wait for a frame before looking whether the line is still wanted


class Dismissed(Exception):
    """The room no longer wants the line."""


class CallGarbled(Exception):
    """What answers under the link does not speak as a call does."""


class CallLine:
    """One room's line, from the call to its end or its dismissal."""

    def __init__(self, installation: Installation, room_id: int, put: Callable[[str], None], end: Event) -> None:
        self._installation, self._room_id, self._put, self._end = installation, room_id, put, end
        self._recorder = f"line-{room_id:08d}"
        self._run: Run | None = None
        self._number = 0
        self._held = np.zeros(0, np.int32)

    def run(self) -> None:
        """Calls, listens, calls again when the call drops."""
        tried, calls = time.monotonic(), 0
        heard = False
        try:
            while not self._end.is_set() and self._wanted():
                try:
                    with connect(self._link(), open_timeout=5, max_size=2**16) as call:
                        if self._talk(call):
                            return
                        heard, tried, calls = True, time.monotonic(), 0
                except (OSError, InvalidHandshake, InvalidURI, ConnectionClosed, TimeoutError):
                    self._flush()
                if time.monotonic() - tried > (PATIENCE if heard or self._run else 5.0):
                    self._state(CallState.ENDED if heard else CallState.UNREACHABLE)
                    return
                self._run = None
                self._state(CallState.AWAY if heard or self._number else CallState.CALLING)
                self._end.wait(AGAIN[min(calls, len(AGAIN) - 1)])
                calls += 1
        except CallGarbled:
            log.warning("no call under this link", extra={"room": self._room_id})
            self._pause()
            self._state(CallState.GARBLED)
        except Dismissed:
            with suppress(Dismissed):  # where the meeting has ended, nothing takes the rest
                self._flush()
            self._pause()
            self._state(CallState.DISMISSED)
        except Fault as fault:
            log.info("the line gives up", extra={"room": self._room_id, "why": fault.sentence})
            self._state(CallState.ENDED)
        except Exception:  # whatever it is, to call again at once would bring it again
            log.exception("the line failed", extra={"room": self._room_id})
            self._state(CallState.UNREACHABLE)

    # --- the call ---

    def _talk(self, call: Connection) -> bool:
        """Takes part until the call is over (True) or drops (False). Raises Dismissed, CallGarbled."""
        call.send(json.dumps({"type": "join", "name": NAME}))
        while True:
            if self._end.is_set() or not self._wanted():
                call.send(json.dumps({"type": "leave"}))
                raise Dismissed()
            try:
                message = call.recv(timeout=LOOK)
            except TimeoutError:
                continue
            except ConnectionClosed:
                self._flush()
                return False
            try:
                if isinstance(message, bytes):
                    self._hear(message)
                elif self._handle(call, json.loads(message)):
                    return True
            except (ValueError, KeyError, TypeError, RecursionError, struct.error) as cause:
                raise CallGarbled() from cause

    def _handle(self, call: Connection, message: dict[str, object]) -> bool:
        """Does what a message of the bridge asks for; whether the call is over."""
        kind = message["type"]
        if kind == "waiting":
            self._state(CallState.WAITING)
        elif kind == "admitted":
            call.send(json.dumps({"type": "say", "text": self._announcement()}))
            self._begin()
            self._state(CallState.LISTENING)
        elif kind == "hold":
            self._flush()
            if message["on"]:
                self._pause()
                self._state(CallState.ON_HOLD)
            else:
                self._begin()
                self._state(CallState.LISTENING)
        elif kind in ("denied", "ended"):
            self._flush()
            self._state(CallState(kind))
            if kind == "ended":
                self._finish()
            return True
        return False

    def _hear(self, frame: bytes) -> None:
        """Adds a channel's sound to the mix of its tick; channel 0 begins a tick."""
        channel, _ = struct.unpack(">BI", frame[:5])
        samples = np.frombuffer(frame[5:], "<i2").astype(np.int32)
        if channel == 0:
            while len(self._held) >= PART:
                self._send(self._held[:PART])
                self._held = self._held[PART:]
            self._held = np.concatenate([self._held, samples])
        else:
            self._held[-len(samples) :] += samples

    # --- the room ---

    def _send(self, samples: np.ndarray) -> None:
        if self._run is None:
            return
        data = np.clip(samples, -32768, 32767).astype("<i2").tobytes()
        begun = time.time() - len(samples) / RATE if self._number == 0 else None
        part = capture.Arrival(self._number, data, hashlib.sha256(data).hexdigest(), begun)
        self._installation.files.write_part(capture.folder(self._run), part.number, data)
        with self._installation.database.write() as session:
            room, run = session.get_one(Room, self._room_id), session.get_one(Run, self._run.id)
            if room.state != RoomState.RECORDING or run.expected is not None:
                raise Dismissed()
            capture.note_part(session, room, run, part)
        self._number += 1

    def _flush(self) -> None:
        """Sends what has been heard since the last part."""
        rest, self._held = self._held, np.zeros(0, np.int32)
        for at in range(0, len(rest), PART):
            self._send(rest[at : at + PART])

    def _begin(self) -> None:
        with self._installation.database.write() as session:
            room = session.get_one(Room, self._room_id)
            meeting = session.get_one(Meeting, room.meeting_id)
            user = session.get_one(User, meeting.runner_id)
            if room.announced_at is None:
                announce(session, user, room, True)
            self._run = capture.begin_run(session, user, meeting, room, self._recorder, SoundSource.LINE)
            self._number = 0

    def _pause(self) -> None:
        if self._run is None:
            return
        with self._installation.database.write() as session:
            room, run = session.get_one(Room, self._room_id), session.get_one(Run, self._run.id)
            if room.state == RoomState.RECORDING and run.expected is None:
                capture.pause(session, session.get_one(User, run.user_id), room, run, self._number)
        self._run = None

    def _finish(self) -> None:
        with self._installation.database.write() as session:
            room = session.get_one(Room, self._room_id)
            job = capture.finish(session, room) if room.state in (RoomState.RECORDING, RoomState.PAUSED) else None
            job_id = job.id if job else None
        if job_id:
            self._put(job_id)

    def _announcement(self) -> str:
        with self._installation.database.read() as session:
            room = session.get_one(Room, self._room_id)
            meeting = session.get_one(Meeting, room.meeting_id)
            return session.get_one(Workspace, meeting.workspace_id).announcement

    def _link(self) -> str:
        with self._installation.database.read() as session:
            return session.get_one(Room, self._room_id).line_link

    def _wanted(self) -> bool:
        with self._installation.database.read() as session:
            room = session.get(Room, self._room_id)
            return room is not None and room.line_state in LINE_WANTED and room.state not in ENDING

    def _state(self, state: CallState) -> None:
        with self._installation.database.write() as session:
            room = session.get(Room, self._room_id)
            if room is not None and room.line_state != state:
                room.line_state = state
                touch(room)
