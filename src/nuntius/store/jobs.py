"""Jobs: claimed by one worker at a time under a lease, seen by everybody."""

import secrets
import socket
from datetime import datetime, timedelta

from sqlalchemy import ColumnElement, or_, select, update
from sqlalchemy.orm import Session

from nuntius.store.errors import Conflict
from nuntius.store.models import Job, now

LEASE = timedelta(seconds=30)  # after which a job without a sign of life may be taken over
_PROCESS = f"{socket.gethostname()}:{secrets.token_hex(6)}"  # never a process number: those are used again


def this_process() -> str:
    """Name of this process among all of them, another one after each start."""
    return _PROCESS


def lapsed(seen: datetime | None, lease: timedelta) -> bool:
    """Whether the last sign of life is older than the lease; none at all counts as lapsed."""
    return seen is None or seen < now() - lease


def create_job(session: Session, meeting_id: str, people: int | None, kind: str = "work") -> Job:
    job = Job(meeting_id=meeting_id, people=people, kind=kind)
    session.add(job)
    session.flush()
    return job


def latest_job(session: Session, meeting_id: str) -> Job | None:
    """The newest job of a meeting."""
    return session.scalars(select(Job).where(Job.meeting_id == meeting_id).order_by(Job.created_at.desc())).first()


def claim(session: Session, job_id: str) -> Job | None:
    """The job, held from now on (`job.worker` is the new holder); None if it is another's, ended or gone."""
    holder = f"{this_process()}/{secrets.token_hex(4)}"
    values = {"state": "working", "worker": holder, "beat_at": now(), "started_at": now(), "error": None}
    result = session.execute(
        update(Job).where(Job.id == job_id, or_(Job.state == "waiting", _unheld())).values(**values)
    )
    if not getattr(result, "rowcount", 0):
        return None
    return session.get(Job, job_id)


def held(session: Session, job_id: str, holder: str) -> Job | None:
    """The job as long as `holder` works on it; None when it was cancelled, removed, or taken over."""
    return session.scalar(select(Job).where(Job.id == job_id, Job.state == "working", Job.worker == holder))


def beat(session: Session, job_id: str, holder: str) -> None:
    """A sign of life of whoever holds a job."""
    session.execute(update(Job).where(Job.id == job_id, Job.worker == holder).values(beat_at=now()))


def release_unheld(session: Session) -> None:
    """Puts the jobs of workers without a sign of life back; those that were to be cancelled end."""
    for job in session.scalars(select(Job).where(_unheld())):
        job.state, job.worker = ("cancelled" if job.cancel_asked else "waiting"), None
        job.cancel_asked = False


def waiting_jobs(session: Session) -> list[str]:
    """Identifiers of the jobs that wait, the oldest first."""
    return list(session.scalars(select(Job.id).where(Job.state == "waiting").order_by(Job.created_at)))


def _unheld() -> ColumnElement[bool]:
    return (Job.state == "working") & or_(Job.beat_at.is_(None), Job.beat_at < now() - LEASE)


def ask_to_cancel(session: Session, job: Job) -> None:
    """Cancels a job at once where nobody works on it, else at its next step forward. Raises Conflict when it has ended."""
    if job.state == "waiting" or (job.state == "working" and lapsed(job.beat_at, LEASE)):
        job.state, job.worker = "cancelled", None
    elif job.state == "working":
        job.cancel_asked = True
    else:
        raise Conflict("This work has ended already; there is nothing to cancel.")


def retry(session: Session, job: Job) -> None:
    """Lets a failed or cancelled job go on from its last finished step. Raises Conflict otherwise."""
    if job.state not in ("failed", "cancelled"):
        raise Conflict("Only work that failed or was cancelled can be tried again.")
    job.state, job.error, job.cancel_asked, job.remaining = "waiting", None, False, None
