"""Heartbeats of the processes beside the server."""

from datetime import timedelta

from sqlalchemy import update
from sqlalchemy.orm import Session

from nuntius.store.heartbeats import FORGOTTEN, MISSING, ROLES, beat, last_seen, missing
from nuntius.store.models import Heartbeat, now


def aged(session: Session, process: str, by: timedelta) -> None:
    session.execute(update(Heartbeat).where(Heartbeat.process == process).values(seen_at=now() - by))


def test_a_role_is_missing_until_one_of_its_processes_is_alive(session: Session) -> None:
    assert missing(session) == list(ROLES)
    beat(session, "worker", "a")
    beat(session, "worker", "b")
    session.flush()
    aged(session, "a", MISSING + timedelta(seconds=1))
    assert missing(session) == ["listener"]
    aged(session, "b", MISSING + timedelta(seconds=1))
    assert missing(session) == list(ROLES)


def test_processes_that_are_long_gone_are_forgotten(session: Session) -> None:
    beat(session, "listener", "old")
    session.flush()
    aged(session, "old", FORGOTTEN + timedelta(seconds=1))
    beat(session, "worker", "new")
    assert list(last_seen(session)) == ["worker"]
