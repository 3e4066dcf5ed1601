"""Ready questions that a workspace keeps, beside those of the templates."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import ReadyQuestion, User
from nuntius.store.rights import check_shared

MOST = 200
LONGEST = 500  # characters


def questions_of(session: Session, workspace_id: int) -> list[ReadyQuestion]:
    """The kept questions, the oldest first."""
    query = select(ReadyQuestion).where(ReadyQuestion.workspace_id == workspace_id).order_by(ReadyQuestion.id)
    return list(session.scalars(query))


def keep_question(session: Session, user: User, text: str) -> None:
    """Keeps a question; one that is kept already is not kept twice. Raises Conflict when empty, too long or too many."""
    text = " ".join(text.split())
    kept = questions_of(session, user.workspace_id)
    if not text or len(text) > LONGEST:
        raise Conflict(f"A question has between one and {LONGEST} characters.")
    if any(each.text.lower() == text.lower() for each in kept):
        return
    if len(kept) >= MOST:
        raise Conflict(f"{MOST} questions are kept already. Remove one first.")
    session.add(ReadyQuestion(workspace_id=user.workspace_id, text=text, made_by=user.id))
    session.flush()


def remove_question(session: Session, user: User, question_id: int) -> None:
    """Takes a kept question away. Raises NotFound, NotAllowed for one of others."""
    row = session.get(ReadyQuestion, question_id)
    if row is None:
        raise NotFound()
    check_shared(user, row.workspace_id, row.made_by)
    session.delete(row)
