"""Templates of a workspace, and which one a meeting has."""

from typing import Any

import pytest
from sqlalchemy.orm import Session

from nuntius.core.templates.shipped import SHIPPED
from nuntius.store.errors import Conflict, NotAllowed, NotFound
from nuntius.store.models import Meeting, User
from nuntius.store.templates import choices, choose, remove_template, save_template, template_of

BODY: dict[str, Any] = {"name": "Board", "sections": [{"title": "Agreed", "kinds": ["decision"]}]}


def test_the_shipped_ones_come_first_then_the_own_ones_by_name(session: Session, maren: User) -> None:
    for name in ("crew", "Board"):
        save_template(session, maren, None, BODY | {"name": name})
    names = [each.template.name for each in choices(session, maren.workspace_id)]
    assert names == [*(each.name for each in SHIPPED.values()), "Board", "crew"]


def test_a_name_is_taken_once_whatever_its_capitals(session: Session, maren: User) -> None:
    save_template(session, maren, None, BODY)
    with pytest.raises(Conflict, match="another name"):
        save_template(session, maren, None, BODY | {"name": "BOARD"})


def test_a_meeting_goes_back_to_the_one_of_its_kind(session: Session, maren: User, meeting: Meeting) -> None:
    own = save_template(session, maren, None, BODY)
    choose(session, meeting, own.key)
    assert template_of(session, meeting).template.name == "Board"
    remove_template(session, maren, own.id or 0)
    session.flush()
    assert template_of(session, meeting).template == SHIPPED["committee"]
    with pytest.raises(NotFound):
        choose(session, meeting, own.key)


def test_one_of_others_is_theirs_to_change_and_the_administrators(session: Session, maren: User, tobias: User) -> None:
    hers, his = save_template(session, maren, None, BODY), save_template(session, tobias, None, BODY | {"name": "Crew"})
    with pytest.raises(NotAllowed):
        save_template(session, tobias, hers.id, BODY)
    with pytest.raises(NotAllowed):
        remove_template(session, tobias, hers.id or 0)
    assert save_template(session, maren, his.id, BODY | {"name": "Crew, shorter"}).template.name == "Crew, shorter"
