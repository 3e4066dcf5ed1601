"""Links that are good for one use: to become a person's account, or to choose a new password."""

import secrets
from datetime import timedelta
from enum import StrEnum

from sqlalchemy import select, update
from sqlalchemy.orm import Session

from nuntius.core.rights import Role
from nuntius.store.errors import HasAccount, LinkSpent
from nuntius.store.models import AccessToken, Person, User, now
from nuntius.store.sessions import digest


class Purpose(StrEnum):
    """What a link lets one do."""

    INVITATION = "invitation"
    PASSWORD = "password"


LASTS = {Purpose.INVITATION: timedelta(days=7), Purpose.PASSWORD: timedelta(hours=2)}


def invite(session: Session, by: User, person: Person, email: str, role: Role) -> str:
    """The token of a link with which somebody becomes the account of `person`; earlier ones end. Raises HasAccount."""
    if person.user_id is not None:
        raise HasAccount(person.label)
    return _new(session, Purpose.INVITATION, person, email.strip().lower(), role, by)


def forgotten_password(session: Session, user: User) -> str:
    """The token of a link with which `user` chooses a new password; earlier ones end."""
    return _new(session, Purpose.PASSWORD, user.person, user.email, Role(user.role), None)


def _new(session: Session, purpose: Purpose, person: Person, email: str, role: Role, by: User | None) -> str:
    end_links(session, person, purpose)
    token = secrets.token_urlsafe(32)
    session.add(
        AccessToken(
            purpose=purpose,
            token_hash=digest(token),
            person_id=person.id,
            email=email,
            role=role,
            made_by=by.id if by else None,
            expires_at=now() + LASTS[purpose],
        )
    )
    session.flush()
    return token


def find(session: Session, purpose: Purpose, token: str) -> tuple[AccessToken, Person]:
    """The link of this token, with its person. Raises LinkSpent when it was used, withdrawn, too old, or never there."""
    query = select(AccessToken, Person).join(Person, Person.id == AccessToken.person_id)
    found = session.execute(query.where(AccessToken.token_hash == digest(token))).tuples().first()
    if found is None or found[0].purpose != purpose or found[0].used_at is not None or found[0].expires_at < now():
        raise LinkSpent()
    if found[1].removed_at is not None:
        raise LinkSpent()
    return found


def spend(link: AccessToken) -> None:
    """Uses a link up."""
    link.used_at = now()


def end_links(session: Session, person: Person, purpose: Purpose) -> None:
    """Withdraws the links of a person that were not used."""
    query = update(AccessToken).where(AccessToken.person_id == person.id, AccessToken.purpose == purpose)
    session.execute(query.where(AccessToken.used_at.is_(None)).values(used_at=now()))


def invited(session: Session, workspace_id: int) -> dict[int, AccessToken]:
    """Invitations that can still be used, by person."""
    query = select(AccessToken).join(Person, Person.id == AccessToken.person_id)
    open_ = (AccessToken.purpose == Purpose.INVITATION, AccessToken.used_at.is_(None), AccessToken.expires_at > now())
    return {link.person_id: link for link in session.scalars(query.where(Person.workspace_id == workspace_id, *open_))}
