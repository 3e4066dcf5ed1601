"""What is made from a record: texts that follow the meeting, questions to put to it, words put right in it."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.followup.texts import FORMS, FollowupLine, Occasion, Piece, message
from nuntius.core.rights import Action
from nuntius.core.templates.suggest import suggest
from nuntius.service.asking import order_misheard
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import standing_state, written_minutes
from nuntius.store.models import Meeting
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, names_of
from nuntius.store.vocabulary import misheard, put_right_everywhere, refuse
from nuntius.web import setup_schemas as s
from nuntius.web.answers import answer
from nuntius.web.export_schemas import ExportOut
from nuntius.web.exports import put_export
from nuntius.web.record_schemas import ChangedOut
from nuntius.web.routes.setup import kept_questions
from nuntius.web.schemas import MeetingPath
from nuntius.web.security import installation, me
from nuntius.web.shapes import changed_out, line_out

api = APIBlueprint("uses", __name__, url_prefix="/api/meetings/<meeting_id>", abp_tags=[Tag(name="uses")])


@api.get("/texts/<form>", operation_id="getText", responses={200: s.TextOut})
def get_text(path: s.TextPath, query: s.MannerQuery) -> Response:
    """A message, checklist, brief or hand-out from the minutes as they stand."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        occasion, lines = _occasion(db, meeting), _lines(db, meeting)
    if path.form in FORMS:
        pieces = FORMS[path.form](occasion, lines)
    else:
        pieces = message(occasion, lines, query.manner, to_client=path.form == "client-message")
    return answer(s.TextOut(subject=f"{occasion.title}, {occasion.day}", pieces=[_piece(piece) for piece in pieces]))


def _piece(piece: Piece) -> s.PieceOut:
    return s.PieceOut(text=piece.text, lines=list(piece.lines))


def _occasion(db: Session, meeting: Meeting) -> Occasion:
    begun, sender = meeting.begun, me().person.label
    others = tuple(person.label for person in meeting.people if person.label != sender)
    return Occasion(meeting.title, f"{begun:%A} {begun.day} {begun:%B}", others, sender)


def _lines(db: Session, meeting: Meeting) -> list[FollowupLine]:
    """The lines as a person left them, without those that were thrown out. Raises Conflict before there are any."""
    names = names_of(db, meeting.id)
    rows = [row for row in written_minutes(db, meeting).lines if row.thrown_out is None]
    lines = [(line_out(row, names), standing_state(row)) for row in rows]
    return [FollowupLine(e.id, e.kind, e.text, tuple(e.owner), e.due, state, e.answer) for e, state in lines]


@api.get("/questions", operation_id="getQuestions", responses={200: s.QuestionsOut})
def get_questions(path: MeetingPath) -> Response:
    """Ready questions for this meeting: those of its template, then the kept ones."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        return answer(kept_questions(db, template_of(db, meeting).template.questions))


@api.get("/template", operation_id="suggestTemplate", responses={200: s.SuggestionOut})
def suggest_template(path: MeetingPath) -> Response:
    """Another template than the meeting's own, where title and talk point to one."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        found = suggest(meeting.title, load_transcript(db, meeting.id))
        chosen = template_of(db, meeting)
    if found is None or chosen.id is not None or found.kind == chosen.key:
        return answer(s.SuggestionOut(key=None, name=None, because=None))
    return answer(s.SuggestionOut(key=found.kind, name=found.kind, because=found.because))


@api.post("/misheard/search", operation_id="findMisheard", responses={200: ExportOut})
def find_misheard(path: MeetingPath) -> Response:
    """Looks for forms that may be a term of the vocabulary or the name of somebody, with all their places."""
    with installation().database.write() as db:
        made = order_misheard(db, me(), path.meeting_id)
    return put_export(made)


@api.post("/misheard", operation_id="putRight", responses={200: ChangedOut})
def put_right(path: MeetingPath, body: s.PutRight) -> Response:
    """Puts a term right everywhere in this meeting and remembers the form; or remembers that the form is right."""
    with installation().database.read() as db:  # looking through hours of talk must not hold up who writes
        found = misheard(db, get_meeting(db, me(), path.meeting_id), body.term, body.heard)
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.EDIT)
        if not body.right:
            refuse(db, me(), found)
            return answer(changed_out(db, meeting, me(), None))
        return answer(changed_out(db, meeting, me(), put_right_everywhere(db, me(), meeting, found)))
