"""Removing a meeting for good: its rows first, then the files that no row names any more."""

from collections.abc import Iterable
from dataclasses import dataclass

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from nuntius.core.rooms import UploadRole
from nuntius.store.capture import folder
from nuntius.store.database import Database
from nuntius.store.exports import forget_exports
from nuntius.store.files import FileStore
from nuntius.store.models import Export, Meeting, Recording, StillPicture, Upload
from nuntius.store.rooms import room_of, runs_of


@dataclass(frozen=True, slots=True)
class Leftovers:
    """Files that may have lost their last row: kept ones by digest, and folders of parts."""

    digests: frozenset[str]
    folders: tuple[str, ...] = ()


def remove_meeting(session: Session, meeting: Meeting) -> Leftovers:
    """Deletes a meeting and all that hangs on it; the files are to be dropped once this is committed."""
    recordings = list(session.scalars(select(Recording).where(Recording.meeting_id == meeting.id)))
    uploads = list(session.scalars(select(Upload).where(Upload.meeting_id == meeting.id)))
    named = {d for r in recordings for d in (r.digest, r.working_digest, r.playback_digest, r.peaks_digest) if d}
    brought = {upload.digest for upload in uploads if upload.digest}
    pictures = set(session.scalars(select(StillPicture.digest).where(StillPicture.meeting_id == meeting.id)))
    room = room_of(session, meeting.id)
    runs = [folder(run) for run in runs_of(session, room)] if room else []
    exports = forget_exports(session, meeting.id)
    session.delete(meeting)
    session.flush()
    return Leftovers(
        frozenset(named | brought | pictures | exports), tuple([*(upload.id for upload in uploads), *runs])
    )


def drop(database: Database, files: FileStore, leftovers: Leftovers) -> None:
    """Deletes files that no row names any more."""
    with database.read() as session:
        unused = [digest for digest in leftovers.digests if not _used(session, digest)]
    for digest in unused:
        files.drop(digest)
    for name in leftovers.folders:
        files.drop_parts(name)


def drop_unused(database: Database, files: FileStore, digests: Iterable[str | None]) -> None:
    """`drop` for kept files alone; None and "" stand for no file."""
    drop(database, files, Leftovers(frozenset(digest for digest in digests if digest)))


def _used(session: Session, digest: str) -> bool:
    columns = (Recording.digest, Recording.working_digest, Recording.playback_digest, Recording.peaks_digest)
    recordings = select(Recording.id).where(or_(*(column == digest for column in columns)))
    pictures = select(StillPicture.id).where(StillPicture.digest == digest)
    beside = select(Upload.id).where(Upload.digest == digest, Upload.role != UploadRole.RECORDING)
    exports = select(Export.id).where(Export.digest == digest)
    return any(session.scalars(query).first() is not None for query in (recordings, pictures, beside, exports))
