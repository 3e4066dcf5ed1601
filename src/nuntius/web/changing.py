"""A change of a record, carried out and answered."""

from collections.abc import Callable

from flask import Response
from sqlalchemy.orm import Session

from nuntius.core.rights import Action
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Change, Meeting
from nuntius.web.answers import answer
from nuntius.web.security import installation, me
from nuntius.web.shapes import changed_out


def changed(meeting_id: str, change: Callable[[Session, Meeting], Change | None]) -> Response:
    """Carries out a change and answers with what it touched."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), meeting_id, Action.EDIT)
        return answer(changed_out(db, meeting, me(), change(db, meeting)))
