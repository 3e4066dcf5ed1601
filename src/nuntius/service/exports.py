"""Files that take a while: ordered by a person, made by the worker, fetched when they are there."""

from collections.abc import Callable, Sequence
from pathlib import Path

from sqlalchemy.orm import Session

from nuntius.core.audio.encode import write_small
from nuntius.core.exports import ANSWERS, OF_COMPILATION, OF_MEETING, ExportKind
from nuntius.core.formats.bundle import write_bundle
from nuntius.core.montage.write import Form, Montage
from nuntius.service.asking import read_answer
from nuntius.service.documents import Written, read_document
from nuntius.store import compilations, excerpts
from nuntius.store.bundles import bundle_of
from nuntius.store.clips import check_sound
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.exports import create_export, get_export
from nuntius.store.installation import Installation
from nuntius.store.meetings import get_meeting, open_to
from nuntius.store.models import Export, Meeting, User
from nuntius.store.removal import drop_unused
from nuntius.store.transcripts import has_transcript

EMPTY = "This compilation holds no passage yet. Put one into it first."


def order_of_meeting(session: Session, user: User, meeting_id: str, kind: ExportKind, address: str) -> Export:
    """Asks for a file of one meeting; `address` is that of its page. Raises NotFound, Conflict, TooManyExports."""
    assert kind in OF_MEETING
    meeting = get_meeting(session, user, meeting_id)
    if kind == ExportKind.SMALL_SOUND:
        check_sound(session, meeting)
    elif not has_transcript(session, meeting_id):
        raise Conflict("There is no transcript to download yet. Wait until the work is done.")
    return create_export(session, user, kind, meeting.title, [meeting], address=address)


def order_of_excerpts(session: Session, user: User, ids: Sequence[int]) -> Export:
    """Asks for the sound of excerpts, in this order, as one. Raises NotFound, Conflict, TooManyExports."""
    chosen = excerpts.chosen_excerpts(session, user, list(ids))
    meetings = _meetings(session, user, {each.meeting_id for each in chosen})
    return create_export(session, user, ExportKind.EXCERPTS, "Excerpts", meetings, ids)


def order_of_compilation(session: Session, user: User, compilation_id: int, kind: ExportKind) -> Export:
    """Asks for a compilation as one file. Raises NotFound, Conflict where it holds nothing, TooManyExports."""
    assert kind in OF_COMPILATION
    row = compilations.get_compilation(session, user, compilation_id)
    meetings = _meetings(session, user, {each.meeting_id for each in row.passages})
    if not meetings:
        raise Conflict(EMPTY)
    return create_export(session, user, kind, row.title, meetings, [compilation_id])


def _meetings(session: Session, user: User, ids: set[str]) -> list[Meeting]:
    """Those of the meetings that are open to `user`. Raises Conflict for one without sound."""
    meetings = list(session.scalars(open_to(user).where(Meeting.id.in_(ids))))
    for meeting in meetings:
        check_sound(session, meeting)
    return meetings


def remove_export(store: Installation, user: User, export_id: str) -> None:
    """Forgets an export, also one that is being made; its file goes. Raises NotFound."""
    with store.database.write() as session:
        export = get_export(session, user, export_id)
        digest = export.digest
        session.delete(export)
    drop_unused(store.database, store.files, [digest])


def file_of(store: Installation, user: User, export_id: str) -> tuple[Export, Path]:
    """A finished export and its file. Raises NotFound where there is none (yet, or any more)."""
    with store.database.read() as session:
        export = get_export(session, user, export_id)
    path = store.files.path(export.digest) if export.digest else None
    if path is None or not path.exists():  # a restored backup has none
        raise NotFound()
    return export, path


# --- in the worker ---


def read_export(store: Installation, session: Session, export: Export) -> Callable[[Path], None]:
    """Reads what a file holds; what writes it, when no transaction is open any more.

    Raises NotFound, Conflict where what it is made from has changed since it was asked for.
    """
    user = session.get_one(User, export.user_id)
    kind = ExportKind(export.kind)
    if kind in ANSWERS:
        answer = read_answer(store, session, user, export)
        return lambda path: _write(path, answer())
    if kind == ExportKind.EXCERPTS:
        part = excerpts.excerpt_part(session, store.files, user, export.targets)
        return lambda path: Montage("Excerpts", (part,), speak=False).write(path, "ogg")
    if kind in OF_COMPILATION:
        row = compilations.get_compilation(session, user, export.targets[0])
        parts, title, spoken = compilations.parts_of(session, store.files, user, row), row.title, row.spoken
        form: Form = kind.ending  # type: ignore[assignment]
        if not parts:
            raise Conflict(EMPTY)
        return lambda path: Montage(title, parts, spoken).write(path, form)
    return _of_meeting(store, session, get_meeting(session, user, export.meetings[0].id), user, kind, export.address)


def _of_meeting(
    store: Installation, session: Session, meeting: Meeting, user: User, kind: ExportKind, address: str
) -> Callable[[Path], None]:
    if kind == ExportKind.SMALL_SOUND:
        working = store.files.path(check_sound(session, meeting).working_digest or "")
        return lambda path: write_small(working, path)
    if kind == ExportKind.BUNDLE:
        bundle, files = bundle_of(session, store.files, user, meeting)
        return lambda path: write_bundle(bundle, files, path)
    write = read_document(session, meeting, kind, address)
    return lambda path: _write(path, write())


def _write(path: Path, made: Written) -> None:
    path.write_bytes(made if isinstance(made, bytes) else "".join(made).encode())
