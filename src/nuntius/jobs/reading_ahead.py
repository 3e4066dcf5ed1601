"""Reads in the worker what has been said in rooms that run, so that a brief or an answer takes a moment."""

import logging
from threading import Event

from sqlalchemy import select

from nuntius.core.errors import Fault
from nuntius.core.minutes.scene import scene
from nuntius.core.rooms import RoomState
from nuntius.store.installation import Installation
from nuntius.store.live import live_so_far
from nuntius.store.models import Meeting, Room
from nuntius.store.notes import facts_of

log = logging.getLogger(__name__)

PAUSE = 20.0  # seconds between two readings of what has been said


class ReadingAhead:
    """Parses what is new in the rooms that record; what it has parsed is kept by the language's own caches."""

    def __init__(self, store: Installation) -> None:
        self._store = store
        self._read: dict[int, int] = {}  # the version of each room that was read last

    def run(self, ended: Event) -> None:
        """Reads until `ended`."""
        while not ended.wait(PAUSE):
            try:
                self.read()
            except Fault as fault:
                log.warning("not read ahead", extra={"why": fault.sentence})
            except Exception:
                log.exception("reading ahead failed")

    def read(self) -> int:
        """Reads the rooms in which something was said since; how many."""
        with self._store.database.read() as session:
            rooms = list(session.scalars(select(Room).where(Room.state == RoomState.RECORDING)))
        new = [room for room in rooms if self._read.get(room.id) != room.version]
        for room in new:
            self._parse(room)
        self._read = {room.id: room.version for room in rooms}
        return len(new)

    def _parse(self, room: Room) -> None:
        with self._store.database.read() as session:
            transcript = live_so_far(session, room)
            facts = facts_of(session, session.get_one(Meeting, room.meeting_id))
        if transcript.word_count:
            _ = scene(transcript, facts).vectors
