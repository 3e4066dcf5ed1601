"""Bringing files in: the work on them begins once all their parts are here, and the worker joins them."""

from collections.abc import Sequence

from sqlalchemy.orm import Session

from nuntius.core.formats.bundle import is_bundle
from nuntius.core.formats.reading import looks_like_text
from nuntius.core.jobs import JobKind
from nuntius.core.rights import Action
from nuntius.core.rooms import UploadRole
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.files import FileStore
from nuntius.store.installation import Installation
from nuntius.store.jobs import create_job, latest_job
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Job, Meeting, Recording, Upload, User
from nuntius.store.removal import drop_unused
from nuntius.store.uploads import complete, of_meeting, parts_of, unjoined

HEAD = 4096  # bytes by which a text is told from sound and picture


def begin_work(store: Installation, user: User, meeting_id: str) -> tuple[Meeting, Job, bool]:
    """Creates the job on the files of a meeting that have arrived, once; whether it is new.

    Raises NotFound, NotAllowed, UploadIncomplete, Conflict for files that cannot be one meeting.
    """
    with store.database.read() as session:
        meeting = get_meeting(session, user, meeting_id, Action.RUN)
        uploads = _complete_uploads(session, user, meeting)
        job = latest_job(session, meeting.id)
    if job is not None:
        return meeting, job, False
    is_text = looks_like_text(_head(store.files, uploads[0]))
    with store.database.write() as session:
        meeting = get_meeting(session, user, meeting_id, Action.RUN)
        job = latest_job(session, meeting.id)
        if job is not None:
            return meeting, job, False
        return meeting, _begun(session, meeting, _complete_uploads(session, user, meeting), is_text), True


def _complete_uploads(session: Session, user: User, meeting: Meeting) -> list[Upload]:
    uploads = of_meeting(session, user, meeting.id)
    if not uploads:
        raise NotFound()
    for upload in uploads:
        complete(session, upload)
    return uploads


def _head(files: FileStore, upload: Upload) -> bytes:
    """The first bytes of a file; none of an empty one, or of one that the worker has joined meanwhile."""
    try:
        return files.read_part(upload.id, 0)[:HEAD]
    except FileNotFoundError:
        return b""


def _begun(session: Session, meeting: Meeting, uploads: Sequence[Upload], is_text: bool) -> Job:
    """The recording of complete uploads, and the job on it."""
    first = uploads[0]
    if is_text and any(upload.role == UploadRole.TRANSCRIPT for upload in uploads):
        raise Conflict("Two transcripts of one meeting were chosen. Bring in one of them, or one with its recording.")
    session.add(
        Recording(meeting_id=meeting.id, name=first.name, digest="", fingerprint=first.fingerprint, is_text=is_text)
    )
    return create_job(session, meeting.id, first.voices)


# --- in the worker ---


def join_files(store: Installation, job_id: str) -> None:
    """Joins the files of a job's meeting that are still in parts; what they are then decides the kind of the job.

    Raises StorageFull.
    """
    with store.database.read() as session:
        uploads = unjoined(session, session.get_one(Job, job_id).meeting_id)
    joined = {upload.id: store.files.join_parts(upload.id, parts_of(upload)) for upload in uploads}
    first = next((upload for upload in uploads if upload.role == UploadRole.RECORDING), None)
    whole = first is not None and is_bundle(store.files.path(joined[first.id]))
    with store.database.write() as session:
        job = session.get(Job, job_id)
        if job is not None:
            for upload in unjoined(session, job.meeting_id):
                upload.digest = joined[upload.id]
            if first is not None:
                recording = session.query(Recording).filter_by(meeting_id=job.meeting_id).one()
                recording.digest, recording.is_text = joined[first.id], recording.is_text and not whole
                job.kind = JobKind.BUNDLE if whole else job.kind
    if job is None:  # the meeting was removed meanwhile
        drop_unused(store.database, store.files, joined.values())
    for upload_id in joined:
        store.files.drop_parts(upload_id)
