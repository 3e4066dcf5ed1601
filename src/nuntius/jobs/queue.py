"""The queue between the pages and the workers: huey on SQLite, or on Redis for several machines."""

import logging
import time
from collections.abc import Callable
from threading import Event, Thread

from huey import Huey, RedisHuey, SqliteHuey
from huey.consumer import Consumer
from redis import ConnectionPool

from nuntius.core.errors import Fault
from nuntius.core.exports import ExportKind
from nuntius.core.jobs import Lane
from nuntius.jobs.exporting import make_export
from nuntius.jobs.mailing import send_due
from nuntius.jobs.reading_ahead import ReadingAhead
from nuntius.jobs.work import work
from nuntius.service.sweeping import sweep_files
from nuntius.settings import Settings
from nuntius.store import heartbeats
from nuntius.store.exports import release_exports
from nuntius.store.installation import Installation
from nuntius.store.jobs import release_unheld
from nuntius.store.leases import Work, this_process, waiting
from nuntius.store.models import Export, Job

log = logging.getLogger(__name__)

NAME = "nuntius"  # of the queue of long work; the others have their lane behind it
SWEEP = 3600.0  # seconds between two looks for files that were left half done
DELAY = 0.5  # seconds, at most, until a worker finds what was put in
ANSWER_DELAY = 0.1  # the same where a person waits before the page
PATIENCE = 5.0  # seconds that Redis may take to answer


def storage(settings: Settings, lane: Lane) -> Huey:
    """The queue of a lane, of the kind that the settings name."""
    name = NAME if lane == Lane.LONG else f"{NAME}-{lane}"
    if settings.queue_url:
        pool = ConnectionPool.from_url(settings.queue_url, socket_timeout=PATIENCE, socket_connect_timeout=PATIENCE)
        return RedisHuey(name, connection_pool=pool)
    settings.data.mkdir(parents=True, exist_ok=True)
    return SqliteHuey(name, filename=str(settings.data / "queue.db"), fsync=True)


class Queue:
    """Puts jobs and exports in, and works on them, one of each lane at a time.

    What counts is the row: what the storage loses is put in again.
    """

    def __init__(self, installation: Installation, made: Callable[[Settings, Lane], Huey] = storage) -> None:
        self._installation = installation
        self.lanes = {lane: made(installation.settings, lane) for lane in Lane}

        def work_on(key: str) -> None:
            work(installation, key)

        def export(key: str) -> None:
            make_export(installation, key)

        self._work_on = {
            lane: each.task(name="work_on")(export if lane in (Lane.EXPORT, Lane.ANSWER) else work_on)
            for lane, each in self.lanes.items()
        }

    def put(self, job_id: str) -> None:
        """Lets a worker take this job on; where the storage is away the job waits until `recover` finds it."""
        self._put(Job, job_id, lambda job: Lane(job.lane))

    def put_export(self, export_id: str) -> None:
        """The same for an export."""
        self._put(Export, export_id, lambda export: ExportKind(export.kind).lane)

    def _put(self, work: type[Work], key: str, lane_of: Callable[[Work], Lane]) -> None:
        try:
            with self._installation.database.read() as session:
                row = session.get(work, key)
            if row is not None:
                self._work_on[lane_of(row)](key)
        except Exception as cause:  # each storage has its own errors, and none of them may lose work
            log.warning("work not queued", extra={"work": key, "why": type(cause).__name__})

    def answers(self) -> bool:
        """Whether the storage can be reached."""
        try:
            for each in self.lanes.values():
                each.pending_count()
        except Exception:
            return False
        return True

    def recover(self) -> int:
        """Puts in what is to be done and is not in the storage: work of dead workers, and what waits; how much."""
        with self._installation.database.write() as session:
            release_unheld(session)
            release_exports(session)
            jobs, exports = waiting(session, Job), waiting(session, Export)
        queued = {task.args[0] for each in self.lanes.values() for task in each.pending()}
        lost, lost_exports = ([key for key in keys if key not in queued] for keys in (jobs, exports))
        for job_id in lost:
            self.put(job_id)
        for export_id in lost_exports:
            self.put_export(export_id)
        return len(lost) + len(lost_exports)

    def run(self) -> None:
        """Works until the process is asked to end."""
        self._installation.database.migrate()
        for each in self.lanes.values():
            each.flush()  # what waits stands in the job table
        ended = Event()
        Thread(target=self._watch, args=(ended,), name="taking-over", daemon=True).start()
        reading = ReadingAhead(self._installation)
        Thread(target=reading.run, args=(ended,), name="reading-ahead", daemon=True).start()
        *others, last = (self._consumer(lane) for lane in Lane)
        for each in others:
            each.start()
        try:
            last.run()  # the one begun last hears when the process is to end
        finally:
            ended.set()
            for each in others:
                each.stop()

    def _consumer(self, lane: Lane) -> Consumer:
        delay = ANSWER_DELAY if lane == Lane.ANSWER else DELAY
        return self.lanes[lane].create_consumer(workers=1, periodic=False, backoff=1.05, max_delay=delay)

    def _watch(self, ended: Event) -> None:
        """Sends heartbeats, takes over, and sends mail: beside the work and never behind it."""
        swept = -SWEEP
        while True:
            try:
                with self._installation.database.write() as session:
                    heartbeats.beat(session, "worker", this_process())
                self.recover()
                send_due(self._installation)
                self._installation.database.forget_rest()
                if time.monotonic() - swept > SWEEP:
                    sweep_files(self._installation)
                    swept = time.monotonic()
            except Fault as fault:
                log.warning("no heartbeat", extra={"why": fault.sentence})
            except Exception:
                log.exception("taking over failed")
            if ended.wait(heartbeats.BEAT):
                return
