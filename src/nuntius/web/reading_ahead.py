"""Reads in the background what has been said in a room, so that a brief or an answer takes a moment."""

import time
from concurrent.futures import ThreadPoolExecutor

from nuntius.core.minutes.scene import scene
from nuntius.store.installation import Installation
from nuntius.store.live import live_so_far
from nuntius.store.models import Meeting, Room
from nuntius.store.notes import facts_of

PAUSE = 20.0  # seconds between two readings of one meeting


class ReadingAhead:
    """One thread that parses what has been said so far."""

    def __init__(self, store: Installation) -> None:
        self._store = store
        self._thread = ThreadPoolExecutor(1, thread_name_prefix="reading-ahead")
        self._read: dict[str, float] = {}  # when a meeting was last read, by its identifier

    def read(self, room: Room) -> None:
        """Reads a meeting soon, unless it has just been read."""
        moment = time.monotonic()
        self._read = {key: at for key, at in self._read.items() if moment - at < PAUSE}
        if room.meeting_id not in self._read:
            self._read[room.meeting_id] = moment
            self._thread.submit(self._parse, room)

    def _parse(self, room: Room) -> None:
        with self._store.database.read() as session:
            transcript = live_so_far(session, room)
            facts = facts_of(session, session.get_one(Meeting, room.meeting_id))
        if transcript.word_count:
            _ = scene(transcript, facts).vectors
