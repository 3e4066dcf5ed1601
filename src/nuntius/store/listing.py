"""Lists of meetings and actions: a page at a time, filtered and counted by the database, whatever their number."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import TypeVar

from sqlalchemy import ColumnElement, Select, and_, case, exists, func, or_, select
from sqlalchemy.orm import InstrumentedAttribute, Session, lazyload, selectinload

from nuntius.core.jobs import GOING_ON, STOPPED, JobState
from nuntius.core.minutes.line import LineKind, LineState, Progress
from nuntius.core.people import name_key
from nuntius.core.rooms import RoomState, UploadRole
from nuntius.store.errors import Conflict
from nuntius.store.jobs import NEWEST_FIRST, NEWEST_LAST, ahead_of
from nuntius.store.meetings import open_to
from nuntius.store.models import (
    Job,
    LineRow,
    Meeting,
    MinutesRow,
    Person,
    Recording,
    Room,
    Speaker,
    TemplateRow,
    Upload,
    UploadPart,
    User,
)
from nuntius.store.uploads import parts_of

T = TypeVar("T")

PAGE = 50  # rows of one page
MOST_WORDS = 8  # that a list is filtered by


@dataclass(frozen=True, slots=True)
class Page:
    """Some meetings, how many there are in all, and where the next page begins (None behind the last)."""

    meetings: Sequence[Meeting]
    total: int
    following: str | None


def archive(session: Session, user: User, words: str = "", after: str | None = None) -> Page:
    """Meetings in whose title, kind or people every word occurs, the newest first. Raises Conflict for no such place."""
    query = open_to(user).outerjoin(TemplateRow, TemplateRow.id == Meeting.template_id)
    for word in name_key(words).split()[:MOST_WORDS]:
        query = query.where(_holds(word))
    return _page(session, query, after)


def _holds(word: str) -> ColumnElement[bool]:
    kind = func.coalesce(TemplateRow.name, Meeting.kind)
    return or_(
        func.name_key(Meeting.title).contains(word, autoescape=True),
        func.name_key(kind).contains(word, autoescape=True),
        Meeting.people.any(Person.name_key.contains(word, autoescape=True)),
    )


def on_now(session: Session, user: User) -> Page:
    """Meetings whose room is open: not begun yet, being recorded, paused or ending."""
    return _page(session, open_to(user).where(_is_on()))


def being_worked_on(session: Session, user: User) -> Page:
    """Meetings whose files arrive, or whose job waits or is at work."""
    arrives = exists(select(Upload.id).where(Upload.meeting_id == Meeting.id, Upload.digest.is_(None)))
    state = _of_newest_job(Job.state)
    return _page(session, open_to(user).where(~_is_on(), or_(state.in_(GOING_ON), and_(state.is_(None), arrives))))


def not_done(session: Session, user: User) -> Page:
    """Meetings whose job failed or was stopped, unless that was put away."""
    stopped = (_of_newest_job(Job.state).in_(STOPPED), _of_newest_job(Job.put_away).is_(False))
    return _page(session, open_to(user).where(~_is_on(), *stopped))


def to_check(session: Session, user: User) -> Page:
    """Meetings that are done and have lines nobody has ticked."""
    unticked = (LineRow.checked_by.is_(None), LineRow.thrown_out.is_(None), MinutesRow.meeting_id == Meeting.id)
    lines = select(LineRow.id).join(MinutesRow, MinutesRow.id == LineRow.minutes_id).where(*unticked)
    return _page(session, open_to(user).where(~_is_on(), _of_newest_job(Job.state) == JobState.DONE, exists(lines)))


def _is_on() -> ColumnElement[bool]:
    return exists(select(Room.id).where(Room.meeting_id == Meeting.id, Room.state != RoomState.STOPPED))


def _of_newest_job(column: InstrumentedAttribute[T]) -> ColumnElement[T]:
    """A value of the newest job of a meeting; none where it has no job."""
    newest = select(column).where(Job.meeting_id == Meeting.id).order_by(*NEWEST_FIRST).limit(1)
    return newest.scalar_subquery()


def _page(session: Session, query: Select[Meeting], after: str | None = None) -> Page:
    total = session.scalar(select(func.count()).select_from(query.with_only_columns(Meeting.id).subquery())) or 0
    if after is not None:
        at, last = _place(after)
        query = query.where(or_(Meeting.starts_at < at, and_(Meeting.starts_at == at, Meeting.id > last)))
    ordered = query.options(selectinload(Meeting.people)).order_by(Meeting.starts_at.desc(), Meeting.id)
    found = list(session.scalars(ordered.limit(PAGE + 1)))
    end = found[PAGE - 1] if len(found) > PAGE else None
    return Page(found[:PAGE], total, f"{end.starts_at.isoformat()}~{end.id}" if end else None)


def _place(after: str) -> tuple[datetime, str]:
    moment, _, last = after.partition("~")
    try:
        at = datetime.fromisoformat(moment)
        return (at, last) if at.tzinfo and last else _no_place()
    except ValueError:
        return _no_place()


def _no_place() -> tuple[datetime, str]:
    raise Conflict("This is no place in the list. Begin at its head.")


# --- what a list shows of each meeting, for many at once ---


@dataclass(frozen=True, slots=True)
class Facts:
    """What stands beside meetings, each by the meeting's identifier."""

    recordings: dict[str, Recording]
    jobs: dict[str, Job]  # the newest
    ahead: dict[str, int]  # by job that waits: how many come before it
    rooms: dict[str, RoomState]
    arriving: dict[str, Upload]  # a file that is not complete, one of which parts are missing first
    held: dict[str, list[int]]  # by upload: the parts that are here
    roles: dict[str, set[str]]  # of the files beside a recording
    lines: dict[str, tuple[int, int]]  # all, and those that nobody has ticked
    templates: dict[int, str]  # names of the templates that are a workspace's own


def facts_of(session: Session, meetings: Sequence[Meeting]) -> Facts:
    """The facts of these meetings, in a fixed number of statements."""
    ids = [meeting.id for meeting in meetings]
    jobs = {job.meeting_id: job for job in session.scalars(_jobs_of(ids))}
    waiting = [job.id for job in jobs.values() if job.state == JobState.WAITING]
    uploads = list(session.scalars(select(Upload).where(Upload.meeting_id.in_(ids)).order_by(Upload.created_at)))
    open_uploads = [upload for upload in uploads if upload.digest is None]
    held = _held(session, [upload.id for upload in open_uploads])
    open_uploads.sort(key=lambda upload: len(held[upload.id]) < parts_of(upload))  # the last one of a meeting is shown
    roles: dict[str, set[str]] = {}
    for upload in uploads:
        if upload.role != UploadRole.RECORDING:
            roles.setdefault(upload.meeting_id or "", set()).add(upload.role)
    own = [meeting.template_id for meeting in meetings if meeting.template_id is not None]
    return Facts(
        {r.meeting_id: r for r in session.scalars(select(Recording).where(Recording.meeting_id.in_(ids)))},
        jobs,
        ahead_of(session, waiting),
        dict(session.execute(select(Room.meeting_id, Room.state).where(Room.meeting_id.in_(ids))).tuples().all()),
        {upload.meeting_id or "": upload for upload in open_uploads},
        held,
        roles,
        _line_counts(session, ids),
        dict(session.execute(select(TemplateRow.id, TemplateRow.name).where(TemplateRow.id.in_(own))).tuples().all()),
    )


def _jobs_of(ids: list[str]) -> Select[Job]:
    return select(Job).where(Job.meeting_id.in_(ids)).order_by(*NEWEST_LAST)


def _held(session: Session, uploads: list[str]) -> dict[str, list[int]]:
    held: dict[str, list[int]] = {upload: [] for upload in uploads}
    query = select(UploadPart.upload_id, UploadPart.number).where(UploadPart.upload_id.in_(uploads))
    for upload, number in session.execute(query.order_by(UploadPart.number)):
        held[upload].append(number)
    return held


def _line_counts(session: Session, ids: list[str]) -> dict[str, tuple[int, int]]:
    unchecked = func.sum(case((LineRow.checked_by.is_(None), 1), else_=0))
    query = (
        select(MinutesRow.meeting_id, func.count(LineRow.id), unchecked)
        .join(LineRow, MinutesRow.id == LineRow.minutes_id)
        .where(MinutesRow.meeting_id.in_(ids), LineRow.thrown_out.is_(None))
        .group_by(MinutesRow.meeting_id)
    )
    return {meeting: (count, int(left)) for meeting, count, left in session.execute(query)}


# --- actions ---


@dataclass(frozen=True, slots=True)
class FoundAction:
    """An action that is still to be done, its meeting, and the names by which its voices go."""

    line: LineRow
    meeting_id: str
    title: str
    names: dict[str, str]


def open_actions(session: Session, user: User, most: int = PAGE, mine: bool = False) -> tuple[list[FoundAction], int]:
    """What is still to be done of all meetings of `user`, the earliest due date first, `most` of it; how much there is.

    `mine` takes only what `user` took on, by name or by voice. Whether a line was checked has no part in it.
    """
    query = (
        select(LineRow, Meeting.id, Meeting.title)
        .join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
        .join(Meeting, Meeting.id == MinutesRow.meeting_id)
        .where(
            Meeting.id.in_(open_to(user).with_only_columns(Meeting.id)),
            LineRow.kind == LineKind.ACTION,
            LineRow.progress == Progress.OPEN,
            LineRow.thrown_out.is_(None),
            LineRow.state != LineState.SUPERSEDED,
        )
    )
    if mine:
        query = query.where(_owned_by(user))
    total = session.scalar(select(func.count()).select_from(query.with_only_columns(LineRow.id).subquery())) or 0
    ordered = query.order_by(LineRow.due.is_(None), LineRow.due, Meeting.starts_at.desc(), LineRow.number)
    rows = session.execute(ordered.options(lazyload(LineRow.evidence)).limit(most)).tuples().all()
    names = voice_names(session, {meeting_id for _, meeting_id, _ in rows})
    return [FoundAction(line, at, title, names.get(at, {})) for line, at, title in rows], total


def _owned_by(user: User) -> ColumnElement[bool]:
    """Whether a line names a person as an owner: by name, or by a voice that is theirs."""
    owner = func.json_each(LineRow.owner).table_valued("value")
    voices = select(Speaker.label).where(
        Speaker.meeting_id == MinutesRow.meeting_id, Speaker.person_id == user.person.id
    )
    mine = or_(owner.c.value == user.person.label, owner.c.value.in_(voices))
    return exists(select(owner.c.value).where(mine))


def voice_names(session: Session, ids: Collection[str]) -> dict[str, dict[str, str]]:
    """By meeting: label of each voice and the name it goes by."""
    query = (
        select(Speaker.meeting_id, Speaker.label, Person.label)
        .outerjoin(Person, Person.id == Speaker.person_id)
        .where(Speaker.meeting_id.in_(ids))
    )
    names: dict[str, dict[str, str]] = {}
    for meeting, label, name in session.execute(query):
        names.setdefault(meeting, {})[label] = name or label
    return names
