"""Failed sign-ins: growing pauses for who guesses, and never a door shut to everybody.

They are counted three ways. By account and address together the pauses begin early and grow long: that is somebody
who guesses one password. By address alone they begin later: somebody who guesses many. By account alone they stay
short: many addresses may guess at one account, and whoever owns it must still get in.
"""

from dataclasses import dataclass
from datetime import timedelta

from sqlalchemy import delete
from sqlalchemy.orm import Session

from nuntius.store.errors import TooManyTries
from nuntius.store.models import SignInFailures, now

FORGOTTEN = timedelta(hours=24)  # after the last failure the count begins again


@dataclass(frozen=True, slots=True)
class Rule:
    """`free` failures cost nothing; then the pause doubles from `first` seconds up to `longest`."""

    free: int
    first: float
    longest: float

    def pause(self, failures: int) -> float:
        """Seconds to wait after so many failures in a row."""
        beyond = failures - self.free
        return 0.0 if beyond < 0 else min(self.longest, self.first * 2 ** min(beyond, 20))


RULES = {"both": Rule(5, 2.0, 900.0), "address": Rule(30, 2.0, 900.0), "account": Rule(10, 1.0, 15.0)}


def _keys(email: str, address: str) -> dict[str, str]:
    account = email.strip().lower()[:320]
    return {"both": f"both {address} {account}", "address": f"address {address}", "account": f"account {account}"}


def check(session: Session, email: str, address: str) -> None:
    """Raises TooManyTries while a pause lasts, with its seconds."""
    wait = max((_left(session, kind, key) for kind, key in _keys(email, address).items()), default=0.0)
    if wait > 0:
        raise TooManyTries(wait)


def _left(session: Session, kind: str, key: str) -> float:
    row = session.get(SignInFailures, key)
    if row is None or row.last_at < now() - FORGOTTEN:
        return 0.0
    return RULES[kind].pause(row.count) - (now() - row.last_at).total_seconds()


def count(session: Session, email: str, address: str) -> None:
    """Counts a failure, and forgets the counts that are old."""
    session.execute(delete(SignInFailures).where(SignInFailures.last_at < now() - FORGOTTEN))
    for key in _keys(email, address).values():
        row = session.get(SignInFailures, key) or SignInFailures(key=key, count=0)
        row.count, row.last_at = row.count + 1, now()
        session.add(row)


def forget(session: Session, email: str, address: str) -> None:
    """After a success nothing is left against this account from this address, nor against the account."""
    keys = _keys(email, address)
    session.execute(delete(SignInFailures).where(SignInFailures.key.in_((keys["both"], keys["account"]))))
