"""How far the lines of each kind were right."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import LineKind, ThrowOutReason
from nuntius.store.models import LineRow, User
from nuntius.store.trust import Trust, trust_of
from tests.filling import fill


def test_each_line_counts_once_by_what_was_done_to_it_last(session: Session, maren: User) -> None:
    fill(session, maren, 0, 1, lines=7)
    session.flush()
    lines = list(session.scalars(select(LineRow).order_by(LineRow.number)))
    lines[0].checked_by = maren.id
    lines[1].checked_by, lines[1].person_text = maren.id, "Paint it green."
    lines[2].thrown_out, lines[2].checked_by = ThrowOutReason.TWICE, maren.id
    session.flush()
    actions, points = trust_of(session, maren)
    assert (actions.kind, actions.lines, actions.confirmed, actions.corrected) == (LineKind.ACTION, 5, 1, 1)
    assert (actions.thrown_out, actions.reasons) == (1, {ThrowOutReason.TWICE: 1})
    assert points == Trust(LineKind.KEY_POINT, 2)


def test_meetings_of_others_do_not_count(session: Session, maren: User, tobias: User) -> None:
    fill(session, maren, 0, 1, lines=3)
    assert trust_of(session, tobias) == []
