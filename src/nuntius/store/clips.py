"""Where passages are taken from: the sound, the picture and the words of a meeting."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.montage.montage import Clip, Said
from nuntius.core.times import short_clock
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.files import FileStore
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Meeting, Recording, User
from nuntius.store.transcripts import load_transcript

LONGEST_CAPTION = 80  # characters; two lines of a caption, common practice, no source


@dataclass(frozen=True, slots=True)
class Source:
    """A meeting that passages are taken from."""

    meeting: Meeting
    recording: Recording
    turns: tuple[Said, ...]  # each word with its speaker, in seconds of the meeting
    files: FileStore

    def clip(self, title: str, start: float, end: float) -> Clip:
        """A passage of it, in seconds."""
        day = self.meeting.begun
        return Clip(
            title,
            f"{self.meeting.title}, {day.day} {day:%B %Y}, {short_clock(start)}",
            self.files.path(self.recording.working_digest or ""),
            start,
            end,
            _spoken(self.turns, start, end),
            self.files.path(self.recording.playback_digest or "") if self.recording.has_picture else None,
        )


def source_of(session: Session, files: FileStore, user: User, meeting_id: str) -> Source | None:
    """A meeting to take passages from; None where it is not open to `user`. Raises Conflict where it has no sound."""
    try:
        meeting = get_meeting(session, user, meeting_id)
    except NotFound:
        return None
    recording = check_sound(session, meeting)
    turns = load_transcript(session, meeting_id).turns
    words = tuple(Said(turn.speaker, word.start, word.end, word.text) for turn in turns for word in turn.words)
    return Source(meeting, recording, words, files)


def check_sound(session: Session, meeting: Meeting) -> Recording:
    """The recording of a meeting. Raises Conflict where it has no sound (yet)."""
    recording = session.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    if recording is None or recording.working_digest is None:
        raise Conflict(f"“{meeting.title}” has no sound: its record was made from a written transcript.")
    return recording


def _spoken(words: tuple[Said, ...], start: float, end: float) -> tuple[Said, ...]:
    """The words of a stretch as captions: one voice each, broken at sentence ends or where they grow long."""
    made: list[Said] = []
    ended = True
    for word in words:
        if not start <= (word.start + word.end) / 2 < end:
            continue
        last = made[-1] if made else None
        if last is None or ended or last.speaker != word.speaker or len(last.text) + len(word.text) > LONGEST_CAPTION:
            made.append(Said(word.speaker, word.start - start, word.end - start, word.text))
        else:
            made[-1] = Said(last.speaker, last.start, word.end - start, f"{last.text} {word.text}")
        ended = word.text[-1:] in ".?!" and len(made[-1].text) > LONGEST_CAPTION / 2
    return tuple(made)
