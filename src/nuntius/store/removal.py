"""Removing a meeting for good: its rows, and its files where no other meeting has the same."""

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from nuntius.store.capture import folder
from nuntius.store.files import FileStore
from nuntius.store.models import Meeting, Recording, StillPicture, Upload
from nuntius.store.rooms import room_of, runs_of


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
    room = room_of(session, meeting.id)
    runs = [folder(run) for run in runs_of(session, room)] if room else []
    pictures = set(session.scalars(select(StillPicture.digest).where(StillPicture.meeting_id == meeting.id)))
    session.delete(meeting)
    session.flush()
    drop_unused(session, files, digests | pictures)
    for name in [*(upload.id for upload in uploads), *runs]:
        files.drop_parts(name)


def drop_unused(session: Session, files: FileStore, digests: set[str]) -> None:
    """Deletes the files with these digests that no row names any more."""
    for digest in digests:
        if not _used(session, digest):
            files.path(digest).unlink(missing_ok=True)


def _used(session: Session, digest: str) -> bool:
    columns = (Recording.digest, Recording.working_digest, Recording.playback_digest, Recording.peaks_digest)
    recordings = select(Recording.id).where(or_(*(column == digest for column in columns)))
    pictures = select(StillPicture.id).where(StillPicture.digest == digest)
    beside = select(Upload.id).where(Upload.digest == digest, Upload.role != "recording")
    return any(session.scalars(query).first() is not None for query in (recordings, pictures, beside))
