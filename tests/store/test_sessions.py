"""Browsers in which somebody is signed in."""

from datetime import timedelta

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy.orm import Session

from nuntius.store import sessions
from nuntius.store.errors import NotFound
from nuntius.store.models import SignInSession, User, now

IDLE, ABSOLUTE = timedelta(hours=72), timedelta(days=90)


def begun(session: Session, user: User) -> tuple[str, SignInSession]:
    token = sessions.begin(session, user, "127.0.0.1", "A browser")
    session.flush()
    return token, next(row for row in sessions.sessions_of(session, user) if row.token_hash == sessions.digest(token))


def test_a_token_finds_its_session_and_another_none(session: Session, maren: User) -> None:
    token, row = begun(session, maren)
    assert sessions.find(session, token, IDLE, ABSOLUTE) == (maren, row)
    assert sessions.find(session, f"{token}x", IDLE, ABSOLUTE) is None
    assert token not in row.token_hash


@settings(suppress_health_check=[HealthCheck.function_scoped_fixture], max_examples=40)
@given(idle=st.integers(-200, 200), age=st.integers(-200, 200), ended=st.booleans())
def test_the_rule_for_one_and_for_many_is_the_same(
    session: Session, maren: User, idle: int, age: int, ended: bool
) -> None:
    token, row = begun(session, maren)
    row.seen_at, row.made_at = now() - IDLE - timedelta(seconds=idle), now() - ABSOLUTE - timedelta(seconds=age)
    maren.ended_at = now() if ended else None
    session.flush()
    found = sessions.find(session, token, IDLE, ABSOLUTE) is not None
    assert sessions.lasting(session, [token, "none"], IDLE, ABSOLUTE) == ({token} if found else set())
    assert found == (idle < 0 and age < 0 and not ended) or 0 in (idle, age)
    maren.ended_at = None


def test_nobody_ends_a_session_of_somebody_else(session: Session, maren: User, tobias: User) -> None:
    _, row = begun(session, maren)
    with pytest.raises(NotFound):
        sessions.end(session, tobias, row.id)
    sessions.end(session, maren, row.id)
    session.flush()
    assert sessions.sessions_of(session, maren) == []


def test_all_others_are_ended_and_what_has_lasted_too_long_is_swept(session: Session, maren: User) -> None:
    rows = [begun(session, maren)[1] for _ in range(3)]
    sessions.end_all(session, maren, but=rows[1].id)
    assert sessions.sessions_of(session, maren) == [rows[1]]
    rows[1].made_at = now() - ABSOLUTE - timedelta(seconds=1)
    session.flush()
    sessions.sweep(session, ABSOLUTE)
    assert sessions.sessions_of(session, maren) == []


def test_use_is_noted_once_a_minute(session: Session, maren: User) -> None:
    _, row = begun(session, maren)
    assert not sessions.is_due(row)
    sessions.seen(session, row.id, now() - sessions.SEEN - timedelta(seconds=1))
    session.refresh(row)
    assert sessions.is_due(row)
