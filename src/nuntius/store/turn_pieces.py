"""How some turns are put in place of others, and what points to them follows."""

from dataclasses import fields

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from nuntius.store.errors import Conflict
from nuntius.store.models import MinutesRow, TurnRow
from nuntius.store.transcripts import turns_of
from nuntius.store.undoable import Piece, TurnsReplaced, Words, piece_of


def words_of(turn: TurnRow) -> Words:
    """A turn's words as they read now."""
    return turn.words if turn.person_words is None else turn.person_words


def replace_turns(session: Session, step: TurnsReplaced) -> None:
    """Puts turns in place of others; evidence and chapters follow. Raises Conflict when others stand there."""
    meeting_id, number, after = step.meeting_id, step.number, step.after
    before = [piece.id for piece in step.before]
    there = session.scalars(
        select(TurnRow.id).where(
            TurnRow.meeting_id == meeting_id, TurnRow.number.between(number, number + len(before) - 1)
        )
    )
    if sorted(there) != sorted(before):
        raise Conflict("Somebody has changed these turns meanwhile. Load the page again.")
    shift = len(after) - len(before)
    later = (TurnRow.meeting_id == meeting_id, TurnRow.number >= number + len(before))
    session.execute(delete(TurnRow).where(TurnRow.id.in_(before)))
    session.execute(
        update(TurnRow).where(*later).values(number=-TurnRow.number - shift)
    )  # numbers are unique at each moment
    session.execute(
        update(TurnRow).where(TurnRow.meeting_id == meeting_id, TurnRow.number < 0).values(number=-TurnRow.number)
    )
    session.expire_all()
    for place, piece in enumerate(after):
        values = {field.name: getattr(piece, field.name) for field in fields(piece)}
        session.add(TurnRow(meeting_id=meeting_id, number=number + place, **values))
    session.flush()
    _follow(session, meeting_id, number, len(before), len(after))


def pieces_at(session: Session, step: TurnsReplaced) -> tuple[Piece, ...]:
    """The turns that stand where a change puts others."""
    last = step.number + len(step.before) - 1
    where = (TurnRow.meeting_id == step.meeting_id, TurnRow.number.between(step.number, last))
    return tuple(piece_of(row) for row in session.scalars(select(TurnRow).where(*where).order_by(TurnRow.number)))


def _follow(session: Session, meeting_id: str, number: int, was: int, now: int) -> None:
    """Lets evidence and chapters point to the turns that hold their words now."""
    minutes = session.scalar(select(MinutesRow).where(MinutesRow.meeting_id == meeting_id))
    if minutes is None:
        return
    fresh = {row.number: words_of(row) for row in turns_of(session, meeting_id) if number <= row.number < number + now}
    for evidence in (each for line in minutes.lines for each in line.evidence):
        if evidence.turn >= number + was:
            evidence.turn += now - was
        elif evidence.turn >= number:
            evidence.turn = _at(fresh, (evidence.start + evidence.end) / 2)
            inside = [i for i, w in enumerate(fresh[evidence.turn]) if w[2] > evidence.start and w[1] < evidence.end]
            if inside:
                evidence.first, evidence.last = inside[0], inside[-1]

    def moved(turn: int, inside: int) -> int:
        """The number of a turn by now, which is `inside` where the turn itself was replaced."""
        return turn + now - was if turn >= number + was else inside if turn >= number else turn

    minutes.chapters = [
        {**chapter, "first": moved(chapter["first"], number), "last": moved(chapter["last"], number + now - 1)}
        for chapter in minutes.chapters
    ]
    session.flush()


def _at(turns: dict[int, Words], seconds: float) -> int:
    """The turn that is being spoken at a time, or the nearest one."""
    return min(turns, key=lambda n: max(turns[n][0][1] - seconds, seconds - turns[n][-1][2], 0.0) if turns[n] else 1e9)
