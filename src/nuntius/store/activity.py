"""Who did what, for administrators: accounts, rights, what left and what was removed; never a word of a meeting."""

from enum import StrEnum

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.models import Activity, User


class What(StrEnum):
    """What is written down."""

    SIGNED_IN = "signed in"
    SIGN_IN_FAILED = "sign-in failed"
    SIGNED_OUT = "signed out"
    INVITED = "invited"
    INVITATION_WITHDRAWN = "withdrew an invitation"
    ACCOUNT_MADE = "account made"
    ROLE_GIVEN = "gave a role"
    PERSON_ADDED = "added a person"
    PERSON_CHANGED = "changed a person"
    PERSON_REMOVED = "removed a person"
    PEOPLE_MERGED = "merged people"
    MERGING_UNDONE = "took a merging back"
    PASSWORD_CHANGED = "changed the password"
    PASSWORD_FORGOTTEN = "asked for a new password"
    ADDRESS_CHANGED = "changed the address"
    SECOND_FACTOR_ON = "turned the second factor on"
    SECOND_FACTOR_OFF = "turned the second factor off"
    EXPORTED = "took a file away"
    MEETING_REMOVED = "removed a meeting"
    STRETCH_REMOVED = "removed a stretch"
    TAKEN_OFF = "took somebody off a meeting"
    WORKSPACE_CHANGED = "changed the workspace"


PAGE = 50  # rows of one page


def note(session: Session, by: User, what: What, about: str = "", address: str = "") -> None:
    """Writes down what an account did; `about` names people, accounts and meetings by number, never their titles."""
    row = Activity(workspace_id=by.workspace_id, by=by.person.label, what=what, about=about[:400], address=address[:64])
    session.add(row)


def page(session: Session, workspace_id: int, before: int | None = None) -> list[Activity]:
    """The newest activity, or what comes before the row `before`."""
    query = select(Activity).where(Activity.workspace_id == workspace_id)
    if before is not None:
        query = query.where(Activity.id < before)
    return list(session.scalars(query.order_by(Activity.id.desc()).limit(PAGE)))


def note_failure(session: Session, email: str, address: str) -> None:
    """Writes down a failed sign-in where there is an account of this address; other addresses are nobody's."""
    user = session.scalar(select(User).where(User.email == email.strip().lower()))
    if user is not None:
        note(session, user, What.SIGN_IN_FAILED, address=address)
