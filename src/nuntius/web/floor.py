"""The floor of a meeting in figures."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.floor_report import FloorReport, FloorSlice, floor_report
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, Recording
from nuntius.store.transcripts import load_transcript, names_of
from nuntius.web import floor_schemas as s


def report_of(session: Session, meeting: Meeting) -> FloorReport:
    """The report of a meeting as it stands: the diarizer's spans, else the turns."""
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    transcript = load_transcript(session, meeting.id, recording.duration if recording else None)
    names, minutes = names_of(session, meeting.id), get_minutes(session, meeting.id)
    spans = [(a, b, names.get(v, v)) for a, b, v in recording.spans or []] if recording else []
    spans = spans or [(turn.start, turn.end, turn.speaker) for turn in transcript.turns if turn.words]
    chapters = [(c["title"], c["start"], c["end"]) for c in minutes.chapters] if minutes else []
    return floor_report(spans, transcript, transcript.duration, chapters)


def floor_out(title: str, report: FloorReport) -> s.FloorOut:
    shares = report.shares
    return s.FloorOut(
        title=title,
        duration=report.duration,
        silence=report.silence,
        overlap=report.overlap,
        evenness=report.evenness,
        silences=list(report.silences),
        voices=[
            s.VoiceFloorOut(
                voice=each.voice,
                share=shares[each.voice],
                seconds=each.seconds,
                turns=each.turns,
                longest=each.longest,
                overlaps=each.overlaps,
                overlapped=each.overlapped,
                words=each.words,
                pace=each.pace,
                questions=each.questions,
            )
            for each in report.voices
        ],
        over_time=[_slice_out(report, each) for each in report.over_time],
        chapters=[_slice_out(report, each) for each in report.chapters],
    )


def _slice_out(report: FloorReport, part: FloorSlice) -> s.FloorSliceOut:
    seconds = [part.seconds.get(voice.voice, 0.0) for voice in report.voices]
    return s.FloorSliceOut(title=part.title, start=part.start, end=part.end, seconds=seconds)
