"""Bringing files in: once all their parts are here they are joined, and the work on them begins."""

from collections.abc import Sequence
from dataclasses import dataclass

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
from nuntius.store.uploads import complete, of_meeting, parts_of

HEAD = 4096  # bytes by which a text is told from sound and picture


@dataclass(frozen=True, slots=True)
class Content:
    """What a joined file is."""

    is_bundle: bool
    is_text: bool


def begin_work(store: Installation, user: User, meeting_id: str) -> tuple[Meeting, Job, bool]:
    """Joins the files of a meeting that have arrived, and creates the job on them, once; whether anything was new.

    The joining, which may be of gigabytes, is done between two transactions. Raises NotFound, NotAllowed,
    UploadIncomplete, StorageFull, Conflict for files that cannot be one meeting.
    """
    with store.database.read() as session:
        meeting = get_meeting(session, user, meeting_id, Action.RUN)
        uploads = of_meeting(session, user, meeting.id)
        if not uploads:
            raise NotFound()
        for upload in uploads:
            complete(session, upload)
    joined = {each.id: _joined(store.files, each) for each in uploads if each.digest is None}
    content = _content(store.files, uploads[0].digest or joined[uploads[0].id])
    with store.database.write() as session:
        meeting = get_meeting(session, user, meeting_id, Action.RUN)
        uploads = of_meeting(session, user, meeting.id)
        for upload in uploads:
            upload.digest = upload.digest or joined.get(upload.id)
        job = latest_job(session, meeting.id) or _begun(session, meeting, uploads, content)
    for upload_id in joined:
        store.files.drop_parts(upload_id)
    return meeting, job, bool(joined)


def _joined(files: FileStore, upload: Upload) -> str:
    try:
        return files.join_parts(upload.id, parts_of(upload))
    except FileNotFoundError as cause:  # the same was asked for twice at once, and the other one was quicker
        raise Conflict("These files are being put together already. Wait a moment.") from cause


def _content(files: FileStore, digest: str) -> Content:
    path = files.path(digest)
    whole = is_bundle(path)
    with path.open("rb") as file:
        return Content(whole, not whole and looks_like_text(file.read(HEAD)))


def _begun(session: Session, meeting: Meeting, uploads: Sequence[Upload], content: Content) -> Job:
    """The recording of complete uploads, and the job on it."""
    first = uploads[0]
    if content.is_text and any(upload.role == UploadRole.TRANSCRIPT for upload in uploads):
        raise Conflict("Two transcripts of one meeting were chosen. Bring in one of them, or one with its recording.")
    session.add(
        Recording(
            meeting_id=meeting.id,
            name=first.name,
            digest=first.digest or "",
            fingerprint=first.fingerprint,
            is_text=content.is_text,
        )
    )
    job = create_job(session, meeting.id, first.voices, JobKind.BUNDLE if content.is_bundle else JobKind.WORK)
    session.flush()
    return job
