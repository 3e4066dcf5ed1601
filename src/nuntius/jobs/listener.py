"""The listener: follows meetings while they are recorded and writes down what is said."""

import logging
import time
from collections.abc import Callable
from datetime import timedelta
from threading import Event, Thread

from sqlalchemy import or_, select, update

from nuntius.core.errors import Fault
from nuntius.core.rooms import LINE_WANTED, NOT_ENDED, RoomState
from nuntius.jobs.follow import Follower
from nuntius.jobs.line import CallLine
from nuntius.store import heartbeats
from nuntius.store.capture import end_vanished
from nuntius.store.errors import DatabaseBusy
from nuntius.store.installation import Installation
from nuntius.store.leases import lapsed, this_process
from nuntius.store.models import Room, now

log = logging.getLogger(__name__)

LOOK = 0.1  # seconds between two looks for meetings to follow
LEASE = timedelta(seconds=8)  # after which a meeting without a sign of its listener may be taken over
BEAT = 2.0  # seconds between two heartbeats
CLOCK = 60.0  # seconds between two looks for recordings whose page has vanished


class Listener:
    """Follows every meeting that is being recorded, each in a thread of its own."""

    def __init__(self, installation: Installation, put: Callable[[str], None]) -> None:
        self._installation, self._put = installation, put
        self._followed: dict[int, Thread] = {}
        self._lines: dict[int, Thread] = {}
        self._end = Event()

    def run(self) -> None:
        """Follows until asked to end."""
        Thread(target=self._watch, name="heartbeats", daemon=True).start()
        while not self._end.wait(LOOK):
            try:
                self._look()
            except DatabaseBusy as fault:  # the next look may get through
                log.warning("no look for meetings", extra={"why": fault.sentence})

    def _look(self) -> None:
        self._followed = {room: thread for room, thread in self._followed.items() if thread.is_alive()}
        for room in self._unfollowed():
            self._follow(room)
        self._call()

    def stop(self) -> None:
        """Ends `run` and, soon after, the followers; what they have heard stands in the store."""
        self.end()
        for thread in [*self._followed.values(), *self._lines.values()]:
            thread.join(timeout=10)
        self._release()

    def end(self) -> None:
        """Lets `run` and the followers end, without waiting for them."""
        self._end.set()

    def _watch(self) -> None:
        """Sends heartbeats beside all else, and ends recordings by the clock."""
        looked = -CLOCK
        while not self._end.is_set():
            try:
                self._beat()
                if time.monotonic() - looked > CLOCK:
                    looked = time.monotonic()
                    self._end_vanished()
            except Fault as fault:
                log.warning("no heartbeat", extra={"why": fault.sentence})
            except Exception:
                log.exception("no heartbeat")
            self._end.wait(BEAT)

    def _end_vanished(self) -> None:
        with self._installation.database.write() as session:
            jobs = [job.id for job in end_vanished(session)]
        for job_id in jobs:
            log.info("ended by the clock", extra={"job": job_id})
            self._put(job_id)

    def _follow(self, room: int) -> None:
        follower = Follower(self._installation, room, self._put, self._end)
        thread = Thread(target=follower.run, name=f"room-{room}", daemon=True)
        self._followed[room] = thread
        thread.start()
        log.info("following a meeting", extra={"room": room})

    def _call(self) -> None:
        """Puts a line into every call that a room wants to listen to."""
        self._lines = {room: thread for room, thread in self._lines.items() if thread.is_alive()}
        with self._installation.database.read() as session:
            wanted = [room.id for room in session.scalars(select(Room).where(Room.line_state.in_(LINE_WANTED)))]
        for room in wanted:
            if room not in self._lines and self._claim(room):
                line = CallLine(self._installation, room, self._put, self._end)
                self._lines[room] = Thread(target=line.run, name=f"line-{room}", daemon=True)
                self._lines[room].start()

    def _unfollowed(self) -> list[int]:
        """Rooms that have sound to hear, or that ended before all of it was heard, and nobody alive who follows them."""
        wanted = or_(Room.state.in_(NOT_ENDED), (Room.state == RoomState.STOPPED) & Room.drafted.is_(False))
        with self._installation.database.read() as session:
            rooms = session.scalars(select(Room).where(wanted))
            free = [room.id for room in rooms if room.id not in self._followed and self._is_free(room)]
        return [room for room in free if self._claim(room)]

    def _is_free(self, room: Room) -> bool:
        return room.listener in (None, this_process()) or lapsed(room.listener_at, LEASE)

    def _claim(self, room_id: int) -> bool:
        with self._installation.database.write() as session:
            room = session.get(Room, room_id)
            if room is None or not self._is_free(room):
                return False
            room.listener, room.listener_at = this_process(), now()
            return True

    def _beat(self) -> None:
        mine = [*self._followed, *self._lines]
        with self._installation.database.write() as session:
            heartbeats.beat(session, "listener", this_process())
            session.execute(
                update(Room).where(Room.id.in_(mine), Room.listener == this_process()).values(listener_at=now())
            )

    def _release(self) -> None:
        """Lets another listener follow at once what this one followed."""
        with self._installation.database.write() as session:
            session.execute(update(Room).where(Room.listener == this_process()).values(listener=None))
