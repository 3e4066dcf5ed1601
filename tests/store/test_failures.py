"""Failed sign-ins: growing pauses, and no door shut to everybody."""

from datetime import timedelta

import pytest
from sqlalchemy import update
from sqlalchemy.orm import Session

from nuntius.store import failures
from nuntius.store.errors import TooManyTries
from nuntius.store.failures import FORGOTTEN, RULES, Rule
from nuntius.store.models import SignInFailures, now

GUESSER, OWNER, ACCOUNT = "198.51.100.7", "192.0.2.1", "maren@saltmarsh.example"  # addresses of RFC 5737


def fail(session: Session, times: int, address: str = GUESSER, account: str = ACCOUNT) -> None:
    for _ in range(times):
        failures.count(session, account, address)
        session.flush()


def test_pauses_double_up_to_the_longest() -> None:
    rule = Rule(free=2, first=3.0, longest=20.0)
    assert [rule.pause(count) for count in range(8)] == [0, 0, 3, 6, 12, 20, 20, 20]
    assert rule.pause(10**6) == 20


def test_a_few_slips_cost_nothing_and_a_guesser_waits(session: Session) -> None:
    fail(session, RULES["both"].free - 1)
    failures.check(session, ACCOUNT, GUESSER)
    fail(session, 5)
    with pytest.raises(TooManyTries):
        failures.check(session, ACCOUNT.upper(), GUESSER)


def test_the_owner_of_an_account_waits_fifteen_seconds_at_most(session: Session) -> None:
    fail(session, 200)
    with pytest.raises(TooManyTries) as raised:
        failures.check(session, ACCOUNT, OWNER)
    assert raised.value.seconds <= RULES["account"].longest


def test_what_is_old_or_right_is_forgotten(session: Session) -> None:
    fail(session, 10)
    failures.forget(session, ACCOUNT, GUESSER)
    failures.check(session, ACCOUNT, GUESSER)
    fail(session, 10)
    session.execute(update(SignInFailures).values(last_at=now() - FORGOTTEN - timedelta(seconds=1)))
    session.expire_all()
    failures.check(session, ACCOUNT, GUESSER)
