"""Space that recordings take up, by person and in all, and its limits."""

from dataclasses import dataclass

from sqlalchemy import ColumnElement, func, select
from sqlalchemy.orm import Session

from nuntius.settings import Settings
from nuntius.store.errors import SpaceUsed
from nuntius.store.models import Meeting, Room, Upload, User

GB = 1024**3  # bytes
SAMPLE = 2  # bytes of sound as it is recorded


@dataclass(frozen=True, slots=True)
class Space:
    """Bytes that are taken up, and how many may be; None where there is no limit."""

    used: int
    limit: int | None


def own_space(session: Session, user: User, settings: Settings) -> Space:
    """What `user` has brought in or recorded."""
    used = _bytes(session, Upload.user_id == user.id, Meeting.runner_id == user.id)
    return Space(used, settings.person_gb * GB or None)


def workspace_space(session: Session, user: User, settings: Settings) -> Space:
    """The same of everybody in the workspace of `user`."""
    everybody = select(User.id).where(User.workspace_id == user.workspace_id)
    used = _bytes(session, Upload.user_id.in_(everybody), Meeting.workspace_id == user.workspace_id)
    return Space(used, settings.workspace_gb * GB or None)


def check_space(session: Session, user: User, settings: Settings, more: int) -> None:
    """Raises SpaceUsed where `more` bytes of `user` do not fit any more."""
    spaces = (("Your recordings", own_space), ("The recordings of your team", workspace_space))
    for whose, measure in spaces:
        space = measure(session, user, settings)
        if space.limit is not None and space.used + more > space.limit:
            raise SpaceUsed(whose, space.used / GB, space.limit / GB, more / GB)


def _bytes(session: Session, of_uploads: ColumnElement[bool], of_meetings: ColumnElement[bool]) -> int:
    brought = session.scalar(select(func.sum(Upload.size)).where(of_uploads)) or 0
    heard = select(func.sum(Room.held)).join(Meeting, Meeting.id == Room.meeting_id).where(of_meetings)
    return int(brought) + SAMPLE * int(session.scalar(heard) or 0)
