"""People of a workspace: found by what they are called, distinguished, removed."""

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.people import clean_name, label, name_key
from nuntius.store.errors import LastAdministrator, NameAmbiguous, NameTaken, NotFound
from nuntius.store.models import Person, SignInSession, User, now


def people_of(session: Session, workspace_id: int) -> list[Person]:
    """Everybody the workspace knows, by name; without those who were removed."""
    query = select(Person).where(Person.workspace_id == workspace_id, Person.removed_at.is_(None))
    return list(session.scalars(query.order_by(func.lower(Person.name), Person.distinction, Person.id)))


def get_person(session: Session, user: User, person_id: int) -> Person:
    """One person of `user`'s workspace. Raises NotFound."""
    person = session.get(Person, person_id)
    if person is None or person.workspace_id != user.workspace_id or person.removed_at is not None:
        raise NotFound()
    return person


def named_person(session: Session, workspace_id: int, name: str, add: bool = True) -> Person:
    """The person shown under this name, made if there is none.

    Names are compared without regard to case, width and invisible characters. Where several have the name, it must
    come with the word that tells them apart. Raises NameAmbiguous, NameMissing, NotFound (nobody, and `add` is False).
    """
    name = clean_name(name)
    found = _called(session, workspace_id, name)
    if len(found) > 1:
        raise NameAmbiguous(name, [person.label for person in found])
    if found:
        return found[0]
    if not add:
        raise NotFound()
    return add_person(session, workspace_id, name)


def first_named(session: Session, workspace_id: int, name: str) -> Person:
    """As `named_person`, but of several of one name the one known longest: for names that come in a file."""
    try:
        return named_person(session, workspace_id, name)
    except NameAmbiguous:
        return _called(session, workspace_id, clean_name(name))[0]


def add_person(session: Session, workspace_id: int, name: str, distinction: str = "") -> Person:
    """Somebody new. Raises NameTaken where somebody is shown under this very name already, NameMissing."""
    person = Person(workspace_id=workspace_id)
    call(session, person, name, distinction)
    session.add(person)
    session.flush()
    return person


def call(session: Session, person: Person, name: str, distinction: str) -> None:
    """Gives a person a name and the word that tells them from others of it. Raises NameTaken, NameMissing."""
    name, distinction = clean_name(name), " ".join(distinction.split())
    others = [each for each in _same_name(session, person.workspace_id, name) if each.id != person.id]
    if any(name_key(each.label) == name_key(label(name, distinction)) for each in others):
        raise NameTaken(label(name, distinction))
    person.name, person.name_key, person.distinction = name, name_key(name), distinction


def remove_person(session: Session, person: Person) -> None:
    """Takes somebody out of what is offered, and ends their account; what they said and did stays.

    Raises LastAdministrator.
    """
    user = session.get(User, person.user_id) if person.user_id else None
    if user is not None and user.ended_at is None:
        if user.role == "administrator":
            keep_an_administrator(session, user)
        user.ended_at = now()
        for each in session.scalars(select(SignInSession).where(SignInSession.user_id == user.id)):
            session.delete(each)
    person.removed_at = now()


def keep_an_administrator(session: Session, user: User) -> None:
    """Raises LastAdministrator where `user` is the only one who administers the workspace."""
    others = select(func.count(User.id)).where(
        User.workspace_id == user.workspace_id,
        User.role == "administrator",
        User.ended_at.is_(None),
        User.id != user.id,
    )
    if not session.scalar(others):
        raise LastAdministrator()


def _same_name(session: Session, workspace_id: int, name: str) -> list[Person]:
    query = select(Person).where(Person.workspace_id == workspace_id, Person.removed_at.is_(None))
    return list(session.scalars(query.where(Person.name_key == name_key(name)).order_by(Person.id)))


def _called(session: Session, workspace_id: int, name: str) -> list[Person]:
    """The one shown under exactly this name; else all who have it."""
    key = name_key(name)
    query = select(Person).where(Person.workspace_id == workspace_id, Person.removed_at.is_(None))
    with_word = query.where(Person.distinction != "", func.instr(key, Person.name_key + " (") == 1)
    same = _same_name(session, workspace_id, name)
    exact = [each for each in (*same, *session.scalars(with_word)) if name_key(each.label) == key]
    return exact or same
