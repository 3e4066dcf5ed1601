"""Live text in the store: lines as they settle, voices as they are told, a person's corrections."""

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.turns import live_transcript
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import spread
from nuntius.store.models import Break, LiveLineRow, Room, Speaker
from nuntius.store.rooms import touch
from nuntius.store.transcripts import names_of


def live_rows(session: Session, meeting_id: str, since: int = -1) -> list[LiveLineRow]:
    """Lines in order; with `since`, those that changed after that version of the room."""
    query = select(LiveLineRow).where(LiveLineRow.meeting_id == meeting_id, LiveLineRow.version > since)
    return list(session.scalars(query.order_by(LiveLineRow.number)))


def voiced(row: LiveLineRow, names: dict[str, str] | None = None) -> VoicedLine:
    """A row as the core knows it, under the voice's name where `names` holds one."""
    voice = names.get(row.voice, row.voice) if names and row.voice else row.voice
    return VoicedLine(row.number, LiveLine(row.start, row.end, row.text), voice, row.person_text)


def live_lines(session: Session, meeting_id: str, named: bool = True) -> list[VoicedLine]:
    """All lines that hold words."""
    names = names_of(session, meeting_id) if named else None
    return [voiced(row, names) for row in live_rows(session, meeting_id) if row.text or row.person_text]


def live_so_far(session: Session, room: Room, named: bool = True) -> Transcript:
    """The transcript so far."""
    return live_transcript(live_lines(session, room.meeting_id, named), room.held / 16_000)


def add_lines(session: Session, room: Room, lines: Sequence[LiveLine]) -> None:
    """Adds settled lines, without the words in stretches that were cut."""
    cuts = _cuts(session, room.meeting_id)
    number = (
        session.scalar(select(func.max(LiveLineRow.number)).where(LiveLineRow.meeting_id == room.meeting_id)) or 0
    ) + 1
    version = touch(room)
    for line in lines:
        text = _without(line.text, line.start, line.end, cuts)
        if text:
            session.add(
                LiveLineRow(
                    meeting_id=room.meeting_id,
                    number=number,
                    start=line.start,
                    end=line.end,
                    text=text,
                    version=version,
                )
            )
            number += 1
    session.flush()


def tell_voices(session: Session, room: Room, voices: dict[int, str]) -> None:
    """Says whose each line is, by its number; voices that are new get a row to be named by."""
    known = set(session.scalars(select(Speaker.label).where(Speaker.meeting_id == room.meeting_id)))
    for label in dict.fromkeys(voices.values()):
        if label not in known:
            session.add(Speaker(meeting_id=room.meeting_id, label=label))
    version = touch(room)
    for row in live_rows(session, room.meeting_id):
        if row.number in voices and row.voice != voices[row.number]:
            row.voice, row.version = voices[row.number], version


def cut_lines(session: Session, room: Room, start: float, end: float) -> None:
    """Takes the words between `start` and `end` seconds out of the live text for good."""
    version = touch(room)
    for row in live_rows(session, room.meeting_id):
        if row.start < end and start < row.end:
            row.text = _without(row.text, row.start, row.end, [(start, end)])
            if row.person_text is not None:
                row.person_text = _without(row.person_text, row.start, row.end, [(start, end)]) or None
            row.version = version
    room.partial = ""


def _cuts(session: Session, meeting_id: str) -> list[tuple[float, float]]:
    query = select(Break).where(Break.meeting_id == meeting_id, Break.kind == "cut")
    return [(each.at, each.at + (each.seconds or 0.0)) for each in session.scalars(query)]


def _without(text: str, start: float, end: float, cuts: Sequence[tuple[float, float]]) -> str:
    """The words of a line that touch none of the cuts; a word at a border goes, too."""
    kept = [w.text for w in spread(text, start, end) if not any(w.start < b and a < w.end for a, b in cuts)]
    return " ".join(kept)
