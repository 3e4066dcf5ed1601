"""Messages that wait to be sent."""

from datetime import timedelta

import pytest
from sqlalchemy.orm import Session

from nuntius.store import mail
from nuntius.store.mail import PAUSES
from nuntius.store.models import Mail, now


@pytest.fixture
def message(session: Session) -> Mail:
    mail.put(session, "ines@saltmarsh.example", "An invitation", "Open this link.")
    session.flush()
    (row,) = mail.due(session)
    return row


def test_a_message_that_was_sent_loses_its_text(session: Session, message: Mail) -> None:
    mail.sent(session, message.id)
    assert (message.state, message.text) == ("sent", "")
    assert mail.due(session) == []


def test_pauses_grow_and_then_it_has_failed(session: Session, message: Mail) -> None:
    waited = []
    while message.state == "waiting":
        mail.refused(session, message.id, "the server is away", for_good=False)
        waited.append(round((message.due_at - now()) / timedelta(seconds=1)))
        assert len(waited) <= len(PAUSES) + 1
    assert waited[: len(PAUSES)] == list(PAUSES)
    assert (message.state, message.text, message.error) == ("failed", "", "the server is away")


def test_what_a_server_never_takes_is_not_tried_again(session: Session, message: Mail) -> None:
    mail.refused(session, message.id, "no such mailbox", for_good=True)
    assert message.state == "failed" and mail.due(session) == []
