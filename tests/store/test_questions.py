"""Ready questions that a workspace keeps."""

import pytest
from sqlalchemy.orm import Session

from nuntius.store import questions
from nuntius.store.errors import Conflict, NotAllowed, NotFound
from nuntius.store.models import User
from nuntius.store.questions import LONGEST, keep_question, questions_of, remove_question


def test_a_question_is_kept_once_in_one_line(session: Session, maren: User) -> None:
    for text in ("What was  decided\nabout the slipway?", "WHAT WAS DECIDED ABOUT THE SLIPWAY?"):
        keep_question(session, maren, text)
    assert [row.text for row in questions_of(session, maren.workspace_id)] == ["What was decided about the slipway?"]


@pytest.mark.parametrize("text", ["", "  \n ", "x" * (LONGEST + 1)])
def test_one_that_is_empty_or_too_long_is_refused(session: Session, maren: User, text: str) -> None:
    with pytest.raises(Conflict, match="between one and 500"):
        keep_question(session, maren, text)


def test_there_is_a_limit(session: Session, maren: User, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(questions, "MOST", 1)
    keep_question(session, maren, "Who was against?")
    with pytest.raises(Conflict, match="Remove one first"):
        keep_question(session, maren, "Who was for it?")


def test_one_is_removed_by_whoever_kept_it_or_an_administrator(session: Session, maren: User, tobias: User) -> None:
    keep_question(session, maren, "Who was against?")
    keep_question(session, tobias, "Who was for it?")
    hers, his = questions_of(session, maren.workspace_id)
    with pytest.raises(NotAllowed):
        remove_question(session, tobias, hers.id)
    for row in (his, hers):
        remove_question(session, maren, row.id)
    session.flush()
    with pytest.raises(NotFound):
        remove_question(session, maren, hers.id)
