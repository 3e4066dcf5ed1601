"""Minutes and transcripts as files: what they hold is read first, and written when no transaction is open any more."""

import json
from collections.abc import Callable, Iterable

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
from nuntius.core.minutes.topic_label import topic_label
from nuntius.core.speech.diarizer import Span
from nuntius.core.times import short_clock
from nuntius.core.transcript.transcript import Transcript
from nuntius.service.floor import report_of
from nuntius.store.errors import Conflict
from nuntius.store.minutes import written_minutes
from nuntius.store.models import LineRow, Meeting, Recording
from nuntius.store.templates import template_of
from nuntius.store.transcripts import load_transcript, names_of, with_names

Written = Iterable[str] | bytes

OF_MINUTES: dict[str, Callable[[WrittenMinutes], Written]] = {
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


def read_document(session: Session, meeting: Meeting, form: str, address: str) -> Callable[[], Written]:
    """Reads what a file of a meeting holds; what writes it. `address` is that of the meeting's page.

    Raises Conflict before there is anything.
    """
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    transcript = load_transcript(session, meeting.id, recording.duration if recording else None)
    if not transcript.turns:
        raise Conflict("There is no transcript yet. Wait until the work on the recording is done.")
    if form in OF_TRANSCRIPT:
        return lambda: OF_TRANSCRIPT[form](transcript)
    if form == "voices.rttm":
        spans = _spans(session, meeting, recording, transcript)
        title = meeting.title
        return lambda: write_rttm(spans, title)
    if form == "floor.csv":
        report = report_of(session, meeting)
        return lambda: write_floor_csv(report)
    if form == "transcript.json":
        return lambda: [json.dumps(transcript_json(transcript), ensure_ascii=False, indent=1)]
    if form in ("transcript.docx", "transcript.pdf"):
        facts = WrittenMinutes(meeting.title, _facts(session, meeting, transcript), 0.0, (), link=address)
        if form.endswith("docx"):
            return lambda: write_transcript_docx(facts.title, facts.facts, transcript)
        return lambda: write_pdf(write_transcript_html(facts, transcript))
    return _of_minutes(session, meeting, form, transcript, address)


def _spans(session: Session, meeting: Meeting, recording: Recording | None, transcript: Transcript) -> list[Span]:
    names = names_of(session, meeting.id)
    spans = recording.spans if recording and recording.spans else []
    return [Span(a, b, names.get(v, v)) for a, b, v in spans or ((t.start, t.end, t.speaker) for t in transcript.turns)]


def _of_minutes(
    session: Session, meeting: Meeting, form: str, transcript: Transcript, address: str
) -> Callable[[], Written]:
    row, title, key = written_minutes(session, meeting), meeting.title, meeting.id
    chapters = [Stretch(chapter["title"], chapter["start"], chapter["end"]) for chapter in row.chapters]
    if form == "chapters.vtt":
        return lambda: write_chapters_vtt(chapters)
    if form == "chapters.json":
        return lambda: [write_chapters_json(title, chapters)]
    titles, names = tuple(chapter.title for chapter in chapters), names_of(session, meeting.id)
    written = WrittenMinutes(
        title,
        _facts(session, meeting, transcript),
        row.coverage,
        tuple(_line(line, transcript, names, titles) for line in row.lines if line.thrown_out is None),
        tuple((section, layout) for section, layout in row.sections),
        titles,
        address,
    )
    made_at = row.made_at
    if form == "actions.ics":
        return lambda: write_actions_ics(written, key, made_at)
    return lambda: OF_MINUTES[form](written)


def _facts(session: Session, meeting: Meeting, transcript: Transcript) -> tuple[str, ...]:
    begun, kind = meeting.begun, template_of(session, meeting).template.name
    return (
        f"{begun:%A} {begun.day} {begun:%B %Y}, {begun:%H:%M} ({meeting.time_zone}), {short_clock(transcript.duration)} long, {kind}",
        "There: " + (", ".join(person.label for person in meeting.people) or "nobody named"),
    )


def _line(line: LineRow, transcript: Transcript, names: dict[str, str], titles: tuple[str, ...]) -> WrittenLine:
    text = line.person_text or with_names(line.text, names)
    due = f"{line.due:%a} {line.due.day} {line.due:%b %Y}" if line.due else ""
    times = {short_clock(e.start): e.start for e in reversed(line.evidence) if not e.of_answer}
    times = dict(sorted(times.items(), key=lambda pair: pair[1]))
    return WrittenLine(
        line.kind,
        text,
        tuple(names.get(owner, owner) for owner in line.owner),
        due,
        line.due_said or "",
        line.state,
        with_names(line.answer, names) if line.answer else "",
        line.checked_by is not None,
        tuple(times),
        line.place,
        line.chapter,
        transcript.turns[line.evidence[0].turn].speaker if line.evidence else "",
        line.due.isoformat() if line.due else "",
        tuple(times.values()),
        topic_label(line.kind, text, titles[line.chapter] if line.chapter < len(titles) else "", len(titles)),
        line.progress,
        line.remark,
        line.id,
    )
