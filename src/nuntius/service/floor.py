"""The floor of a meeting in figures."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.floor_report import FloorReport, floor_report
from nuntius.store.minutes import get_minutes
from nuntius.store.models import Meeting, Recording
from nuntius.store.transcripts import load_transcript, names_of


def report_of(session: Session, meeting: Meeting) -> FloorReport:
    """The report of a meeting as it stands: the diarizer's spans, else the turns."""
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    transcript = load_transcript(session, meeting.id, recording.duration if recording else None)
    names, minutes = names_of(session, meeting.id), get_minutes(session, meeting.id)
    spans = [(a, b, names.get(v, v)) for a, b, v in recording.spans or []] if recording else []
    spans = spans or [(turn.start, turn.end, turn.speaker) for turn in transcript.turns if turn.words]
    chapters = [(c["title"], c["start"], c["end"]) for c in minutes.chapters] if minutes else []
    return floor_report(spans, transcript, transcript.duration, chapters)
