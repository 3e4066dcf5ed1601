"""Questions to a record or to a meeting that runs, briefs, and searches for misheard names: asked by a person, answered by the worker."""

import json
from collections.abc import Callable
from dataclasses import asdict, dataclass
from typing import Any

from sqlalchemy.orm import Session

from nuntius.core.exports import ExportKind
from nuntius.core.inquiry.from_minutes import answered
from nuntius.core.inquiry.inquire import turns_within
from nuntius.core.inquiry.quoted import QuotedBrief, QuotedReply, quoted_brief, quoted_reply
from nuntius.core.live.brief import brief
from nuntius.core.minutes.line import Line
from nuntius.core.vocabulary import QuotedMishearing, mishearings, quoted
from nuntius.store.exports import create_export
from nuntius.store.installation import Installation
from nuntius.store.live import live_so_far
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import standing_lines
from nuntius.store.models import Export, User
from nuntius.store.notes import facts_of
from nuntius.store.rooms import get_room
from nuntius.store.transcripts import load_transcript
from nuntius.store.vocabulary import listened_for


@dataclass(frozen=True, slots=True)
class Question:
    """Put to everything, or to what one voice said, or to a stretch of it in seconds."""

    text: str
    speaker: str | None = None
    start: float | None = None
    end: float | None = None


@dataclass(frozen=True, slots=True)
class Misheard:
    """All that may be misheard in a record."""

    found: tuple[QuotedMishearing, ...]


def order_answer(session: Session, user: User, meeting_id: str, question: Question) -> Export:
    """Asks a record. Raises NotFound, TooManyExports."""
    meeting = get_meeting(session, user, meeting_id)
    return create_export(session, user, ExportKind.ANSWER, meeting.title, [meeting], arguments=asdict(question))


def _question(export: Export) -> Question:
    """The question as it was put, from the row."""
    kept: dict[str, Any] = export.arguments or {}
    return Question(**kept)


def order_live_answer(session: Session, user: User, meeting_id: str, question: Question) -> Export:
    """Asks what has been said so far. Raises NotFound, TooManyExports."""
    meeting, _ = get_room(session, user, meeting_id)
    return create_export(session, user, ExportKind.LIVE_ANSWER, meeting.title, [meeting], arguments=asdict(question))


def order_brief(session: Session, user: User, meeting_id: str) -> Export:
    """Asks what has happened so far. Raises NotFound, TooManyExports."""
    meeting, _ = get_room(session, user, meeting_id)
    return create_export(session, user, ExportKind.BRIEF, meeting.title, [meeting])


def order_misheard(session: Session, user: User, meeting_id: str) -> Export:
    """Has a record looked through for misheard names and terms. Raises NotFound, TooManyExports."""
    meeting = get_meeting(session, user, meeting_id)
    return create_export(session, user, ExportKind.MISHEARD, meeting.title, [meeting])


# --- in the worker ---


def read_answer(store: Installation, session: Session, user: User, export: Export) -> Callable[[], bytes]:
    """Reads what an answer is made from; what makes it, as JSON, when no transaction is open any more."""
    kind, reader, meeting_id = ExportKind(export.kind), user.person.label, export.meetings[0].id
    if kind in (ExportKind.ANSWER, ExportKind.MISHEARD):
        meeting = get_meeting(session, user, meeting_id)
        transcript = load_transcript(session, meeting_id)
    else:
        meeting, room = get_room(session, user, meeting_id)
        transcript = live_so_far(session, room)
    if kind == ExportKind.MISHEARD:
        terms = listened_for(session, meeting)
        return lambda: _json(Misheard(tuple(quoted(each, transcript) for each in mishearings(transcript, terms))))
    facts = facts_of(session, meeting)
    if kind == ExportKind.BRIEF:
        return lambda: _json(quoted_brief(brief(transcript, facts, reader), transcript))
    question = _question(export)

    def lines() -> list[Line]:  # read only for a question about the minutes
        with store.database.read() as session:
            return standing_lines(session, meeting_id, transcript)

    def answer() -> bytes:
        within = turns_within(transcript, question.speaker, question.start, question.end)
        stand = lines if kind == ExportKind.ANSWER else None
        return _json(quoted_reply(answered(transcript, facts, question.text, within, reader, stand), transcript))

    return answer


def _json(made: QuotedReply | QuotedBrief | Misheard) -> bytes:
    return json.dumps(asdict(made), ensure_ascii=False).encode()
