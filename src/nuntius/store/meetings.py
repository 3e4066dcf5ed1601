"""Meetings: who may open them, making them."""

from collections.abc import Collection
from datetime import datetime

from sqlalchemy import Select, or_, select
from sqlalchemy.orm import Session, selectinload

from nuntius.core.rights import Action
from nuntius.core.templates.shipped import SHIPPED
from nuntius.store.errors import NotFound
from nuntius.store.models import Consent, Meeting, Person, User
from nuntius.store.people import named_person
from nuntius.store.rights import check, meeting_thing
from nuntius.store.templates import choose

KINDS = tuple(SHIPPED)


def open_to(user: User) -> Select[Meeting]:
    """The meetings that `user` may read, for lists; what `may` says of each of them, as a condition."""
    mine = Meeting.people.any(Person.id == user.person.id)
    return select(Meeting).where(Meeting.workspace_id == user.workspace_id, or_(Meeting.runner_id == user.id, mine))


def readers_of(session: Session, meeting_ids: Collection[str]) -> dict[str, set[int]]:
    """The accounts that may read each of the meetings: whoever runs it, and who is among its people; as `open_to` has it.

    A meeting that is gone has none.
    """
    readers: dict[str, set[int]] = {meeting_id: set() for meeting_id in meeting_ids}
    runs = select(Meeting.id, Meeting.runner_id).where(Meeting.id.in_(readers))
    there = select(Meeting.id, Person.user_id).join(Meeting.people).where(Meeting.id.in_(readers))
    for meeting_id, user_id in (*session.execute(runs).tuples(), *session.execute(there).tuples()):
        if user_id is not None:
            readers[meeting_id].add(user_id)
    return readers


def series_with(session: Session, user: User, meeting: Meeting) -> list[Meeting]:
    """The meetings of one series that are open to `user`, the newest first; alone where its title makes no series."""
    if not meeting.series:
        return [meeting]
    query = open_to(user).where(Meeting.series == meeting.series).options(selectinload(Meeting.people))
    return list(session.scalars(query.order_by(Meeting.starts_at.desc(), Meeting.id)))


def get_meeting(session: Session, user: User, meeting_id: str, action: Action = Action.READ) -> Meeting:
    """One meeting with which `user` may do `action`.

    Raises NotFound for a meeting of others as for none, NotAllowed for what only others may do with it.
    """
    meeting = session.get(Meeting, meeting_id)
    if meeting is None:
        raise NotFound()
    check(user, action, meeting_thing(meeting))
    return meeting


def create_meeting(
    session: Session, user: User, title: str, template: str, starts_at: datetime, time_zone: str, people: list[str]
) -> Meeting:
    """A meeting run by `user`; people are found by name or added to the workspace.

    Raises NotFound for a template, NameAmbiguous, NameMissing.
    """
    there = dict.fromkeys(named_person(session, user.workspace_id, name) for name in people)
    meeting = Meeting(
        workspace_id=user.workspace_id,
        title=title.strip(),
        kind="general meeting",
        starts_at=starts_at,
        time_zone=time_zone,
        runner_id=user.id,
        people=list(there),
    )
    choose(session, meeting, template)
    session.add(meeting)
    session.flush()
    return meeting


def add_to_meeting(session: Session, meeting: Meeting, name: str) -> Person:
    """Somebody more who took part. Raises NameAmbiguous, NameMissing."""
    person = named_person(session, meeting.workspace_id, name)
    if person not in meeting.people:
        meeting.people.append(person)
    return person


def take_off_meeting(session: Session, meeting: Meeting, person_id: int) -> None:
    """Says that somebody did not take part: the meeting is closed to them. Raises NotFound."""
    person = next((each for each in meeting.people if each.id == person_id), None)
    if person is None:
        raise NotFound()
    meeting.people.remove(person)
    consent = session.get(Consent, (meeting.id, person_id))
    if consent is not None:
        session.delete(consent)
