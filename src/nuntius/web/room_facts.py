"""What of a room stays with the record: breaks, marks, pictures, consent."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.capture import breaks_of
from nuntius.store.models import Consent, MarkRow, Meeting, Person, Room, StillPicture, User
from nuntius.store.notes import marks_of
from nuntius.web import schemas as s


def account_names(session: Session) -> dict[int | None, str]:
    """Names by account."""
    query = select(Person.user_id, Person.name).where(Person.user_id.is_not(None))
    return dict(session.execute(query).tuples().all())


def breaks_out(session: Session, meeting_id: str) -> list[s.BreakOut]:
    return [
        s.BreakOut(kind=b.kind, at=b.at, seconds=b.seconds, by=b.by, made_at=b.made_at)  # type: ignore[arg-type]
        for b in breaks_of(session, meeting_id)
    ]


def marks_out(session: Session, meeting_id: str, user: User) -> list[s.MarkOut]:
    names = account_names(session)

    def out(mark: MarkRow) -> s.MarkOut:
        return s.MarkOut(
            id=mark.id,
            label=mark.label,
            text=mark.text,
            start=mark.start,
            end=mark.end,
            by=names.get(mark.user_id, ""),
            mine=mark.user_id == user.id,
        )

    return [out(mark) for mark in marks_of(session, meeting_id)]


def pictures_out(session: Session, meeting_id: str) -> list[s.PictureOut]:
    query = select(StillPicture).where(StillPicture.meeting_id == meeting_id).order_by(StillPicture.at)
    return [s.PictureOut(id=picture.id, at=picture.at) for picture in session.scalars(query)]


def there_out(session: Session, meeting: Meeting) -> list[s.ThereOut]:
    """Who was there, and when each agreed to be recorded."""
    query = select(Consent.person_id, Consent.at).where(Consent.meeting_id == meeting.id)
    agreed = dict(session.execute(query).tuples().all())
    return [s.ThereOut(id=p.id, name=p.name, agreed_at=agreed.get(p.id)) for p in meeting.people]


def consent_out(session: Session, meeting: Meeting, room: Room) -> s.ConsentOut:
    """How the recording was announced, and who agreed."""
    by = account_names(session).get(room.announced_by) if room.announced_by else None
    return s.ConsentOut(announced_at=room.announced_at, announced_by=by, there=there_out(session, meeting))
