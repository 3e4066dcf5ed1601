"""Live text in the store: lines as they settle, voices as they are found, a person's corrections."""

from collections.abc import Mapping, Sequence

from sqlalchemy import delete, func, select
from sqlalchemy.orm import Session

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.turns import live_transcript
from nuntius.core.rooms import BreakKind
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import spread
from nuntius.store.models import Break, Change, LiveLineRow, Room, Speaker
from nuntius.store.rooms import touch
from nuntius.store.transcripts import names_of
from nuntius.store.undoable import Field


def live_rows(session: Session, meeting_id: str, since: int = -1) -> list[LiveLineRow]:
    """Lines in order; with `since`, those that changed after that version of the room."""
    query = select(LiveLineRow).where(LiveLineRow.meeting_id == meeting_id, LiveLineRow.version > since)
    return list(session.scalars(query.order_by(LiveLineRow.start, LiveLineRow.number)))


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
    number, version = _next_number(session, room), touch(room)
    for line in lines:
        text = _without(line.text, line.start, line.end, cuts)
        if text:
            session.add(_row(room, number, LiveLine(line.start, line.end, text), None, version))
            number += 1
    session.flush()


def assign_voices(session: Session, room: Room, assigned: Mapping[int, Sequence[tuple[LiveLine, str]]]) -> None:
    """Says whose each line is, by its number, in pieces where it has several voices.

    Voices that are new get a row to be named by. A line that changed meanwhile is left alone.
    """
    known = set(session.scalars(select(Speaker.label).where(Speaker.meeting_id == room.meeting_id)))
    for label in dict.fromkeys(voice for pieces in assigned.values() for _, voice in pieces):
        if label not in known:
            session.add(Speaker(meeting_id=room.meeting_id, label=label))
    version, number = touch(room), _next_number(session, room)
    for row in live_rows(session, room.meeting_id):
        pieces = assigned.get(row.number, ())
        if not pieces or " ".join(line.text for line, _ in pieces) != row.text:
            continue
        if [voice for _, voice in pieces] == [row.voice]:
            continue
        (line, row.voice), *others = pieces
        row.start, row.end, row.text, row.version = line.start, line.end, line.text, version
        for other, voice in others:
            session.add(_row(room, number, other, voice, version))
            number += 1
    session.flush()


def _next_number(session: Session, room: Room) -> int:
    query = select(func.max(LiveLineRow.number)).where(LiveLineRow.meeting_id == room.meeting_id)
    return (session.scalar(query) or 0) + 1


def _row(room: Room, number: int, line: LiveLine, voice: str | None, version: int) -> LiveLineRow:
    return LiveLineRow(
        meeting_id=room.meeting_id,
        number=number,
        start=line.start,
        end=line.end,
        text=line.text,
        voice=voice,
        version=version,
    )


def cut_lines(session: Session, room: Room, start: float, end: float) -> None:
    """Takes the words between `start` and `end` seconds out of the live text for good."""
    version = touch(room)
    for row in live_rows(session, room.meeting_id):
        if row.start < end and start < row.end:
            session.execute(delete(Change).where(Change.kind == Field.LIVE, Change.target == row.id))
            row.text = _without(row.text, row.start, row.end, [(start, end)])
            if row.person_text is not None:
                row.person_text = _without(row.person_text, row.start, row.end, [(start, end)]) or None
            row.version = version
    room.partial = ""


def _cuts(session: Session, meeting_id: str) -> list[tuple[float, float]]:
    query = select(Break).where(Break.meeting_id == meeting_id, Break.kind == BreakKind.CUT)
    return [(each.at, each.at + (each.seconds or 0.0)) for each in session.scalars(query)]


def _without(text: str, start: float, end: float, cuts: Sequence[tuple[float, float]]) -> str:
    """The words of a line that touch none of the cuts; a word at a boundary goes, too."""
    kept = [w.text for w in spread(text, start, end) if not any(w.start < b and a < w.end for a, b in cuts)]
    return " ".join(kept)
