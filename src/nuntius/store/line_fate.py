"""What became of a line that an address names: it stands, became part of another, or is gone."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.errors import NotFound
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, MinutesVersion
from nuntius.store.transcripts import names_of, with_names


@dataclass(frozen=True, slots=True)
class LineFate:
    """`now_in` is the line that stands for it, None where it is gone; then `text` and `until` say how it read, and until when."""

    now_in: int | None
    text: str = ""
    until: datetime | None = None
    version: int | None = None


def fate_of(session: Session, meeting: Meeting, line_id: int) -> LineFate:
    """What became of a line. Raises NotFound for a number that no line of these minutes is known to have had."""
    minutes = get_minutes(session, meeting.id)
    for line in minutes.lines if minutes else []:
        if line_id == line.id or line_id in line.joined:
            return LineFate(line.id)
    query = select(MinutesVersion).where(MinutesVersion.meeting_id == meeting.id).order_by(MinutesVersion.id.desc())
    for version in session.scalars(query):
        for was in version.lines:
            if was["id"] == line_id:
                text = was["person_text"] or with_names(was["text"], names_of(session, meeting.id))
                return LineFate(None, text, version.replaced_at, version.id)
    raise NotFound()
