"""Minutes and transcripts as files to take away."""

import json
import re
from collections.abc import Iterable
from urllib.parse import quote

from flask import Response
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.formats.html import write_html
from nuntius.core.formats.json_ import transcript_json
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, write_markdown
from nuntius.core.formats.opml import write_opml
from nuntius.core.formats.rttm import write_rttm
from nuntius.core.formats.srt import write_srt
from nuntius.core.formats.text import write_text
from nuntius.core.formats.webvtt import write_webvtt
from nuntius.core.speech.diarizer import Span
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.errors import Conflict
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, Recording
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, names_of
from nuntius.web.schemas import LineOut, MinutesOut
from nuntius.web.shapes import minutes_out, zone

TYPES = {
    "md": "text/markdown; charset=utf-8",
    "vtt": "text/vtt; charset=utf-8",
    "srt": "application/x-subrip; charset=utf-8",
    "json": "application/json",
    "html": "text/html; charset=utf-8",
    "opml": "text/x-opml; charset=utf-8",
    "txt": "text/plain; charset=utf-8",
    "rttm": "text/plain; charset=utf-8",
}


def download(db: Session, meeting: Meeting, form: str) -> Response:
    """A file of a meeting; all of it is built before any is sent. Raises Conflict before there is anything."""
    body = "".join(_parts(db, meeting, form))
    response = Response(body, content_type=TYPES[form.rsplit(".", 1)[1]])
    name = f"{meeting.title} - {form}"
    plain = re.sub(r"[^A-Za-z0-9 ._-]", "_", name)
    shown = "inline" if form.endswith("html") else "attachment"  # a page is read and printed where it opens
    response.headers["Content-Disposition"] = f"{shown}; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    response.headers["Cache-Control"] = "no-store"
    return response


def _parts(db: Session, meeting: Meeting, form: str) -> Iterable[str]:
    recording = db.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    transcript = load_transcript(db, meeting.id, recording.duration if recording else None)
    if not transcript.turns:
        raise Conflict("There is no transcript yet. Wait until the work on the recording is done.")
    names = names_of(db, meeting.id)
    if form.startswith(("minutes", "map")):
        row = get_minutes(db, meeting.id)
        if row is None:
            raise Conflict("There are no minutes yet. Wait until the work on the recording is done.")
        template = template_of(db, meeting)
        minutes = minutes_out(row, names, template.key)
        minutes.lines = [line for line in minutes.lines if line.thrown_out is None]
        if form.endswith("json"):
            return [minutes.model_dump_json(indent=1)]
        written = _written(meeting, template.template.name, transcript, minutes)
        writers = {"opml": write_opml, "html": write_html, "md": write_markdown}
        return writers[form.rsplit(".", 1)[1]](written)
    if form == "voices.rttm":
        spans = (
            recording.spans
            if recording and recording.spans
            else [(t.start, t.end, t.speaker) for t in transcript.turns]
        )
        return write_rttm([Span(a, b, names.get(v, v)) for a, b, v in spans], meeting.title)
    if form == "transcript.json":
        return [json.dumps(transcript_json(transcript), ensure_ascii=False, indent=1)]
    writer = {"transcript.vtt": write_webvtt, "transcript.srt": write_srt, "transcript.txt": write_text}[form]
    return writer(transcript)


def _written(meeting: Meeting, kind: str, transcript: Transcript, minutes: MinutesOut) -> WrittenMinutes:
    begun = meeting.starts_at.astimezone(zone(meeting.time_zone))
    facts = (
        f"{begun:%A} {begun.day} {begun:%B %Y}, {begun:%H:%M} ({meeting.time_zone}), {short_clock(transcript.duration)} long, {kind}",
        "There: " + (", ".join(person.name for person in meeting.people) or "nobody named"),
    )
    lines = tuple(_line(line, transcript) for line in minutes.lines)
    sections = tuple((section.title, section.layout) for section in minutes.sections)
    return WrittenMinutes(
        meeting.title, facts, minutes.coverage, lines, sections, tuple(chapter.title for chapter in minutes.chapters)
    )


def _line(line: LineOut, transcript: Transcript) -> WrittenLine:
    due = f"{line.due:%a} {line.due.day} {line.due:%b %Y}" if line.due else ""
    times = tuple(dict.fromkeys(short_clock(e.start) for e in line.evidence if not e.of_answer))
    return WrittenLine(
        line.kind,
        line.text,
        tuple(line.owner),
        due,
        line.due_said or "",
        line.state,
        line.answer or "",
        line.checked,
        times,
        line.place,
        line.chapter,
        transcript.turns[line.evidence[0].turn].speaker,
    )
