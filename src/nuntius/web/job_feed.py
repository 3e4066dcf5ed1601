"""The news of work: a `job` event whenever work on a meeting that is open to the listener has moved on; and exports."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from sqlalchemy import ColumnElement, Select, or_, select
from sqlalchemy.orm import Session, aliased

from nuntius.core.jobs import GOING_ON, JobKind, JobState
from nuntius.store.meetings import open_to, readers_of
from nuntius.store.models import Job, Meeting, Recording, User, now
from nuntius.web.export_feed import ExportFeed
from nuntius.web.shapes import job_out
from nuntius.web.streams import Subscription

OVERLAP = timedelta(seconds=30)  # that a look goes back: a row is dated before it is committed
RECENT = timedelta(minutes=15)  # since which ended work is still news to a page that comes back
MOST = 40  # jobs that a new listener gets


class JobFeed:
    """Sends what has changed of jobs to those who may read their meetings."""

    def __init__(self) -> None:
        self._bodies: dict[str, str] = {}  # of the jobs that have lately changed, as they were sent last
        self._since = now()
        self._exports = ExportFeed()

    def look(self, session: Session, listeners: Sequence[Subscription]) -> bool:
        """Statements: two, two for each job that goes on, and two for each listener that is new."""
        begun, made = now(), dict[str, str]()
        if not listeners:
            self._bodies, self._since = {}, begun
            return False
        self._exports.look(session, listeners)

        def body(job: Job, recording: Recording) -> str:  # the same for all who get it
            if job.id not in made:
                made[job.id] = job_out(session, job, recording).model_dump_json()
            return made[job.id]

        for listener in [each for each in listeners if each.fresh]:
            for job, recording in session.execute(_state(listener.user)).tuples():
                listener.offer("job", body(job, recording))
            listener.fresh = False
        rows = session.execute(_jobs().where(_moving(self._since))).tuples().all()
        bodies = {job.id: body(job, recording) for job, recording in rows}
        news = [(job.meeting_id, bodies[job.id]) for job, _ in rows if self._bodies.get(job.id) != bodies[job.id]]
        readers = readers_of(session, {meeting_id for meeting_id, _ in news})
        for listener in listeners:
            for meeting_id, text in news:
                if listener.user.id in readers[meeting_id]:
                    listener.offer("job", text)
        self._bodies, self._since = bodies, begun
        return False


def _moving(since: datetime) -> ColumnElement[bool]:
    """Jobs that have changed, and those that wait: their place in the line changes with the others."""
    return or_(Job.updated_at > since - OVERLAP, Job.state == JobState.WAITING)


def _jobs() -> Select[Job, Recording]:
    """The newest job of each meeting, and of those that write its minutes again, with the recording."""
    newer = aliased(Job)
    alike = (newer.kind == JobKind.MINUTES) == (Job.kind == JobKind.MINUTES)
    later = (newer.meeting_id == Job.meeting_id, newer.created_at > Job.created_at)
    overtaken = select(newer.id).where(*later, alike).exists()
    return select(Job, Recording).join(Recording, Recording.meeting_id == Job.meeting_id).where(~overtaken)


def _state(user: User) -> Select[Job, Recording]:
    """What a new listener gets: the jobs that go on, and those that have just ended."""
    lately = or_(Job.state.in_(GOING_ON), Job.updated_at > now() - RECENT)
    mine = Job.meeting_id.in_(open_to(user).with_only_columns(Meeting.id))
    return _jobs().where(mine, lately).order_by(Job.updated_at.desc()).limit(MOST)
