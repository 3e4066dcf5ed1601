"""Minutes and transcripts as files to take away."""

import json
import re
from collections.abc import Callable, Iterable
from urllib.parse import quote

from flask import Response
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.formats.calendar import write_actions_ics
from nuntius.core.formats.chapters import Stretch, write_chapters_json, write_chapters_vtt
from nuntius.core.formats.csv_ import write_actions_csv, write_floor_csv, write_transcript_csv
from nuntius.core.formats.docx import write_minutes_docx, write_transcript_docx
from nuntius.core.formats.html import write_html, write_transcript_html
from nuntius.core.formats.json_ import transcript_json
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, write_markdown
from nuntius.core.formats.opml import write_opml
from nuntius.core.formats.pdf import write_pdf
from nuntius.core.formats.rttm import write_rttm
from nuntius.core.formats.srt import write_srt
from nuntius.core.formats.text import write_minutes_text, write_text
from nuntius.core.formats.ttml import write_ttml
from nuntius.core.formats.webvtt import write_webvtt
from nuntius.core.speech.diarizer import Span
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.errors import Conflict
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, Recording
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, names_of
from nuntius.web.floor import report_of
from nuntius.web.record_schemas import LineOut, MinutesOut
from nuntius.web.shapes import minutes_out

TYPES = {
    "csv": "text/csv; charset=utf-8",
    "docx": "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    "html": "text/html; charset=utf-8",
    "ics": "text/calendar; charset=utf-8",
    "json": "application/json",
    "md": "text/markdown; charset=utf-8",
    "opml": "text/x-opml; charset=utf-8",
    "pdf": "application/pdf",
    "rttm": "text/plain; charset=utf-8",
    "srt": "application/x-subrip; charset=utf-8",
    "ttml": "application/ttml+xml; charset=utf-8",
    "txt": "text/plain; charset=utf-8",
    "vtt": "text/vtt; charset=utf-8",
}
OF_MINUTES: dict[str, Callable[[WrittenMinutes], Iterable[str] | bytes]] = {
    "actions.csv": write_actions_csv,
    "map.opml": write_opml,
    "minutes.docx": write_minutes_docx,
    "minutes.html": write_html,
    "minutes.md": write_markdown,
    "minutes.pdf": lambda minutes: write_pdf("".join(write_html(minutes))),
    "minutes.txt": write_minutes_text,
}
OF_TRANSCRIPT: dict[str, Callable[[Transcript], Iterable[str]]] = {
    "transcript.csv": write_transcript_csv,
    "transcript.srt": write_srt,
    "transcript.ttml": write_ttml,
    "transcript.txt": write_text,
    "transcript.vtt": write_webvtt,
}


def download(db: Session, meeting: Meeting, form: str, address: str) -> Response:
    """A file of a meeting; all of it is built before any is sent. `address` is that of the meeting's page.

    Raises Conflict before there is anything.
    """
    made = _built(db, meeting, form, address)
    response = Response(made if isinstance(made, bytes) else "".join(made), content_type=TYPES[form.rsplit(".", 1)[1]])
    name = f"{meeting.title} - {form}"
    plain = re.sub(r"[^A-Za-z0-9 ._-]", "_", name)
    shown = "inline" if form.endswith("html") else "attachment"  # a page is read and printed where it opens
    response.headers["Content-Disposition"] = f"{shown}; filename=\"{plain}\"; filename*=UTF-8''{quote(name)}"
    response.headers["Cache-Control"] = "no-store"
    return response


def _built(db: Session, meeting: Meeting, form: str, address: str) -> Iterable[str] | bytes:
    recording = db.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    transcript = load_transcript(db, meeting.id, recording.duration if recording else None)
    if not transcript.turns:
        raise Conflict("There is no transcript yet. Wait until the work on the recording is done.")
    if form in OF_TRANSCRIPT:
        return OF_TRANSCRIPT[form](transcript)
    if form == "voices.rttm":
        names = names_of(db, meeting.id)
        spans = recording.spans if recording and recording.spans else []
        spans = spans or [(t.start, t.end, t.speaker) for t in transcript.turns]
        return write_rttm([Span(a, b, names.get(v, v)) for a, b, v in spans], meeting.title)
    if form == "floor.csv":
        return write_floor_csv(report_of(db, meeting))
    if form == "transcript.json":
        return [json.dumps(transcript_json(transcript), ensure_ascii=False, indent=1)]
    if form in ("transcript.docx", "transcript.pdf"):
        facts = WrittenMinutes(meeting.title, _facts(db, meeting, transcript), 0.0, (), link=address)
        if form.endswith("docx"):
            return write_transcript_docx(facts.title, facts.facts, transcript)
        return write_pdf(write_transcript_html(facts, transcript))
    return _of_minutes(db, meeting, form, transcript, address)


def _of_minutes(
    db: Session, meeting: Meeting, form: str, transcript: Transcript, address: str
) -> Iterable[str] | bytes:
    row = get_minutes(db, meeting.id)
    if row is None:
        raise Conflict("There are no minutes yet. Wait until the work on the recording is done.")
    chapters = [Stretch(chapter["title"], chapter["start"], chapter["end"]) for chapter in row.chapters]
    if form == "chapters.vtt":
        return write_chapters_vtt(chapters)
    if form == "chapters.json":
        return [write_chapters_json(meeting.title, chapters)]
    minutes = minutes_out(row, names_of(db, meeting.id), template_of(db, meeting).key)
    minutes.lines = [line for line in minutes.lines if line.thrown_out is None]
    if form == "minutes.json":
        return [minutes.model_dump_json(indent=1)]
    written = _written(meeting, _facts(db, meeting, transcript), transcript, minutes, address)
    if form == "actions.ics":
        return write_actions_ics(written, meeting.id, row.made_at)
    return OF_MINUTES[form](written)


def _facts(db: Session, meeting: Meeting, transcript: Transcript) -> tuple[str, ...]:
    begun, kind = meeting.begun, template_of(db, meeting).template.name
    return (
        f"{begun:%A} {begun.day} {begun:%B %Y}, {begun:%H:%M} ({meeting.time_zone}), {short_clock(transcript.duration)} long, {kind}",
        "There: " + (", ".join(person.label for person in meeting.people) or "nobody named"),
    )


def _written(
    meeting: Meeting, facts: tuple[str, ...], transcript: Transcript, minutes: MinutesOut, address: str
) -> WrittenMinutes:
    lines = tuple(_line(line, transcript) for line in minutes.lines)
    sections = tuple((section.title, section.layout) for section in minutes.sections)
    chapters = tuple(chapter.title for chapter in minutes.chapters)
    return WrittenMinutes(meeting.title, facts, minutes.coverage, lines, sections, chapters, address)


def _line(line: LineOut, transcript: Transcript) -> WrittenLine:
    due = f"{line.due:%a} {line.due.day} {line.due:%b %Y}" if line.due else ""
    times = {short_clock(e.start): e.start for e in reversed(line.evidence) if not e.of_answer}
    times = dict(sorted(times.items(), key=lambda pair: pair[1]))
    return WrittenLine(
        line.kind,
        line.text,
        tuple(line.owner),
        due,
        line.due_said or "",
        line.state,
        line.answer or "",
        line.checked,
        tuple(times),
        line.place,
        line.chapter,
        transcript.turns[line.evidence[0].turn].speaker,
        line.due.isoformat() if line.due else "",
        tuple(times.values()),
        line.matter,
    )
