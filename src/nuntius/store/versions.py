"""Earlier minutes: how they stood before they were made again, looked at and taken back."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import MinutesSource
from nuntius.store.errors import NotFound
from nuntius.store.line_rows import LineValues, values_of
from nuntius.store.models import Meeting, MinutesRow, MinutesVersion

MOST_VERSIONS = 30  # kept of a meeting, the newest
ASIDE = ("number", "chapter", "doubts", "why")  # what may differ between minutes that read the same


@dataclass(frozen=True, slots=True)
class Standing:
    """Minutes as they stood: settled ones only are worth keeping."""

    source: MinutesSource
    length: str
    sections: list[tuple[str, str]]
    lines: list[LineValues]


def standing(row: MinutesRow) -> Standing:
    """Minutes as they stand now; each line has its number in the database as `id`."""
    lines = [{"id": line.id, **values_of(line)} for line in row.lines]
    return Standing(row.source, row.length, [(title, layout) for title, layout in row.sections], lines)


def keep_version(session: Session, row: MinutesRow, before: Standing, made_at: datetime) -> None:
    """Keeps minutes as they stood before `row` was made again, where they read otherwise now.

    What was written from live text only is not kept.
    """
    if before.source == MinutesSource.LIVE or _read(before) == _read(standing(row)):
        return
    session.add(
        MinutesVersion(
            meeting_id=row.meeting_id,
            made_at=made_at,
            length=before.length,
            sections=before.sections,
            lines=before.lines,
        )
    )
    session.flush()
    mine = select(MinutesVersion.id).where(MinutesVersion.meeting_id == row.meeting_id)
    kept = mine.order_by(MinutesVersion.id.desc()).limit(MOST_VERSIONS)
    session.execute(
        delete(MinutesVersion).where(MinutesVersion.meeting_id == row.meeting_id, MinutesVersion.id.not_in(kept))
    )


def _read(minutes: Standing) -> list[LineValues]:
    return [{name: value for name, value in line.items() if name not in ASIDE} for line in minutes.lines]


def versions_of(session: Session, meeting: Meeting) -> list[MinutesVersion]:
    """Earlier minutes, the newest first."""
    query = select(MinutesVersion).where(MinutesVersion.meeting_id == meeting.id)
    return list(session.scalars(query.order_by(MinutesVersion.id.desc())))


def version_of(session: Session, meeting: Meeting, version_id: int) -> MinutesVersion:
    """One of them. Raises NotFound."""
    version = session.get(MinutesVersion, version_id)
    if version is None or version.meeting_id != meeting.id:
        raise NotFound()
    return version


def forget_versions(session: Session, meeting_id: str) -> None:
    """Removes the earlier minutes of a meeting for good."""
    session.execute(delete(MinutesVersion).where(MinutesVersion.meeting_id == meeting_id))
