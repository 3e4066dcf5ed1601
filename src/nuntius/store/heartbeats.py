"""Heartbeats of the processes beside the server, so that it can say when one is missing."""

from datetime import datetime, timedelta

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from nuntius.store.models import Heartbeat, now

ROLES = ("worker", "listener")
BEAT = 5.0  # seconds between two heartbeats
MISSING = timedelta(seconds=20)  # without a heartbeat a process counts as missing
FORGOTTEN = timedelta(days=1)  # after which the row of a process that is gone is deleted


def beat(session: Session, role: str, process: str) -> None:
    """Notes that `process` is alive, and forgets those that have long been gone."""
    session.merge(Heartbeat(process=process, role=role, seen_at=now()))
    session.execute(delete(Heartbeat).where(Heartbeat.seen_at < now() - FORGOTTEN))


def last_seen(session: Session) -> dict[str, datetime]:
    """When a process of each role was last alive; roles never seen are left out."""
    rows = session.execute(select(Heartbeat.role, func.max(Heartbeat.seen_at)).group_by(Heartbeat.role))
    return dict(rows.tuples().all())


def missing(session: Session) -> list[str]:
    """The roles of which no process is alive."""
    seen = last_seen(session)
    return [role for role in ROLES if role not in seen or seen[role] < now() - MISSING]
