"""What happens in a room, as it happens: server-sent events."""

import json
import time
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from threading import Lock

from flask import Response, stream_with_context
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel

from nuntius.core.minutes.scene import scene
from nuntius.store.errors import NotFound
from nuntius.store.installation import Installation
from nuntius.store.live import live_rows, live_so_far
from nuntius.store.models import LiveLineRow, Meeting, Room
from nuntius.store.notes import facts_of
from nuntius.store.rooms import get_room
from nuntius.web import schemas as s
from nuntius.web.room_shapes import board_out, line_out, speech_out, voice_ids
from nuntius.web.routes.events import SESSION
from nuntius.web.security import SignedIn, installation, me, my_session, signed_in

api = APIBlueprint("room_events", __name__, url_prefix="/api", abp_tags=[Tag(name="rooms")])

LOOK = 0.1  # seconds between two looks
BOARD = 0.5  # seconds between two boards, at least
LONGEST = 240.0  # seconds of one stream; the browser comes back by itself and a lost thread is freed
SIGN = 10.0  # seconds without news after which a comment is sent, so that a lost connection is noticed
WARM = 20.0  # seconds between two readings of what has been said, so that a brief is quick


@api.get("/meetings/<meeting_id>/room/events", operation_id="getRoomEvents")
def get_room_events(path: s.MeetingPath) -> Response:
    """`speech` (seconds, words being spoken), `lines` (those that changed) and `board` events of a room."""
    with installation().database.read() as db:
        get_room(db, me(), path.meeting_id)
    stream = stream_with_context(_Stream(my_session(), path.meeting_id).events())
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return Response(stream, content_type="text/event-stream", headers=headers)


class _Stream:
    """What one watcher has been told."""

    def __init__(self, who: SignedIn, meeting_id: str) -> None:
        self._who, self._user, self._meeting_id = who, who.user, meeting_id
        self._version = self._lines_version = -1
        self._rows: dict[int, LiveLineRow] = {}
        self._told: dict[str, str] = {}
        self._board_at = 0.0

    def events(self) -> Iterator[str]:
        begun = signed = looked = time.monotonic()
        yield "retry: 1000\n\n"
        while time.monotonic() - begun < LONGEST:
            if time.monotonic() - looked > SESSION:
                looked = time.monotonic()
                if signed_in(installation(), self._who.get_id()) is None:
                    return
            try:
                news = list(self._news())
            except NotFound:
                return
            if news:
                signed = time.monotonic()
                yield "".join(news)
            elif time.monotonic() - signed > SIGN:
                signed = time.monotonic()
                yield ": nothing new\n\n"
            time.sleep(LOOK)

    def _news(self) -> Iterator[str]:
        late = time.monotonic() - self._board_at > BOARD
        with installation().database.read() as db:
            meeting, room = get_room(db, self._user, self._meeting_id)
            if room.version == self._version:
                return
            yield from self._event("speech", speech_out(room))
            changed = live_rows(db, meeting.id, self._lines_version) if room.version != self._lines_version else []
            if changed:
                voices = voice_ids(db, meeting.id)
                self._rows.update({row.number: row for row in changed})
                yield _text("lines", json.dumps([line_out(row, voices).model_dump() for row in changed]))
            self._lines_version = room.version
            if late:
                self._board_at = time.monotonic()
                self._version = room.version
                yield from self._event("board", board_out(db, meeting, room, self._user, self._sorted()))
        if room.state == "recording":
            _warm(installation(), room, meeting)

    def _sorted(self) -> list[LiveLineRow]:
        return sorted(self._rows.values(), key=lambda row: (row.start, row.number))

    def _event(self, name: str, body: BaseModel) -> Iterator[str]:
        text = body.model_dump_json()
        if self._told.get(name) != text:
            self._told[name] = text
            yield _text(name, text)


def _text(name: str, data: str) -> str:
    return f"event: {name}\ndata: {data}\n\n"


# --- reading ahead ---

_reader = ThreadPoolExecutor(1, thread_name_prefix="reading-ahead")
_lock = Lock()
_read: dict[str, float] = {}  # when a meeting was last read, by its identifier


def _warm(store: Installation, room: Room, meeting: Meeting) -> None:
    """Parses in the background what has been said, so that a brief or an answer takes a moment."""
    with _lock:
        moment = time.monotonic()
        if moment - _read.get(meeting.id, -WARM) < WARM:
            return
        _read[meeting.id] = moment

    def read() -> None:
        with store.database.read() as db:
            transcript, facts = live_so_far(db, room), facts_of(db, db.get_one(Meeting, meeting.id))
        if transcript.word_count:
            _ = scene(transcript, facts).vectors

    _reader.submit(read)
