"""Excerpts over all meetings that are open to somebody: filtered, a page at a time, with what they can be filtered by."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import ColumnElement, Select, and_, func, or_, select
from sqlalchemy.orm import Session, selectinload

from nuntius.core.people import name_key
from nuntius.store.errors import Conflict
from nuntius.store.meetings import open_to
from nuntius.store.models import Excerpt, Meeting, Person, Speaker, User

PAGE = 50  # excerpts of one page
MOST_CHOICES = 200  # meetings, people or labels to choose from


@dataclass(frozen=True, slots=True)
class ExcerptFilter:
    """Empty values let everything through; `person` is the number of somebody who speaks in it."""

    words: str = ""
    meeting: str = ""
    person: int | None = None
    label: str = ""


EVERYTHING = ExcerptFilter()


@dataclass(frozen=True, slots=True)
class ExcerptPage:
    """`total` counts all that fit; `following` is where the next page begins."""

    found: list[tuple[Excerpt, Meeting]]
    total: int
    following: str | None


@dataclass(frozen=True, slots=True)
class ExcerptChoices:
    """What all excerpts that are open to somebody can be filtered by."""

    meetings: list[tuple[str, str]]
    people: list[Person]
    labels: list[str]


def excerpts_of(
    session: Session, user: User, chosen: ExcerptFilter = EVERYTHING, after: str | None = None
) -> ExcerptPage:
    """A page of excerpts, the newest meeting first, each in the order of the talk. Raises Conflict for a wrong place."""
    query = _open(user).where(*_fitting(chosen))
    total = session.scalar(select(func.count()).select_from(query.with_only_columns(Excerpt.id).subquery())) or 0
    if after is not None:
        query = query.where(_behind(after))
    ordered = query.options(selectinload(Meeting.people)).order_by(
        Meeting.starts_at.desc(), Meeting.id, Excerpt.start, Excerpt.id
    )
    found = list(session.execute(ordered.limit(PAGE + 1)).tuples())
    last = found[PAGE - 1] if len(found) > PAGE else None
    return ExcerptPage(found[:PAGE], total, _place(*last) if last else None)


def choices_of(session: Session, user: User) -> ExcerptChoices:
    """The newest meetings, the people and the labels of the excerpts."""
    every = _open(user)
    meetings = every.with_only_columns(Meeting.id, Meeting.title, Meeting.starts_at).distinct()
    labels = every.with_only_columns(Excerpt.label).where(Excerpt.label != "").distinct()
    spoken = func.json_each(Excerpt.speakers).table_valued("value")
    people = (
        select(Person)
        .where(
            Person.id.in_(
                every.join(Speaker, Speaker.meeting_id == Excerpt.meeting_id)
                .join(spoken, spoken.c.value == Speaker.label)
                .with_only_columns(Speaker.person_id)
            )
        )
        .order_by(Person.name)
    )
    return ExcerptChoices(
        [
            (key, title)
            for key, title, _ in session.execute(meetings.order_by(Meeting.starts_at.desc()).limit(MOST_CHOICES))
        ],
        list(session.scalars(people.limit(MOST_CHOICES))),
        list(session.scalars(labels.order_by(Excerpt.label).limit(MOST_CHOICES))),
    )


def _open(user: User) -> Select[Excerpt, Meeting]:
    mine = open_to(user).with_only_columns(Meeting.id)
    return select(Excerpt, Meeting).join(Meeting, Meeting.id == Excerpt.meeting_id).where(Meeting.id.in_(mine))


def _fitting(chosen: ExcerptFilter) -> list[ColumnElement[bool]]:
    conditions: list[ColumnElement[bool]] = []
    if chosen.words.strip():
        text = func.name_key(Excerpt.title + " " + Excerpt.note + " " + Excerpt.quote)
        conditions.append(text.contains(name_key(chosen.words), autoescape=True))
    if chosen.meeting:
        conditions.append(Excerpt.meeting_id == chosen.meeting)
    if chosen.person is not None:
        spoken = func.json_each(Excerpt.speakers).table_valued("value")
        voice = (Speaker.meeting_id == Excerpt.meeting_id, Speaker.person_id == chosen.person)
        speaks = select(Speaker.id).join(spoken, spoken.c.value == Speaker.label).where(*voice)
        conditions.append(speaks.correlate(Excerpt).exists())
    if chosen.label:
        conditions.append(Excerpt.label == chosen.label)
    return conditions


def _place(excerpt: Excerpt, meeting: Meeting) -> str:
    return f"{meeting.starts_at.isoformat()}~{meeting.id}~{excerpt.start!r}~{excerpt.id}"


def _behind(after: str) -> ColumnElement[bool]:
    """What comes behind a place in the list."""
    try:
        moment, meeting_id, start, number = after.split("~")
        at, start_at, excerpt_id = datetime.fromisoformat(moment), float(start), int(number)
        if not at.tzinfo or abs(excerpt_id) >= 2**63:
            raise ValueError(after)
    except ValueError as cause:
        raise Conflict("This is no place in the list. Begin at its head.") from cause
    later = or_(Excerpt.start > start_at, and_(Excerpt.start == start_at, Excerpt.id > excerpt_id))
    below = or_(Meeting.id > meeting_id, and_(Meeting.id == meeting_id, later))
    return or_(Meeting.starts_at < at, and_(Meeting.starts_at == at, below))
