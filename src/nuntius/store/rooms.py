"""Rooms: meetings that are being recorded, their consent and their agenda."""

from datetime import datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nuntius.core.live.agenda import AgendaItem
from nuntius.core.rights import Action
from nuntius.core.rooms import RoomState
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.meetings import add_to_meeting, create_meeting, get_meeting
from nuntius.store.models import AgendaRow, Consent, Meeting, Room, Run, User, Workspace, now
from nuntius.store.rights import check, meeting_thing
from nuntius.store.templates import template_of

LONGEST_AGENDA = 40  # items
LONGEST_ANNOUNCEMENT = 2000  # characters


def open_room(
    session: Session,
    user: User,
    title: str,
    template: str,
    starts_at: datetime,
    time_zone: str,
    people: list[str],
    agenda: list[AgendaItem],
) -> Room:
    """A meeting run by `user` with a room to record it in; `user` is among its people.

    `template` is the key of its template, whose standing agenda it gets where no other is given. Raises NotFound.
    """
    meeting = create_meeting(session, user, title, template, starts_at, time_zone, [user.person.label, *people])
    room = Room(meeting_id=meeting.id)
    session.add(room)
    session.flush()
    standing = template_of(session, meeting).template.agenda
    write_agenda(session, room, agenda or [AgendaItem(title) for title in standing])
    return room


def room_of(session: Session, meeting_id: str) -> Room | None:
    """The room of a meeting; None for one that was brought in."""
    return session.scalar(select(Room).where(Room.meeting_id == meeting_id))


def get_room(session: Session, user: User, meeting_id: str, action: Action = Action.READ) -> tuple[Meeting, Room]:
    """A meeting with which `user` may do `action`, and its room. Raises NotFound, NotAllowed."""
    meeting = get_meeting(session, user, meeting_id, action)
    room = room_of(session, meeting.id)
    if room is None:
        raise NotFound()
    return meeting, room


def touch(room: Room) -> int:
    """Notifies watchers of a change; the new version."""
    room.version += 1
    return room.version


def runs_of(session: Session, room: Room) -> list[Run]:
    """Runs in order."""
    return list(session.scalars(select(Run).where(Run.room_id == room.id).order_by(Run.number)))


# --- consent ---


def announce(session: Session, user: User, room: Room, announced: bool) -> None:
    """Notes that the recording was announced to all, when and by whom; or takes that back before it begins."""
    if not announced and room.state != RoomState.READY:
        raise Conflict("The recording runs already, so the announcement stays in the record.")
    room.announced_at, room.announced_by = (now(), user.id) if announced else (None, None)
    touch(room)


def tick_consent(session: Session, user: User, meeting: Meeting, room: Room, person_id: int, agreed: bool) -> None:
    """Notes that somebody who is there agrees to be recorded, or takes that back.

    Each may tick themselves, whoever runs the meeting everybody. Raises NotFound, NotAllowed.
    """
    if person_id != user.person.id:
        check(user, Action.RUN, meeting_thing(meeting))
    if person_id not in {person.id for person in meeting.people}:
        raise NotFound()
    session.execute(delete(Consent).where(Consent.meeting_id == meeting.id, Consent.person_id == person_id))
    if agreed:
        session.add(Consent(meeting_id=meeting.id, person_id=person_id, ticked_by=user.id))
    touch(room)


def add_person(session: Session, meeting: Meeting, room: Room, name: str) -> None:
    """Adds somebody who has come in."""
    add_to_meeting(session, meeting, name)
    touch(room)


def may_record(session: Session, meeting: Meeting, room: Room) -> bool:
    """Whether recording may begin: announced to all, everybody ticked, or the workspace asks for neither."""
    workspace = session.get_one(Workspace, meeting.workspace_id)
    if not workspace.consent_needed or room.announced_at is not None:
        return True
    ticked = set(session.scalars(select(Consent.person_id).where(Consent.meeting_id == meeting.id)))
    return bool(meeting.people) and {person.id for person in meeting.people} <= ticked


# --- agenda ---


def agenda_of(session: Session, meeting_id: str) -> list[AgendaRow]:
    """Items in order."""
    return list(session.scalars(select(AgendaRow).where(AgendaRow.meeting_id == meeting_id).order_by(AgendaRow.number)))


def agenda_items(rows: list[AgendaRow]) -> list[AgendaItem]:
    return [AgendaItem(row.title, row.planned, row.begun, row.ended) for row in rows]


def write_agenda(session: Session, room: Room, items: list[AgendaItem]) -> None:
    """Replaces the agenda; items that keep their title keep their times."""
    if len(items) > LONGEST_AGENDA:
        raise Conflict(f"An agenda holds at most {LONGEST_AGENDA} items.")
    old = {row.title: row for row in agenda_of(session, room.meeting_id)}
    times = {title: (row.begun, row.ended) for title, row in old.items()}
    session.execute(delete(AgendaRow).where(AgendaRow.meeting_id == room.meeting_id))
    for number, item in enumerate(items):
        begun, ended = times.get(item.title, (None, None))
        session.add(
            AgendaRow(
                meeting_id=room.meeting_id,
                number=number,
                title=item.title,
                planned=item.planned,
                begun=begun,
                ended=ended,
            )
        )
    session.flush()
    touch(room)


def turn_to(session: Session, room: Room, number: int | None, at: float) -> None:
    """Says which item is on from `at` seconds; None ends the one that is on. Raises NotFound."""
    rows = agenda_of(session, room.meeting_id)
    if number is not None and not 0 <= number < len(rows):
        raise NotFound()
    for row in rows:
        if row.begun is not None and row.ended is None and row.number != number:
            row.ended = at
        if row.number == number and (row.begun is None or row.ended is not None):
            row.begun, row.ended = at if row.begun is None else row.begun, None
    touch(room)
