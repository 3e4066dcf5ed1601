"""Accounts: the first one, signing in, and who a person is."""

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.store.errors import AccountExists, WrongPassword
from nuntius.store.models import Person, User, Workspace

_hasher = PasswordHasher()
_NOBODY = _hasher.hash("nobody has this password")  # so that unknown addresses take as long as known ones


def any_account(session: Session) -> bool:
    """Whether somebody can sign in at all."""
    return bool(session.scalar(select(func.count(User.id))))


def account_names(session: Session) -> dict[int | None, str]:
    """Names by account."""
    query = select(Person.user_id, Person.name).where(Person.user_id.is_not(None))
    return dict(session.execute(query).tuples().all())


def create_workspace(session: Session, name: str, time_zone: str = "UTC") -> Workspace:
    workspace = Workspace(name=name, time_zone=time_zone)
    session.add(workspace)
    session.flush()
    return workspace


def create_account(session: Session, workspace: Workspace, name: str, email: str, password: str) -> User:
    """An account and the person it belongs to. Raises AccountExists."""
    email = email.strip().lower()
    if session.scalar(select(User).where(User.email == email)):
        raise AccountExists()
    user = User(workspace_id=workspace.id, email=email, password_hash=_hasher.hash(password))
    session.add(user)
    session.flush()
    session.add(Person(workspace_id=workspace.id, name=name.strip(), user_id=user.id))
    session.flush()
    return user


def check_password(session: Session, email: str, password: str) -> User:
    """The account with this address and password. Raises WrongPassword."""
    user = session.scalar(select(User).where(User.email == email.strip().lower()))
    try:
        _hasher.verify(user.password_hash if user else _NOBODY, password)
    except Argon2Error as cause:
        raise WrongPassword() from cause
    if user is None:
        raise WrongPassword()
    return user


def person_of(session: Session, user: User) -> Person:
    """The person whose account this is."""
    return session.scalars(select(Person).where(Person.user_id == user.id)).one()
