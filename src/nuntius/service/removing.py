"""Removing for good: whole meetings, and stretches of them, while they are recorded or later."""

from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE
from nuntius.core.rights import Action
from nuntius.store import capture, cutting
from nuntius.store.errors import Conflict
from nuntius.store.exports import forget_exports
from nuntius.store.installation import Installation
from nuntius.store.live import cut_lines
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Room, User
from nuntius.store.removal import Leftovers, drop, drop_unused, remove_meeting
from nuntius.store.rooms import get_room

ANOTHER = "Another stretch was removed at the same moment. Look at the record, then try again."


def remove(store: Installation, user: User, meeting_id: str) -> None:
    """Removes a meeting with everything that hangs on it. Raises NotFound, NotAllowed."""
    with store.database.write() as session:
        leftovers = remove_meeting(session, get_meeting(session, user, meeting_id, Action.RUN))
    drop(store.database, store.files, leftovers)
    store.database.forget()


def cut_record(store: Installation, user: User, meeting_id: str, start: float, end: float) -> str:
    """Takes a stretch (seconds) out of a finished record at once; the job that makes the rest again.

    The sound is copied between two transactions. Raises NotFound, NotAllowed, Conflict.
    """
    with store.database.read() as session:
        meeting = get_meeting(session, user, meeting_id, Action.RUN)
        recording, end = cutting.to_cut(session, meeting, start, end)
    try:
        silenced = cutting.silenced_copy(store.files, recording, start, end)
    except FileNotFoundError as cause:
        raise Conflict(ANOTHER) from cause
    try:
        with store.database.write() as session:
            meeting = get_meeting(session, user, meeting_id, Action.RUN)
            now_there, _ = cutting.to_cut(session, meeting, start, end)
            if now_there.working_digest != recording.working_digest:
                raise Conflict(ANOTHER)
            job, leftovers = cutting.cut_record(session, user, meeting, now_there, silenced, start, end)
            job_id = job.id
    except BaseException:
        drop_unused(store.database, store.files, [silenced])
        raise
    drop(store.database, store.files, leftovers)
    store.database.forget()
    return job_id


def cut_room(store: Installation, user: User, meeting_id: str, start: float, end: float) -> None:
    """Takes a stretch (seconds) out of a meeting that is being recorded: sound, words, pictures; a mark stays.

    The sound goes first: were this broken off, the stretch can be removed again. Raises NotFound, NotAllowed, Conflict.
    """
    with store.database.read() as session:
        _, room = get_room(session, user, meeting_id, Action.RUN)
        start, end = capture.to_cut(room, start, end)
        parts = capture.pieces(session, room, round(start * RATE))
    capture.silence(store.files, parts, start, end)
    with store.database.write() as session:
        _, room = get_room(session, user, meeting_id, Action.RUN)
        leftovers = _cut_words(session, user, room, start, end)
    drop(store.database, store.files, leftovers)
    store.database.forget()


def _cut_words(session: Session, user: User, room: Room, start: float, end: float) -> Leftovers:
    capture.note_cut(session, user, room, start, end)
    cut_lines(session, room, start, end)
    gone = cutting.cut_pictures(session, room.meeting_id, start, end) | forget_exports(session, room.meeting_id)
    return Leftovers(frozenset(digest for digest in gone if digest))
