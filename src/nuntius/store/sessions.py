"""Browsers in which somebody is signed in: begun, seen, ended, each by itself."""

import hashlib
import secrets
from collections.abc import Collection
from datetime import datetime, timedelta

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from nuntius.store.errors import NotFound
from nuntius.store.models import SignInSession, User, now

SEEN = timedelta(minutes=1)  # between two notes of when a session was last used


def digest(token: str) -> str:
    """What is kept of a secret: its SHA-256; the secrets themselves have 256 random bits."""
    return hashlib.sha256(token.encode()).hexdigest()


def begin(session: Session, user: User, address: str, agent: str) -> str:
    """A new session of `user`; its token, for the cookie."""
    token = secrets.token_urlsafe(32)
    session.add(SignInSession(user_id=user.id, token_hash=digest(token), address=address[:64], agent=agent[:200]))
    return token


def find(session: Session, token: str, idle: timedelta, absolute: timedelta) -> tuple[User, SignInSession] | None:
    """Whose session this token is; None when it has ended, lain idle, or lasted too long, or the account has ended."""
    query = select(User, SignInSession).join(SignInSession, SignInSession.user_id == User.id)
    found = session.execute(query.where(SignInSession.token_hash == digest(token))).tuples().first()
    if found is None:
        return None
    user, row = found
    if user.ended_at is not None or row.seen_at < now() - idle or row.made_at < now() - absolute:
        return None
    return user, row


def lasting(session: Session, tokens: Collection[str], idle: timedelta, absolute: timedelta) -> set[str]:
    """Which of the tokens belong to sessions that last, by the rule of `find`; in one statement."""
    by_digest = {digest(token): token for token in tokens}
    query = (
        select(SignInSession.token_hash)
        .join(User, SignInSession.user_id == User.id)
        .where(SignInSession.token_hash.in_(by_digest), User.ended_at.is_(None))
        .where(SignInSession.seen_at >= now() - idle, SignInSession.made_at >= now() - absolute)
    )
    return {by_digest[each] for each in session.scalars(query)}


def is_due(row: SignInSession) -> bool:
    """Whether it should be noted again that a session is used."""
    return row.seen_at < now() - SEEN


def seen(session: Session, session_id: int, at: datetime) -> None:
    """Notes that a session is used."""
    session.execute(update(SignInSession).where(SignInSession.id == session_id).values(seen_at=at))


def sessions_of(session: Session, user: User) -> list[SignInSession]:
    """The sessions of an account, the one used last first."""
    query = select(SignInSession).where(SignInSession.user_id == user.id)
    return list(session.scalars(query.order_by(SignInSession.seen_at.desc(), SignInSession.id)))


def end(session: Session, user: User, session_id: int) -> None:
    """Signs one browser out. Raises NotFound."""
    row = session.get(SignInSession, session_id)
    if row is None or row.user_id != user.id:
        raise NotFound()
    session.delete(row)


def end_all(session: Session, user: User, but: int | None = None) -> None:
    """Signs all browsers out, but one."""
    session.execute(delete(SignInSession).where(SignInSession.user_id == user.id, SignInSession.id != (but or 0)))


def sweep(session: Session, absolute: timedelta) -> None:
    """Deletes the sessions that have lasted too long."""
    session.execute(delete(SignInSession).where(SignInSession.made_at < now() - absolute))
