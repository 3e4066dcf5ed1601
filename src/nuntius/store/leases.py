"""Work that one process at a time does under a lease: claimed, kept by heartbeats, put back when they end."""

import secrets
import socket
from datetime import datetime, timedelta
from typing import TypeVar

from sqlalchemy import ColumnElement, or_, select, update
from sqlalchemy.orm import Session

from nuntius.core.jobs import JobState
from nuntius.store.models import Export, Job, now

Work = TypeVar("Work", Job, Export)

LEASE = timedelta(seconds=30)  # after which work without a heartbeat may be taken over
_PROCESS = f"{socket.gethostname()}:{secrets.token_hex(6)}"  # never a process number: those are used again


def this_process() -> str:
    """Name of this process among all of them, another one after each start."""
    return _PROCESS


def lapsed(seen: datetime | None, lease: timedelta) -> bool:
    """Whether the last heartbeat is older than the lease; none at all counts as lapsed."""
    return seen is None or seen < now() - lease


def claim(session: Session, work: type[Work], key: str) -> Work | None:
    """The row, held from now on (its `worker` is the new holder); None if it is another's, ended or gone."""
    holder = f"{this_process()}/{secrets.token_hex(4)}"
    values = {"state": JobState.WORKING, "worker": holder, "beat_at": now(), "started_at": now(), "error": None}
    free = or_(work.state == JobState.WAITING, unheld(work))
    result = session.execute(update(work).where(work.id == key, free).values(**values))
    return session.get(work, key) if getattr(result, "rowcount", 0) else None


def held(session: Session, work: type[Work], key: str, holder: str) -> Work | None:
    """The row as long as `holder` works on it; None when it was cancelled, removed, or taken over."""
    return session.scalar(select(work).where(work.id == key, work.state == JobState.WORKING, work.worker == holder))


def beat(session: Session, work: type[Job] | type[Export], key: str, holder: str) -> None:
    """A heartbeat of whoever holds the row."""
    session.execute(update(work).where(work.id == key, work.worker == holder).values(beat_at=now()))


def unheld(work: type[Job] | type[Export]) -> ColumnElement[bool]:
    """Rows that are worked on by a process without a heartbeat."""
    return (work.state == JobState.WORKING) & or_(work.beat_at.is_(None), work.beat_at < now() - LEASE)


def waiting(session: Session, work: type[Job] | type[Export]) -> list[str]:
    """Identifiers of the rows that wait, the oldest first."""
    return list(session.scalars(select(work.id).where(work.state == JobState.WAITING).order_by(work.created_at)))
