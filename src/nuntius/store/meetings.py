"""Meetings: who may open them, making them, the people in them."""

from datetime import datetime

from sqlalchemy import Select, func, or_, select
from sqlalchemy.orm import Session, selectinload

from nuntius.core.templates.shipped import SHIPPED
from nuntius.store.errors import NotFound
from nuntius.store.models import Meeting, Person, User
from nuntius.store.templates import choose

KINDS = tuple(SHIPPED)


def open_to(user: User) -> Select[Meeting]:
    """The meetings that `user` runs or was at."""
    mine = Meeting.people.any(Person.user_id == user.id)
    return select(Meeting).where(Meeting.workspace_id == user.workspace_id, or_(Meeting.runner_id == user.id, mine))


def meetings_of(session: Session, user: User) -> list[Meeting]:
    """All of them, the newest first."""
    query = open_to(user).options(selectinload(Meeting.people)).order_by(Meeting.starts_at.desc(), Meeting.id)
    return list(session.scalars(query))


def get_meeting(session: Session, user: User, meeting_id: str) -> Meeting:
    """One meeting. Raises NotFound for a meeting of others as for none."""
    meeting = session.scalar(open_to(user).where(Meeting.id == meeting_id))
    if meeting is None:
        raise NotFound()
    return meeting


def create_meeting(
    session: Session, user: User, title: str, template: str, starts_at: datetime, time_zone: str, people: list[str]
) -> Meeting:
    """A meeting run by `user`; people are found by name or added to the workspace. Raises NotFound for a template."""
    meeting = Meeting(
        workspace_id=user.workspace_id,
        title=title.strip(),
        kind="general meeting",
        starts_at=starts_at,
        time_zone=time_zone,
        runner_id=user.id,
        people=[named_person(session, user.workspace_id, name) for name in dict.fromkeys(people)],
    )
    choose(session, meeting, template)
    session.add(meeting)
    session.flush()
    return meeting


def account_name(session: Session, user: User) -> str:
    """Name of the person whose account this is."""
    return session.scalar(select(Person.name).where(Person.user_id == user.id)) or "Somebody"


def people_of(session: Session, workspace_id: int) -> list[Person]:
    """Everybody the workspace knows, by name."""
    query = select(Person).where(Person.workspace_id == workspace_id).order_by(func.lower(Person.name), Person.id)
    return list(session.scalars(query))


def named_person(session: Session, workspace_id: int, name: str) -> Person:
    """The person of this name, made if there is none."""
    name = " ".join(name.split())
    query = select(Person).where(Person.workspace_id == workspace_id, func.lower(Person.name) == name.lower())
    person = session.scalars(query.order_by(Person.id)).first()
    if person is None:
        person = Person(workspace_id=workspace_id, name=name)
        session.add(person)
        session.flush()
    return person
