"""The queue between the pages and the workers: huey on SQLite, or on Redis for several machines."""

from huey import Huey, RedisHuey, SqliteHuey, crontab

from nuntius.jobs.work import work
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.jobs import abandoned, release


def storage(settings: Settings) -> Huey:
    """The queue that the settings name."""
    if settings.queue_url:
        return RedisHuey("nuntius", url=settings.queue_url)
    settings.data.mkdir(parents=True, exist_ok=True)
    return SqliteHuey("nuntius", filename=str(settings.data / "queue.db"), fsync=True)


class Queue:
    """Puts jobs in, and works on them."""

    def __init__(self, installation: Installation, huey: Huey | None = None) -> None:
        self._installation = installation
        self.huey = huey or storage(installation.settings)

        @self.huey.task(name="work_on")
        def work_on(job_id: str) -> None:
            work(installation, job_id)

        @self.huey.periodic_task(crontab(minute="*"), name="take_over")
        def take_over() -> None:
            self.recover(waiting=False)

        self._work_on = work_on

    def put(self, job_id: str) -> None:
        """Lets a worker take this job on."""
        self._work_on(job_id)

    def recover(self, waiting: bool = True) -> int:
        """Puts back the jobs of dead workers (and, on a fresh start, those that wait); how many."""
        with self._installation.database.write() as session:
            lost = [job for job in abandoned(session) if waiting or job.state == "working"]
            for job in lost:
                release(session, job)
            numbers = [job.id for job in lost]
        for number in numbers:
            self.put(number)
        return len(numbers)

    def run(self) -> None:
        """Works until the process is told to end."""
        self._installation.database.migrate()
        self.huey.flush()  # what waits stands in the job table
        self.recover()
        self.huey.create_consumer(workers=1, worker_type="thread", backoff=1.05, max_delay=0.5).run()
