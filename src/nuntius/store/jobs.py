"""Jobs: claimed by one worker at a time, seen by everybody."""

import os
import socket
from datetime import datetime, timedelta

from sqlalchemy import or_, select, update
from sqlalchemy.orm import Session

from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Job, now

LEASE = timedelta(seconds=60)  # after which a job without a sign of life may be taken over


def this_worker() -> str:
    """Name of this process among all workers."""
    return f"{socket.gethostname()}:{os.getpid()}"


def create_job(session: Session, meeting_id: str, people: int | None, kind: str = "work") -> Job:
    job = Job(meeting_id=meeting_id, people=people, kind=kind)
    session.add(job)
    session.flush()
    return job


def latest_job(session: Session, meeting_id: str) -> Job | None:
    """The newest job of a meeting."""
    return session.scalars(select(Job).where(Job.meeting_id == meeting_id).order_by(Job.created_at.desc())).first()


def claim(session: Session, job_id: str) -> Job | None:
    """The job, now this worker's; None if it is another's, ended or gone."""
    free = or_(Job.state == "waiting", (Job.state == "working") & (Job.beat_at < now() - LEASE))
    values = {"state": "working", "worker": this_worker(), "beat_at": now(), "started_at": now(), "error": None}
    result = session.execute(update(Job).where(Job.id == job_id, free).values(**values))
    if not getattr(result, "rowcount", 0):
        return None
    return session.get(Job, job_id)


def abandoned(session: Session) -> list[Job]:
    """Jobs that wait, or whose worker is dead: those on this machine at once, others when their lease ends."""
    rows = list(session.scalars(select(Job).where(Job.state.in_(("waiting", "working")))))
    return [job for job in rows if job.state == "waiting" or is_dead(job.worker, job.beat_at, LEASE)]


def is_dead(worker: str | None, beat_at: datetime | None, lease: timedelta) -> bool:
    """Whether a worker has gone: one of this machine by its process, another by its last sign of life."""
    host, _, pid = (worker or "").rpartition(":")
    if host == socket.gethostname() and pid.isdigit():
        return int(pid) != os.getpid() and not _is_alive(int(pid))
    return beat_at is None or beat_at < now() - lease


def _is_alive(pid: int) -> bool:
    try:
        os.kill(pid, 0)
    except ProcessLookupError:
        return False
    except PermissionError:
        return True
    return True


def release(session: Session, job: Job) -> None:
    """Puts a job of a dead worker back, so that it can be claimed."""
    job.state, job.worker = "waiting", None


def ask_to_cancel(session: Session, job: Job) -> None:
    """Cancels a waiting job at once, a working one at its next breath. Raises Conflict when it has ended."""
    if job.state == "waiting":
        job.state = "cancelled"
    elif job.state == "working":
        job.cancel_asked = True
    else:
        raise Conflict("This work has ended already; there is nothing to cancel.")


def retry(session: Session, job: Job) -> None:
    """Lets a failed or cancelled job go on from its last finished step. Raises Conflict otherwise."""
    if job.state not in ("failed", "cancelled"):
        raise Conflict("Only work that failed or was cancelled can be tried again.")
    job.state, job.error, job.cancel_asked, job.remaining = "waiting", None, False, None


def get_job(session: Session, job_id: str) -> Job:
    """One job. Raises NotFound."""
    job = session.get(Job, job_id)
    if job is None:
        raise NotFound()
    return job
