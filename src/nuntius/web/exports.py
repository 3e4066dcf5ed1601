"""Exports: put into the queue, and noted when they leave: which file of which meeting, never its title."""

from flask import Response, current_app

from nuntius.jobs.queue import Queue
from nuntius.service.asking import Question
from nuntius.store import activity
from nuntius.store.activity import What
from nuntius.store.models import Export
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.export_shapes import export_out
from nuntius.web.security import asked_from, installation, me


def put_export(export: Export) -> Response:
    """Puts an export into the queue; the answer to whoever asked for it."""
    queue: Queue = current_app.extensions["nuntius_queue"]
    out = export_out(export)
    queue.put_export(out.id)
    return answer(out)


def question_of(body: s.Question) -> Question:
    return Question(body.question, body.speaker, body.start, body.end)


def note_export(of: str, form: str) -> None:
    """Writes down that a file is downloaded: of what, by number, and in which form."""
    with installation().database.write() as db:
        activity.note(db, me(), What.EXPORTED, f"{of}: {form}", asked_from())
