"""Files that are made for somebody: wanted, found again, forgotten with the meetings that they hold words of."""

from collections.abc import Collection, Iterable
from datetime import timedelta
from typing import Any

from sqlalchemy import ColumnElement, delete, func, or_, select
from sqlalchemy.orm import Session

from nuntius.core.exports import ANSWERS, ExportKind
from nuntius.core.jobs import GOING_ON, JobState
from nuntius.store.errors import NotFound, TooManyExports
from nuntius.store.leases import unheld
from nuntius.store.meetings import open_to
from nuntius.store.models import Export, Meeting, User, export_meeting, now

KEPT = timedelta(days=1)  # for which a file is kept after it was asked for
ANSWER_KEPT = timedelta(hours=1)  # the same for an answer, which the page fetches at once
ANSWER_LISTED = timedelta(minutes=10)  # for which an answer is in the list that pages follow
MOST_LISTED = 100
MOST_AT_ONCE = 10  # that wait or are being made for one person


def create_export(
    session: Session,
    user: User,
    kind: ExportKind,
    title: str,
    meetings: Iterable[Meeting],
    targets: Collection[int] = (),
    address: str = "",
    arguments: dict[str, Any] | None = None,
) -> Export:
    """An export that waits. Raises TooManyExports."""
    query = select(func.count(Export.id)).where(Export.user_id == user.id, Export.state.in_(GOING_ON))
    if (session.scalar(query) or 0) >= MOST_AT_ONCE:
        raise TooManyExports(MOST_AT_ONCE)
    export = Export(user_id=user.id, kind=kind, title=title[:200], targets=list(targets), address=address)
    export.arguments = arguments
    export.meetings = list(meetings)
    session.add(export)
    session.flush()
    return export


def exports_of(session: Session, user: User) -> list[Export]:
    """The files asked for within a day, and the answers of just now, that may still be read; the newest first."""
    fresh = or_(Export.kind.not_in(ANSWERS), Export.created_at > now() - ANSWER_LISTED)
    query = select(Export).where(_readable(user), fresh).order_by(Export.created_at.desc(), Export.id)
    return list(session.scalars(query.limit(MOST_LISTED)))


def get_export(session: Session, user: User, export_id: str) -> Export:
    """One's own. Raises NotFound, also where one of its meetings is not open to `user` any more."""
    export = session.scalar(select(Export).where(Export.id == export_id, _readable(user)))
    if export is None:
        raise NotFound()
    return export


def _readable(user: User) -> ColumnElement[bool]:
    mine = open_to(user).with_only_columns(Meeting.id)
    closed = select(export_meeting.c.export_id).where(export_meeting.c.meeting_id.not_in(mine))
    return (Export.user_id == user.id) & (Export.created_at > now() - KEPT) & Export.id.not_in(closed)


def retry_export(session: Session, user: User, export_id: str) -> Export:
    """Lets one that failed be made again. Raises NotFound for all others."""
    export = get_export(session, user, export_id)
    if export.state != JobState.FAILED:
        raise NotFound()
    export.state, export.error = JobState.WAITING, None
    return export


def release_exports(session: Session) -> None:
    """Puts the exports of workers without a heartbeat back."""
    for export in session.scalars(select(Export).where(unheld(Export))):
        export.state, export.worker = JobState.WAITING, None


def forget_exports(session: Session, meeting_id: str) -> set[str]:
    """Deletes the exports that hold words or sound of a meeting; the digests of their files."""
    of_meeting = select(export_meeting.c.export_id).where(export_meeting.c.meeting_id == meeting_id)
    return _delete(session, Export.id.in_(of_meeting))


def sweep(session: Session) -> set[str]:
    """Deletes the exports whose time is over, and those without any meeting left; the digests of their files."""
    answers = Export.kind.in_(ANSWERS) & (Export.created_at <= now() - ANSWER_KEPT)
    return _delete(session, or_(Export.created_at <= now() - KEPT, answers, ~Export.meetings.any()))


def _delete(session: Session, where: ColumnElement[bool]) -> set[str]:
    digests = set(session.scalars(select(Export.digest).where(where, Export.digest.is_not(None))))
    session.execute(delete(Export).where(where))
    return {digest for digest in digests if digest}
