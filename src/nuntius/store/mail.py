"""Messages that are to be sent; the worker sends them, again and again while the mail server is away."""

from datetime import timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.models import Mail, now

PAUSES = (10, 60, 300, 1800, 7200, 21600)  # seconds before another try; after the last one it has failed


def put(session: Session, recipient: str, subject: str, text: str) -> None:
    """Lets a message be sent."""
    session.add(Mail(recipient=recipient, subject=subject, text=text))


def due(session: Session) -> list[Mail]:
    """Messages whose time has come, the oldest first."""
    query = select(Mail).where(Mail.state == "waiting", Mail.due_at <= now())
    return list(session.scalars(query.order_by(Mail.id).limit(50)))


def sent(session: Session, mail_id: int) -> None:
    """Notes that a message has left; its text goes."""
    row = session.get_one(Mail, mail_id)
    row.state, row.text, row.error = "sent", "", ""


def refused(session: Session, mail_id: int, why: str, for_good: bool) -> None:
    """Notes why a message could not be sent; it is tried again unless the server will never take it."""
    row = session.get_one(Mail, mail_id)
    row.tries, row.error = row.tries + 1, why[:300]
    if for_good or row.tries > len(PAUSES):
        row.state, row.text = "failed", ""
    else:
        row.due_at = now() + timedelta(seconds=PAUSES[row.tries - 1])
