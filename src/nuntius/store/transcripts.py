"""Transcripts: between rows and the core's Transcript."""

from collections.abc import Iterable

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import Word
from nuntius.store.errors import NotFound
from nuntius.store.models import Meeting, Person, Speaker, TurnRow
from nuntius.store.models.base import PackedWord


def packed(words: tuple[Word, ...]) -> list[PackedWord]:
    """Words as JSON: text, start, end, confidence."""
    return [(w.text, round(w.start, 3), round(w.end, 3), round(w.confidence, 3)) for w in words]


def unpacked(rows: Iterable[PackedWord]) -> tuple[Word, ...]:
    return tuple(Word(start, end, text, confidence) for text, start, end, confidence in rows)


def has_transcript(session: Session, meeting_id: str) -> bool:
    """Whether anything was said in a meeting, as far as it is known yet."""
    return session.scalar(select(TurnRow.id).where(TurnRow.meeting_id == meeting_id).limit(1)) is not None


def transcript_mark(session: Session, meeting_id: str) -> tuple[int | None, ...]:
    """Numbers that are others where the turns of a meeting have been replaced or set right."""
    sizes = (func.sum(func.length(TurnRow.words)), func.sum(func.length(TurnRow.person_words)))
    query = select(func.count(), func.max(TurnRow.id), func.sum(TurnRow.speaker_id * TurnRow.number), *sizes)
    return session.execute(query.where(TurnRow.meeting_id == meeting_id)).tuples().one()


def save_transcript(session: Session, meeting_id: str, transcript: Transcript) -> None:
    """Replaces the transcript of a meeting; voices keep their people by label."""
    session.execute(delete(TurnRow).where(TurnRow.meeting_id == meeting_id))
    speakers = {s.label: s for s in session.scalars(select(Speaker).where(Speaker.meeting_id == meeting_id))}
    for label in transcript.speakers:
        if label not in speakers:
            speakers[label] = Speaker(meeting_id=meeting_id, label=label[:200])
            session.add(speakers[label])
    session.flush()
    session.add_all(
        TurnRow(
            meeting_id=meeting_id,
            number=number,
            speaker_id=speakers[turn.speaker].id,
            cue=turn.cue[:64],
            words=packed(turn.words),
        )
        for number, turn in enumerate(transcript.turns)
    )
    session.flush()


def speakers_of(session: Session, meeting_id: str) -> list[Speaker]:
    """Voices in the order of their first row."""
    return list(session.scalars(select(Speaker).where(Speaker.meeting_id == meeting_id).order_by(Speaker.id)))


def speaker_of(session: Session, meeting: Meeting, speaker_id: int) -> Speaker:
    """One voice of a meeting. Raises NotFound."""
    speaker = session.get(Speaker, speaker_id)
    if speaker is None or speaker.meeting_id != meeting.id:
        raise NotFound()
    return speaker


def turns_of(session: Session, meeting_id: str) -> list[TurnRow]:
    """Turns in order."""
    return list(session.scalars(select(TurnRow).where(TurnRow.meeting_id == meeting_id).order_by(TurnRow.number)))


def names_of(session: Session, meeting_id: str) -> dict[str, str]:
    """Label of each voice and the name it goes by now: the person's, else the label."""
    query = (
        select(Speaker.label, Person.label)
        .outerjoin(Person, Person.id == Speaker.person_id)
        .where(Speaker.meeting_id == meeting_id)
    )
    return {label: name or label for label, name in session.execute(query)}


def with_names(text: str, names: dict[str, str]) -> str:
    """A machine's text with the names that voices have been given since it was written."""
    for label in sorted(names, key=len, reverse=True):
        if names[label] != label:
            text = text.replace(label, names[label].split()[0])
    return text


def load_transcript(session: Session, meeting_id: str, duration: float | None = None, named: bool = True) -> Transcript:
    """The transcript as it stands: a person's words before the machine's, names where voices have one."""
    names = names_of(session, meeting_id)
    labels = {s.id: names[s.label] if named else s.label for s in speakers_of(session, meeting_id)}
    turns = tuple(
        Turn(labels[row.speaker_id], unpacked(row.words if row.person_words is None else row.person_words), row.cue)
        for row in turns_of(session, meeting_id)
    )
    return Transcript(turns, duration or max((t.end for t in turns), default=0.0))
