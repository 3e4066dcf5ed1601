"""Who did what, for administrators."""

from sqlalchemy.orm import Session

from nuntius.store import activity
from nuntius.store.activity import PAGE, What
from nuntius.store.models import User
from tests.help import MAREN


def test_pages_come_newest_first_and_meet(session: Session, maren: User) -> None:
    for number in range(PAGE + 5):
        activity.note(session, maren, What.EXPORTED, f"meeting {number}")
    session.flush()
    first = activity.page(session, maren.workspace_id)
    rest = activity.page(session, maren.workspace_id, before=first[-1].id)
    assert [row.about for row in [*first, *rest]] == [f"meeting {n}" for n in reversed(range(PAGE + 5))]
    assert activity.page(session, maren.workspace_id + 1) == []


def test_a_failed_sign_in_is_noted_for_addresses_that_have_an_account_alone(session: Session, maren: User) -> None:
    activity.note_failure(session, f" {MAREN.upper()} ", "192.0.2.1")
    activity.note_failure(session, "nobody@saltmarsh.example", "192.0.2.1")
    session.flush()
    assert [(row.what, row.by) for row in activity.page(session, maren.workspace_id)] == [
        (What.SIGN_IN_FAILED, "Maren Tull")
    ]


def test_what_is_too_long_is_cut(session: Session, maren: User) -> None:
    activity.note(session, maren, What.INVITED, "x" * 1000, "y" * 1000)
    session.flush()
    (row,) = activity.page(session, maren.workspace_id)
    assert (len(row.about), len(row.address)) == (400, 64)
