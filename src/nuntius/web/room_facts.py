"""What of a room stays with the record: breaks, marks, pictures, consent."""

from collections.abc import Mapping, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.accounts import account_names
from nuntius.store.capture import breaks_of
from nuntius.store.models import Consent, MarkRow, Meeting, NoteRow, Person, Room, StillPicture, User
from nuntius.web import record_schemas as rec


def breaks_out(session: Session, meeting_id: str) -> list[rec.BreakOut]:
    return [
        rec.BreakOut(kind=b.kind, at=b.at, seconds=b.seconds, by=b.by, made_at=b.made_at)
        for b in breaks_of(session, meeting_id)
    ]


def marks_out(marks: Sequence[MarkRow], names: Mapping[int | None, str], user: User) -> list[rec.MarkOut]:
    """Marks as `user` sees them; `names` of the accounts by their identifiers."""

    def out(mark: MarkRow) -> rec.MarkOut:
        return rec.MarkOut(
            id=mark.id,
            label=mark.label,
            text=mark.text,
            start=mark.start,
            end=mark.end,
            by=names.get(mark.user_id, ""),
            mine=mark.user_id == user.id,
        )

    return [out(mark) for mark in marks]


def note_out(note: NoteRow) -> rec.NoteOut:
    return rec.NoteOut(id=note.id, text=note.text, at=note.at, position=note.position, private=note.private)


def pictures_out(session: Session, meeting_id: str) -> list[rec.PictureOut]:
    query = select(StillPicture).where(StillPicture.meeting_id == meeting_id).order_by(StillPicture.at)
    return [rec.PictureOut(id=picture.id, at=picture.at) for picture in session.scalars(query)]


def there_out(session: Session, meeting: Meeting) -> list[rec.ThereOut]:
    """Who was there, and when each agreed to be recorded."""
    query = select(Consent).where(Consent.meeting_id == meeting.id)
    agreed = {row.person_id: row for row in session.scalars(query)}

    def out(person: Person) -> rec.ThereOut:
        row = agreed.get(person.id)
        return rec.ThereOut(
            id=person.id,
            name=person.label,
            agreed_at=row.at if row else None,
            brought_in=row is not None and row.ticked_by is None,
        )

    return [out(person) for person in meeting.people]


def consent_out(session: Session, meeting: Meeting, room: Room) -> rec.ConsentOut:
    """How the recording was announced, and who agreed."""
    by = account_names(session).get(room.announced_by) if room.announced_by else room.announced_elsewhere or None
    brought_in = room.announced_at is not None and room.announced_by is None
    return rec.ConsentOut(
        announced_at=room.announced_at, announced_by=by, brought_in=brought_in, there=there_out(session, meeting)
    )
