"""Jobs: made, seen by everybody, cancelled, tried again."""

from collections.abc import Collection

from sqlalchemy import and_, case, func, select
from sqlalchemy.orm import Session

from nuntius.core.jobs import GOING_ON, STOPPED, JobKind, JobState, lane_of
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.leases import LEASE, lapsed, unheld
from nuntius.store.models import Job, Recording


def create_job(session: Session, meeting_id: str, people: int | None, kind: JobKind = JobKind.WORK) -> Job:
    """A job that waits, in the lane that its recording needs; `people` is a hint of how many spoke."""
    is_text = session.scalar(select(Recording.is_text).where(Recording.meeting_id == meeting_id))
    job = Job(meeting_id=meeting_id, people=people, kind=kind, lane=lane_of(kind, bool(is_text)))
    session.add(job)
    session.flush()
    return job


# Which job of a meeting is shown: the newest, but none of minutes made again beside work on the recording that goes on.
_BESIDE = case((and_(Job.kind != JobKind.MINUTES, Job.state.in_(GOING_ON)), 0), else_=1)
NEWEST_FIRST = (_BESIDE, Job.created_at.desc())
NEWEST_LAST = (_BESIDE.desc(), Job.created_at)


def latest_job(session: Session, meeting_id: str) -> Job | None:
    """The newest job of a meeting."""
    return session.scalars(select(Job).where(Job.meeting_id == meeting_id).order_by(*NEWEST_FIRST)).first()


def waiting_minutes(session: Session, meeting_id: str) -> Job | None:
    """The job of a meeting that waits to write its minutes again."""
    waits = (Job.kind == JobKind.MINUTES, Job.state == JobState.WAITING)
    return session.scalars(select(Job).where(Job.meeting_id == meeting_id, *waits)).first()


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


def release_unheld(session: Session) -> None:
    """Puts the jobs of workers without a heartbeat back; those that were to be cancelled end."""
    for job in session.scalars(select(Job).where(unheld(Job))):
        job.state, job.worker = (JobState.CANCELLED if job.cancel_asked else JobState.WAITING), None
        job.cancel_asked = False


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
