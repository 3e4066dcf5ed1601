"""Notes and marks on a record, at any moment of it, also by those who were not there."""

from collections.abc import Callable

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.rights import Action
from nuntius.store import notes
from nuntius.store.accounts import account_names
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Meeting
from nuntius.store.templates import template_of
from nuntius.web import record_schemas as rec
from nuntius.web import room_schemas as r
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.room_facts import marks_out, note_out
from nuntius.web.security import installation, me

api = APIBlueprint("notes", __name__, url_prefix="/api/meetings/<meeting_id>", abp_tags=[Tag(name="records")])


@api.get("/notes", operation_id="getNotes", responses={200: rec.NotesOut})
def get_notes(path: s.MeetingPath) -> Response:
    """One's own notes on a meeting."""
    with installation().database.read() as db:
        return answer(_notes(db, get_meeting(db, me(), path.meeting_id)))


@api.put("/notes/<note_id>", operation_id="keepNote", responses={200: rec.NotesOut})
def keep_note(path: r.NotePath, body: r.NoteIn) -> Response:
    """Writes a paragraph of one's own notes, new or again, at a moment of the recording."""

    def change(db: Session, meeting: Meeting) -> None:
        notes.put_note(db, me(), meeting, path.note_id, body.text, body.at, body.position, body.private)

    return _noted(path.meeting_id, change)


@api.delete("/notes/<note_id>", operation_id="dropNote", responses={200: rec.NotesOut})
def drop_note(path: r.NotePath) -> Response:
    """Removes a paragraph of one's own notes."""
    return _noted(path.meeting_id, lambda db, m: notes.remove_note(db, me(), m, path.note_id))


@api.put("/marks/<mark_id>", operation_id="keepMark", responses={200: rec.MarksOut})
def keep_mark(path: r.MarkPath, body: r.MarkIn) -> Response:
    """Marks a moment or a stretch; it begins with the turn being spoken."""

    def change(db: Session, meeting: Meeting) -> None:
        notes.put_mark(db, me(), meeting, path.mark_id, body.label, body.start, body.end, body.text)

    return _marked(path.meeting_id, change)


@api.delete("/marks/<mark_id>", operation_id="dropMark", responses={200: rec.MarksOut})
def drop_mark(path: r.MarkPath) -> Response:
    """Removes one's own mark."""
    return _marked(path.meeting_id, lambda db, m: notes.remove_mark(db, me(), m, path.mark_id))


def _noted(meeting_id: str, change: Callable[[Session, Meeting], None]) -> Response:
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), meeting_id, Action.EDIT)
        change(db, meeting)
        return answer(_notes(db, meeting))


def _notes(db: Session, meeting: Meeting) -> rec.NotesOut:
    found = notes.notes_of(db, me(), meeting.id)
    return rec.NotesOut(notes=[note_out(note) for note in found], labels=list(template_of(db, meeting).template.labels))


def _marked(meeting_id: str, change: Callable[[Session, Meeting], None]) -> Response:
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), meeting_id, Action.EDIT)
        change(db, meeting)
        found = notes.marks_of(db, meeting.id)
        return answer(rec.MarksOut(marks=marks_out(found, account_names(db), me())))
