"""Files arriving in parts: begun, gone on with, finished, recognised when they come again."""

import hashlib
from datetime import timedelta

from sqlalchemy import ColumnElement, exists, select
from sqlalchemy.orm import Session

from nuntius.core.rooms import UploadRole
from nuntius.settings import Settings
from nuntius.store.errors import Conflict, NotFound, PartMismatch, UploadIncomplete
from nuntius.store.meetings import open_to
from nuntius.store.models import Job, Meeting, Recording, Upload, UploadPart, User, now
from nuntius.store.space import check_space

UNFINISHED = timedelta(days=7)  # after which a file that has not arrived whole is given up
PART_SIZE = 4 * 1024 * 1024  # bytes
LARGEST = 4 * 1024**3  # bytes of one recording


def parts_of(upload: Upload) -> int:
    """How many parts the file has; an empty file has none."""
    return -(-upload.size // upload.part_size)


def begin(session: Session, user: User, name: str, size: int, fingerprint: str, settings: Settings) -> Upload:
    """An upload of this file: the unfinished one by the same person if there is one, else a new one.

    Raises Conflict for a file that is too large, SpaceUsed where it does not fit beside what is there.
    """
    if size > LARGEST:
        raise Conflict(f"This file has {size / 1024**3:.1f} GB; at most 4 GB can be brought in. Cut it into parts.")
    query = select(Upload).where(
        Upload.user_id == user.id,
        Upload.fingerprint == fingerprint,
        Upload.size == size,
        Upload.digest.is_(None),
        _without_work(),
    )
    upload = session.scalars(query).first()
    if upload is None:
        check_space(session, user, settings, size)
        upload = Upload(user_id=user.id, name=name, size=size, part_size=PART_SIZE, fingerprint=fingerprint)
        session.add(upload)
        session.flush()
    return upload


def get_upload(session: Session, user: User, upload_id: str) -> Upload:
    """One's own upload. Raises NotFound."""
    upload = session.get(Upload, upload_id)
    if upload is None or upload.user_id != user.id:
        raise NotFound()
    return upload


def held_parts(session: Session, upload: Upload) -> list[int]:
    """Numbers of the parts that are on disk."""
    query = select(UploadPart.number).where(UploadPart.upload_id == upload.id).order_by(UploadPart.number)
    return list(session.scalars(query))


def check_part(session: Session, upload: Upload, number: int, data: bytes, digest: str) -> bool:
    """Whether the part is new. Raises PartMismatch for damaged bytes, Conflict for others than those held."""
    if not 0 <= number < parts_of(upload):
        raise NotFound()
    expected = min(upload.part_size, upload.size - number * upload.part_size)
    if len(data) != expected or hashlib.sha256(data).hexdigest() != digest:
        raise PartMismatch()
    held = session.get(UploadPart, (upload.id, number))
    if held is not None and held.digest != digest:
        raise Conflict(f"Part {number} of this file is here already with other bytes. Bring the file in again.")
    return held is None


def note_part(session: Session, upload: Upload, number: int, digest: str) -> None:
    """Remembers a part that has been written."""
    session.merge(UploadPart(upload_id=upload.id, number=number, digest=digest))
    upload.updated_at = now()


def complete(session: Session, upload: Upload) -> None:
    """Raises UploadIncomplete while parts of a file are missing."""
    missing = parts_of(upload) - len(held_parts(session, upload)) if upload.digest is None else 0
    if missing:
        raise UploadIncomplete(missing, upload.name)


def of_meeting(session: Session, user: User, meeting_id: str) -> list[Upload]:
    """The files that `user` brought in for a meeting: the recording first, then what goes with it."""
    query = select(Upload).where(Upload.meeting_id == meeting_id, Upload.user_id == user.id)
    return sorted(
        session.scalars(query.order_by(Upload.created_at)), key=lambda upload: upload.role != UploadRole.RECORDING
    )


def unjoined(session: Session, meeting_id: str) -> list[Upload]:
    """The files of a meeting that are still in parts."""
    return list(session.scalars(select(Upload).where(Upload.meeting_id == meeting_id, Upload.digest.is_(None))))


def _without_work() -> ColumnElement[bool]:
    """Whether no work has begun on a file's meeting: else the file has arrived, joined or not."""
    return ~exists(select(Job.id).where(Job.meeting_id == Upload.meeting_id))


def beside(session: Session, meeting_id: str) -> dict[str, Upload]:
    """What came with a recording, by what it is: its `transcript`, its `chat`."""
    query = select(Upload).where(Upload.meeting_id == meeting_id, Upload.role != UploadRole.RECORDING)
    return {upload.role: upload for upload in session.scalars(query)}


def sweep(session: Session) -> list[str]:
    """Gives up files of which nothing has come for UNFINISHED; the uploads whose parts are to be removed."""
    left = select(Upload).where(Upload.digest.is_(None), Upload.updated_at < now() - UNFINISHED, _without_work())
    gone = list(session.scalars(left))
    for upload in gone:
        session.delete(upload)
    return [upload.id for upload in gone]


def same_file(session: Session, user: User, fingerprint: str) -> Meeting | None:
    """A meeting open to `user` that holds this very file already."""
    query = open_to(user).join(Recording, Recording.meeting_id == Meeting.id)
    return session.scalars(query.where(Recording.fingerprint == fingerprint)).first()
