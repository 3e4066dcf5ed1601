"""The queue between the pages and the workers: huey on SQLite, or on Redis for several machines."""

import logging
import time
from collections.abc import Callable
from threading import Event, Thread

from huey import Huey, RedisHuey, SqliteHuey
from huey.consumer import Consumer
from redis import ConnectionPool

from nuntius.core.errors import Fault
from nuntius.core.jobs import Lane
from nuntius.jobs.mailing import send_due
from nuntius.jobs.work import work
from nuntius.service.sweeping import sweep_files
from nuntius.settings import Settings
from nuntius.store import heartbeats
from nuntius.store.installation import Installation
from nuntius.store.jobs import release_unheld, this_process, waiting_jobs
from nuntius.store.models import Job

log = logging.getLogger(__name__)

NAME = "nuntius"  # of the queue of long work; that of quick work has the lane behind it
SWEEP = 3600.0  # seconds between two looks for files that were left half done
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
    """Puts jobs in, and works on them, one of each lane at a time.

    What counts is the job's row: what the storage loses is put in again.
    """

    def __init__(self, installation: Installation, made: Callable[[Settings, Lane], Huey] = storage) -> None:
        self._installation = installation
        self.lanes = {lane: made(installation.settings, lane) for lane in Lane}

        def work_on(job_id: str) -> None:
            work(installation, job_id)

        self._work_on = {lane: each.task(name="work_on")(work_on) for lane, each in self.lanes.items()}

    def put(self, job_id: str) -> None:
        """Lets a worker take this job on; where the storage is away the job waits until `recover` finds it."""
        try:
            with self._installation.database.read() as session:
                job = session.get(Job, job_id)
            if job is not None:
                self._work_on[Lane(job.lane)](job_id)
        except Exception as cause:  # each storage has its own errors, and none of them may lose a job
            log.warning("job not queued", extra={"job": job_id, "why": type(cause).__name__})

    def answers(self) -> bool:
        """Whether the storage can be reached."""
        try:
            for each in self.lanes.values():
                each.pending_count()
        except Exception:
            return False
        return True

    def recover(self) -> int:
        """Puts in what is to be done and is not in the storage: jobs of dead workers, and waiting ones; how many."""
        with self._installation.database.write() as session:
            release_unheld(session)
            waiting = waiting_jobs(session)
        queued = {task.args[0] for each in self.lanes.values() for task in each.pending()}
        lost = [job_id for job_id in waiting if job_id not in queued]
        for job_id in lost:
            self.put(job_id)
        return len(lost)

    def run(self) -> None:
        """Works until the process is told to end."""
        self._installation.database.migrate()
        for each in self.lanes.values():
            each.flush()  # what waits stands in the job table
        ended = Event()
        Thread(target=self._watch, args=(ended,), name="taking-over", daemon=True).start()
        quick, long = (self._consumer(lane) for lane in (Lane.QUICK, Lane.LONG))
        quick.start()
        try:
            long.run()  # the one begun last is told when the process is to end
        finally:
            ended.set()
            quick.stop()

    def _consumer(self, lane: Lane) -> Consumer:
        return self.lanes[lane].create_consumer(workers=1, periodic=False, backoff=1.05, max_delay=0.5)

    def _watch(self, ended: Event) -> None:
        """Gives signs of life, takes over, and sends mail: beside the work and never behind it."""
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
                log.warning("no sign of life", extra={"why": fault.sentence})
            except Exception:
                log.exception("taking over failed")
            if ended.wait(heartbeats.BEAT):
                return
