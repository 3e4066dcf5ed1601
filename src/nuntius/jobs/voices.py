"""Diarizing a finished record again, for another number of people."""

from dataclasses import replace

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.live.carrying import corrected_turns
from nuntius.core.live.matching import matched
from nuntius.core.speech.diarization.phrases import Diarized
from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import join
from nuntius.core.speech.transcribe import spans_of
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import Word
from nuntius.jobs import engines
from nuntius.jobs.steps import SPANS_SHARE, Progress, Task, diarized_by_phrases, packed_spans, turn_corrections
from nuntius.store.changes import change_together
from nuntius.store.errors import Conflict
from nuntius.store.models import Meeting, Recording, Speaker, TurnRow, User
from nuntius.store.transcripts import packed, speakers_of, turns_of, unpacked
from nuntius.store.undoable import Field, FieldSet, Piece, Step, TurnsReplaced, piece_of


def diarize_again(task: Task, progress: Progress) -> None:
    """The turns of a new diarization, as one change that can be taken back.

    Names are kept by the time that an old and a new voice have in common; what a person corrected is kept.
    """
    sound = task.sound()
    diarizer = engines.diarizer(task.installation.settings)
    spans = spans_of(sound, diarizer, task.people, lambda done: progress(SPANS_SHARE * done / sound.duration))
    with task.installation.database.read() as session:
        words = tuple(word for row in turns_of(session, task.meeting_id) for word in unpacked(row.words))
    if not words:
        raise Conflict("There is no transcript yet whose voices could be told apart.")
    diarized = diarized_by_phrases(task, words, spans, lambda done: progress(SPANS_SHARE + (1 - SPANS_SHARE) * done))
    with task.installation.database.write() as session:
        _put(session, task, words, diarized)


def _put(session: Session, task: Task, words: tuple[Word, ...], diarized: Diarized) -> None:
    meeting, recording = session.get_one(Meeting, task.meeting_id), task.recording(session)
    rows = turns_of(session, meeting.id)
    diarized = diarized.named(matched(_heard(session, recording, rows), diarized.spans))
    transcript = join(words, diarized.voices, recording.duration or 0.0)
    after = _pieces(session, meeting, transcript)
    written = corrected_turns(transcript, turn_corrections(session, meeting.id))
    for number, kept in written.items():
        after[number] = replace(after[number], person_words=packed(kept))
    steps: list[Step] = [
        TurnsReplaced(meeting.id, 0, tuple(piece_of(row) for row in rows), tuple(after)),
        FieldSet(Field.SPANS, recording.id, recording.spans, packed_spans(diarized.spans)),
    ]
    change_together(session, session.get_one(User, meeting.runner_id), meeting, steps)


def _heard(session: Session, recording: Recording, rows: list[TurnRow]) -> list[Span]:
    """Who spoke when as it stands: by the sound, or by the turns of a transcript that was brought in."""
    if recording.spans:
        return sorted(Span(*span) for span in recording.spans)
    labels = {speaker.id: speaker.label for speaker in speakers_of(session, recording.meeting_id)}
    return sorted(Span(row.words[0][1], row.words[-1][2], labels[row.speaker_id]) for row in rows if row.words)


def _pieces(session: Session, meeting: Meeting, transcript: Transcript) -> list[Piece]:
    """The turns as a change remembers them, under numbers that no turn has."""
    speakers = {speaker.label: speaker for speaker in speakers_of(session, meeting.id)}
    for label in transcript.speakers:
        if label not in speakers:
            speakers[label] = Speaker(meeting_id=meeting.id, label=label)
            session.add(speakers[label])
    session.flush()
    last = session.scalar(select(func.max(TurnRow.id))) or 0
    return [
        Piece(last + number, speakers[turn.speaker].id, turn.cue, packed(turn.words), None)
        for number, turn in enumerate(transcript.turns, 1)
    ]
