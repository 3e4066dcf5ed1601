"""Minutes and transcripts as files to download."""

import re
from collections.abc import Callable
from urllib.parse import quote

from flask import Response
from sqlalchemy.orm import Session

from nuntius.service.documents import Written, read_document
from nuntius.store.minutes import written_minutes
from nuntius.store.models import Meeting
from nuntius.store.templates import template_of
from nuntius.store.transcripts import names_of
from nuntius.web.shapes import minutes_out

TYPES = {
    "csv": "text/csv; charset=utf-8",
    "docx": "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    "html": "text/html; charset=utf-8",
    "ics": "text/calendar; charset=utf-8",
    "json": "application/json",
    "md": "text/markdown; charset=utf-8",
    "opml": "text/x-opml; charset=utf-8",
    "rttm": "text/plain; charset=utf-8",
    "srt": "application/x-subrip; charset=utf-8",
    "ttml": "application/ttml+xml; charset=utf-8",
    "txt": "text/plain; charset=utf-8",
    "vtt": "text/vtt; charset=utf-8",
}


def read_download(db: Session, meeting: Meeting, form: str, address: str) -> Callable[[], Written]:
    """Reads what a file holds; what writes it. Raises Conflict before there is anything."""
    if form != "minutes.json":
        return read_document(db, meeting, form, address)
    minutes = minutes_out(written_minutes(db, meeting), names_of(db, meeting.id), template_of(db, meeting).key)
    minutes.lines = [line for line in minutes.lines if line.thrown_out is None]
    return lambda: [minutes.model_dump_json(indent=1)]


def download(made: Written, title: str, form: str) -> Response:
    """The answer with a file of a meeting; all of it is built before any is sent."""
    response = Response(made if isinstance(made, bytes) else "".join(made), content_type=TYPES[form.rsplit(".", 1)[1]])
    name = f"{title} - {form}"
    plain = re.sub(r"[^A-Za-z0-9 ._-]", "_", name)
    shown = "inline" if form.endswith("html") else "attachment"  # a page is read and printed where it opens
    response.headers["Content-Disposition"] = f"{shown}; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    response.headers["Cache-Control"] = "no-store"
    return response
