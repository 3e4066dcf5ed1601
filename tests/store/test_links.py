"""Links that are good for one use."""

from datetime import timedelta

import pytest
from sqlalchemy.orm import Session

from nuntius.core.rights import Role
from nuntius.store import links
from nuntius.store.errors import HasAccount, LinkSpent
from nuntius.store.links import LASTS, Purpose
from nuntius.store.models import AccessToken, Meeting, Person, User, now


@pytest.fixture
def ines(meeting: Meeting) -> Person:
    return next(person for person in meeting.people if person.name == "Ines Carvell")


def invited(session: Session, maren: User, ines: Person) -> str:
    return links.invite(session, maren, ines, " Ines@Saltmarsh.example ", Role.MEMBER)


def test_an_invitation_leads_to_its_person_once(session: Session, maren: User, ines: Person) -> None:
    token = invited(session, maren, ines)
    link, person = links.find(session, Purpose.INVITATION, token)
    assert (person, link.email, link.role) == (ines, "ines@saltmarsh.example", Role.MEMBER)
    links.spend(link)
    with pytest.raises(LinkSpent):
        links.find(session, Purpose.INVITATION, token)


def test_a_link_is_good_for_its_own_purpose_alone(session: Session, maren: User, ines: Person) -> None:
    with pytest.raises(LinkSpent):
        links.find(session, Purpose.PASSWORD, invited(session, maren, ines))


def test_a_later_invitation_ends_the_earlier_one(session: Session, maren: User, ines: Person) -> None:
    first, second = invited(session, maren, ines), invited(session, maren, ines)
    with pytest.raises(LinkSpent):
        links.find(session, Purpose.INVITATION, first)
    assert list(links.invited(session, maren.workspace_id)) == [ines.id]
    assert links.find(session, Purpose.INVITATION, second)[1] is ines


@pytest.mark.parametrize("purpose", Purpose)
def test_a_link_ends_by_the_clock(session: Session, maren: User, ines: Person, purpose: Purpose) -> None:
    invitation = purpose == Purpose.INVITATION
    token = invited(session, maren, ines) if invitation else links.forgotten_password(session, maren)
    link, _ = links.find(session, purpose, token)
    assert timedelta(0) < LASTS[purpose] - (link.expires_at - now()) < timedelta(minutes=1)
    link.expires_at = now() - timedelta(seconds=1)
    session.flush()
    with pytest.raises(LinkSpent):
        links.find(session, purpose, token)


def test_somebody_with_an_account_is_not_invited(session: Session, maren: User) -> None:
    with pytest.raises(HasAccount):
        links.invite(session, maren, maren.person, "m@saltmarsh.example", Role.MEMBER)


def test_only_hashes_are_kept(session: Session, maren: User, ines: Person) -> None:
    token = invited(session, maren, ines)
    assert token not in str([vars(row) for row in session.query(AccessToken)])
