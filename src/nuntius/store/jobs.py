"""Jobs: claimed by one worker at a time under a lease, seen by everybody."""

import secrets
import socket
from collections.abc import Collection
from datetime import datetime, timedelta

from sqlalchemy import ColumnElement, func, or_, select, update
from sqlalchemy.orm import Session

from nuntius.core.jobs import GOING_ON, STOPPED, JobKind, JobState, lane_of
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Job, Recording, now

LEASE = timedelta(seconds=30)  # after which a job without a sign of life may be taken over
_PROCESS = f"{socket.gethostname()}:{secrets.token_hex(6)}"  # never a process number: those are used again


def this_process() -> str:
    """Name of this process among all of them, another one after each start."""
    return _PROCESS


def lapsed(seen: datetime | None, lease: timedelta) -> bool:
    """Whether the last sign of life is older than the lease; none at all counts as lapsed."""
    return seen is None or seen < now() - lease


def create_job(session: Session, meeting_id: str, people: int | None, kind: JobKind = JobKind.WORK) -> Job:
    """A job that waits, in the lane that its recording needs; `people` is a hint of how many spoke."""
    is_text = session.scalar(select(Recording.is_text).where(Recording.meeting_id == meeting_id))
    job = Job(meeting_id=meeting_id, people=people, kind=kind, lane=lane_of(kind, bool(is_text)))
    session.add(job)
    session.flush()
    return job


def latest_job(session: Session, meeting_id: str) -> Job | None:
    """The newest job of a meeting."""
    return session.scalars(select(Job).where(Job.meeting_id == meeting_id).order_by(Job.created_at.desc())).first()


def ahead_of(session: Session, job_ids: Collection[str]) -> dict[str, int]:
    """How many jobs of the same lane come before each of these that wait: those at work, and those that wait longer."""
    place = func.row_number().over(partition_by=Job.lane, order_by=(Job.state == JobState.WAITING, Job.created_at))
    line = select(Job.id, Job.state, place.label("place")).where(Job.state.in_(GOING_ON)).subquery()
    query = select(line.c.id, line.c.place - 1).where(line.c.id.in_(job_ids), line.c.state == JobState.WAITING)
    return dict(session.execute(query).tuples().all())


def put_away(session: Session, meeting_id: str, away: bool) -> Job:
    """Says that nobody needs to be reminded of work that failed or was stopped. Raises NotFound, Conflict."""
    job = latest_job(session, meeting_id)
    if job is None:
        raise NotFound()
    if job.state not in STOPPED:
        raise Conflict("Only work that failed or was stopped can be put away.")
    job.put_away = away
    return job


def claim(session: Session, job_id: str) -> Job | None:
    """The job, held from now on (`job.worker` is the new holder); None if it is another's, ended or gone."""
    holder = f"{this_process()}/{secrets.token_hex(4)}"
    values = {"state": JobState.WORKING, "worker": holder, "beat_at": now(), "started_at": now(), "error": None}
    result = session.execute(
        update(Job).where(Job.id == job_id, or_(Job.state == JobState.WAITING, _unheld())).values(**values)
    )
    if not getattr(result, "rowcount", 0):
        return None
    return session.get(Job, job_id)


def held(session: Session, job_id: str, holder: str) -> Job | None:
    """The job as long as `holder` works on it; None when it was cancelled, removed, or taken over."""
    return session.scalar(select(Job).where(Job.id == job_id, Job.state == JobState.WORKING, Job.worker == holder))


def beat(session: Session, job_id: str, holder: str) -> None:
    """A sign of life of whoever holds a job."""
    session.execute(update(Job).where(Job.id == job_id, Job.worker == holder).values(beat_at=now()))


def release_unheld(session: Session) -> None:
    """Puts the jobs of workers without a sign of life back; those that were to be cancelled end."""
    for job in session.scalars(select(Job).where(_unheld())):
        job.state, job.worker = (JobState.CANCELLED if job.cancel_asked else JobState.WAITING), None
        job.cancel_asked = False


def waiting_jobs(session: Session) -> list[str]:
    """Identifiers of the jobs that wait, the oldest first."""
    return list(session.scalars(select(Job.id).where(Job.state == JobState.WAITING).order_by(Job.created_at)))


def _unheld() -> ColumnElement[bool]:
    return (Job.state == JobState.WORKING) & or_(Job.beat_at.is_(None), Job.beat_at < now() - LEASE)


def ask_to_cancel(session: Session, job: Job) -> None:
    """Cancels a job at once where nobody works on it, else at its next step forward. Raises Conflict when it has ended."""
    if job.state == JobState.WAITING or (job.state == JobState.WORKING and lapsed(job.beat_at, LEASE)):
        job.state, job.worker = JobState.CANCELLED, None
    elif job.state == JobState.WORKING:
        job.cancel_asked = True
    else:
        raise Conflict("This work has ended already; there is nothing to cancel.")


def retry(session: Session, job: Job) -> None:
    """Lets a failed or cancelled job go on from its last finished step. Raises Conflict otherwise."""
    if job.state not in STOPPED:
        raise Conflict("Only work that failed or was cancelled can be tried again.")
    job.state, job.error, job.cancel_asked, job.remaining = JobState.WAITING, None, False, None
    job.put_away = False
