"""Removing a meeting for good: its rows, and its files where no other meeting has the same."""

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from nuntius.store.files import FileStore
from nuntius.store.models import Meeting, Recording, Upload


def remove_meeting(session: Session, files: FileStore, meeting: Meeting) -> None:
    """Deletes a meeting and all that hangs on it."""
    recordings = list(session.scalars(select(Recording).where(Recording.meeting_id == meeting.id)))
    uploads = list(session.scalars(select(Upload).where(Upload.meeting_id == meeting.id)))
    digests = {
        digest
        for r in recordings
        for digest in (r.digest, r.working_digest, r.playback_digest, r.peaks_digest)
        if digest
    } | {upload.digest for upload in uploads if upload.digest}
    session.delete(meeting)
    session.flush()
    for digest in digests:
        if not _used(session, digest):
            files.path(digest).unlink(missing_ok=True)
    for upload in uploads:
        files.drop_parts(upload.id)


def _used(session: Session, digest: str) -> bool:
    columns = (Recording.digest, Recording.working_digest, Recording.playback_digest, Recording.peaks_digest)
    return (
        session.scalars(select(Recording.id).where(or_(*(column == digest for column in columns)))).first() is not None
    )
