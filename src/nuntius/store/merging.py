"""Two people who are one: what hangs on one of them moves to the other, and can be taken back for thirty days."""

from dataclasses import asdict, dataclass, field
from datetime import timedelta
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.errors import BothHaveAccounts, Conflict, NotFound
from nuntius.store.models import Consent, LineRow, Meeting, Merging, MinutesRow, Person, Speaker, User, attendance, now
from nuntius.store.people import call

UNDONE_FOR = timedelta(days=30)


@dataclass(slots=True)
class Moved:
    """What went from the one to the other, by numbers, so that exactly this goes back."""

    meetings: list[str] = field(default_factory=list)  # in which only the merged one had been
    shared: list[str] = field(default_factory=list)  # in which both had been
    speakers: list[int] = field(default_factory=list)
    consents: list[str] = field(default_factory=list)  # meetings
    owners: list[int] = field(default_factory=list)  # lines that named the merged one
    account: int | None = None


def merge(session: Session, by: User, merged: Person, kept: Person) -> Merging:
    """Makes `merged` and `kept` one person: meetings, voices, consents, actions, and an account follow.

    Raises Conflict for one and the same, BothHaveAccounts.
    """
    if merged.id == kept.id:
        raise Conflict("Choose two different people.")
    if merged.user_id is not None and kept.user_id is not None:
        raise BothHaveAccounts(merged.label, kept.label)
    moved = Moved(account=merged.user_id)
    _move_meetings(session, moved, merged, kept)
    _move_rows(session, moved, merged, kept)
    if merged.user_id is not None:
        merged.user_id, account = None, merged.user_id
        session.flush()
        kept.user_id = account
    merged.removed_at, merged.merged_into = now(), kept.id
    row = Merging(workspace_id=by.workspace_id, kept_id=kept.id, merged_id=merged.id, moved=asdict(moved))
    session.add(row)
    session.flush()
    return row


def _move_meetings(session: Session, moved: Moved, merged: Person, kept: Person) -> None:
    mine = select(attendance.c.meeting_id).where(attendance.c.person_id == merged.id)
    with_both = set(session.scalars(select(attendance.c.meeting_id).where(attendance.c.person_id == kept.id)))
    for meeting in session.scalars(select(Meeting).where(Meeting.id.in_(mine))):
        _rename_owner(session, moved, meeting, merged.label, kept.label)
        meeting.people.remove(merged)
        if meeting.id in with_both:
            moved.shared.append(meeting.id)
        else:
            moved.meetings.append(meeting.id)
            meeting.people.append(kept)


def _rename_owner(session: Session, moved: Moved, meeting: Meeting, old: str, new: str) -> None:
    """Actions name their owners: the merged one's are the other's from now on."""
    query = select(LineRow).join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
    for line in session.scalars(query.where(MinutesRow.meeting_id == meeting.id)):
        if old in line.owner and old != new:
            line.owner = [new if name == old else name for name in line.owner]
            moved.owners.append(line.id)


def _move_rows(session: Session, moved: Moved, merged: Person, kept: Person) -> None:
    for speaker in session.scalars(select(Speaker).where(Speaker.person_id == merged.id)):
        speaker.person_id = kept.id
        moved.speakers.append(speaker.id)
    for consent in session.scalars(select(Consent).where(Consent.person_id == merged.id)):
        if session.get(Consent, (consent.meeting_id, kept.id)) is None:
            consent.person_id = kept.id
            moved.consents.append(consent.meeting_id)


def mergings_of(session: Session, workspace_id: int) -> list[tuple[Merging, Person, Person]]:
    """Mergings that can still be taken back, the newest first: each with the one kept and the one merged."""
    query = select(Merging).where(Merging.workspace_id == workspace_id, Merging.undone_at.is_(None))
    rows = session.scalars(query.where(Merging.made_at > now() - UNDONE_FOR).order_by(Merging.id.desc()))
    return [(row, session.get_one(Person, row.kept_id), session.get_one(Person, row.merged_id)) for row in rows]


def take_back(session: Session, by: User, merging_id: int) -> Merging:
    """Makes two people of one again: what had moved goes back, where it is still there. Raises NotFound, NameTaken."""
    row = next((row for row, _, _ in mergings_of(session, by.workspace_id) if row.id == merging_id), None)
    if row is None:
        raise NotFound()
    moved, kept, merged = (
        Moved(**row.moved),
        session.get_one(Person, row.kept_id),
        session.get_one(Person, row.merged_id),
    )
    merged.removed_at = merged.merged_into = None
    call(session, merged, merged.name, merged.distinction)  # the name may have been given to somebody else meanwhile
    _move_back(session, moved, kept, merged)
    if moved.account is not None and kept.user_id == moved.account:
        kept.user_id = None
        session.flush()
        merged.user_id = moved.account
    row.undone_at = now()
    return row


def _move_back(session: Session, moved: Moved, kept: Person, merged: Person) -> None:
    for meeting in _there(session, Meeting, [*moved.meetings, *moved.shared]):
        if meeting.id in moved.meetings and kept in meeting.people:
            meeting.people.remove(kept)
        if merged not in meeting.people:
            meeting.people.append(merged)
    for speaker in _there(session, Speaker, moved.speakers):
        if speaker.person_id == kept.id:
            speaker.person_id = merged.id
    for line in _there(session, LineRow, moved.owners):
        line.owner = [merged.label if name == kept.label else name for name in line.owner]
    for meeting_id in moved.consents:
        consent = session.get(Consent, (meeting_id, kept.id))
        if consent is not None:
            consent.person_id = merged.id


def _there(session: Session, table: Any, numbers: list[Any]) -> list[Any]:
    return [row for number in numbers if (row := session.get(table, number)) is not None]
