"""Accounts: made for a person, signed in with, changed by whoever has it."""

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core import passwords
from nuntius.core.rights import Role
from nuntius.store.errors import AccountExists, HasAccount, WrongPassword
from nuntius.store.models import Person, User, Workspace
from nuntius.store.people import add_person, keep_an_administrator

_hasher = PasswordHasher()
_NOBODY = _hasher.hash("nobody has this password")  # so that unknown addresses take as long as known ones


def any_account(session: Session) -> bool:
    """Whether somebody can sign in at all."""
    return session.scalar(select(User.id).limit(1)) is not None


def account_names(session: Session) -> dict[int | None, str]:
    """Names by account."""
    people = session.scalars(select(Person).where(Person.user_id.is_not(None)))
    return {person.user_id: person.label for person in people}


def create_workspace(session: Session, name: str, time_zone: str = "UTC") -> Workspace:
    workspace = Workspace(name=name, time_zone=time_zone)
    session.add(workspace)
    session.flush()
    return workspace


def create_account(
    session: Session, workspace: Workspace, name: str, email: str, password: str, role: Role = Role.MEMBER
) -> User:
    """A new person and an account for them. Raises AccountExists, NameTaken, PasswordWeak."""
    return give_account(session, add_person(session, workspace.id, name), email, password, role)


def give_account(session: Session, person: Person, email: str, password: str, role: Role) -> User:
    """An account for somebody who is known. Raises AccountExists, HasAccount, PasswordWeak."""
    if person.user_id is not None:
        raise HasAccount(person.label)
    email = free_address(session, email)
    passwords.check_password(password, [person.name, email])
    user = User(workspace_id=person.workspace_id, email=email, password_hash=_hasher.hash(password), role=role)
    session.add(user)
    session.flush()
    person.user_id = user.id
    session.flush()
    session.refresh(user)
    return user


def free_address(session: Session, email: str, but: int | None = None) -> str:
    """An address in the form in which it is kept, that no other account has. Raises AccountExists."""
    email = email.strip().lower()
    holder = session.scalar(select(User.id).where(User.email == email))
    if holder not in (None, but):
        raise AccountExists()
    return email


def check_password(session: Session, email: str, password: str) -> User:
    """The account with this address and password. Raises WrongPassword, also for an account that has ended."""
    user = session.scalar(select(User).where(User.email == email.strip().lower()))
    try:
        _hasher.verify(user.password_hash if user else _NOBODY, password)
    except Argon2Error as cause:
        raise WrongPassword() from cause
    if user is None or user.ended_at is not None:
        raise WrongPassword()
    return user


def confirm_password(user: User, password: str) -> None:
    """That whoever asks knows the account's password. Raises WrongPassword."""
    try:
        _hasher.verify(user.password_hash, password)
    except Argon2Error as cause:
        raise WrongPassword("This is not your present password.") from cause


def change_password(user: User, password: str) -> None:
    """Raises PasswordWeak."""
    passwords.check_password(password, [user.person.name, user.email])
    user.password_hash = _hasher.hash(password)


def give_role(session: Session, user: User, role: Role) -> None:
    """Raises LastAdministrator."""
    if user.role == Role.ADMINISTRATOR and role is not Role.ADMINISTRATOR:
        keep_an_administrator(session, user)
    user.role = role


def accounts_of(session: Session, workspace_id: int) -> dict[int, User]:
    """Accounts that have not ended, by their numbers."""
    query = select(User).where(User.workspace_id == workspace_id, User.ended_at.is_(None))
    return {user.id: user for user in session.scalars(query)}
