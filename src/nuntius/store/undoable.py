"""Changes of a record as they are remembered: each with what stood there before and what after it.

A row of the table `change` holds one as (kind, target, before, after); these forms are kept for good, since rows written
by earlier versions are taken back by later ones.
"""

from collections.abc import Iterable
from dataclasses import dataclass, fields, replace
from enum import StrEnum
from typing import Any, cast

from nuntius.store.models import Change, TurnRow
from nuntius.store.models.base import PackedWord

Words = list[PackedWord]


class Field(StrEnum):
    """What a change sets, under the name that the table keeps."""

    VOICE = "voice"  # the person that a voice is matched to
    THERE = "there"  # a person who took part: None, then the meeting
    TURN = "turn"  # a person's words of a turn
    LIVE = "live"  # a person's text of a live line
    LINE = "line"  # a person's text of a line of the minutes
    TICK = "tick"  # who has checked a line
    THROW = "throw"  # why a line was thrown out
    LINE_SET = "line set"  # columns of a line, by their names, as `line_rows` gives them
    LINE_ROW = "line row"  # a whole line, or None where there is none
    HEARD = "heard"  # the text of a line as it was made
    ANSWER = "answer"
    OWNER = "owner"
    CHAPTERS = "chapters"
    TURN_VOICE = "turn voice"  # whose a turn is
    SPANS = "spans"  # who spoke when


OF_LINE = (Field.LINE, Field.TICK, Field.THROW, Field.LINE_SET, Field.LINE_ROW)
OF_TURNS = (Field.TURN, Field.TURN_VOICE, Field.SPANS)
TURNS, TOGETHER = "turns", "together"  # kinds of the two other forms


@dataclass(frozen=True, slots=True)
class Piece:
    """A turn as a change remembers it."""

    id: int
    speaker_id: int
    cue: str
    words: Words
    person_words: Words | None

    @property
    def read(self) -> Words:
        """The words as they read."""
        return self.words if self.person_words is None else self.person_words


def piece_of(turn: TurnRow) -> Piece:
    return Piece(turn.id, turn.speaker_id, turn.cue, turn.words, turn.person_words)


@dataclass(frozen=True, slots=True)
class FieldSet:
    """One value of one row put in place of another; values are as the database keeps them."""

    field: Field
    target: int
    before: object
    after: object

    def reversed(self) -> "FieldSet":
        return replace(self, before=self.after, after=self.before)


@dataclass(frozen=True, slots=True)
class TurnsReplaced:
    """Some turns from `number` on put in place of others."""

    meeting_id: str
    number: int
    before: tuple[Piece, ...]
    after: tuple[Piece, ...]

    def reversed(self) -> "TurnsReplaced":
        return replace(self, before=self.after, after=self.before)


Step = FieldSet | TurnsReplaced


@dataclass(frozen=True, slots=True)
class Together:
    """Several steps that are taken back at once, in the same order."""

    steps: tuple[Step, ...]

    def reversed(self) -> "Together":
        return Together(tuple(step.reversed() for step in self.steps))


Edit = FieldSet | Together


@dataclass(frozen=True, slots=True)
class Touched:
    """What a page has to see again after a change: a line, some turns, all turns, the minutes as a whole."""

    line: int | None = None
    turns: tuple[int, ...] = ()
    restructured: bool = False
    minutes: bool = False


def touched(edit: Edit) -> Touched:
    if isinstance(edit, Together):
        set_to = [step for step in edit.steps if isinstance(step, FieldSet)]
        moved = any(step.field in (Field.TURN_VOICE, Field.SPANS) for step in set_to)
        turns = tuple(step.target for step in set_to if step.field == Field.TURN)
        return Touched(turns=turns, restructured=moved or len(set_to) < len(edit.steps), minutes=True)
    if edit.field in OF_LINE:
        return Touched(line=edit.target)
    if edit.field == Field.TURN:
        return Touched(turns=(edit.target,))
    return Touched(minutes=edit.field != Field.LIVE)


# --- between these and the rows of the table ---


def row_of(edit: Edit, meeting_id: str, user_id: int) -> Change:
    """A row that remembers a change."""
    if isinstance(edit, Together):
        row = Change(meeting_id=meeting_id, user_id=user_id, kind=TOGETHER, target=0)
        write_steps(row, edit)
        return row
    return Change(
        meeting_id=meeting_id,
        user_id=user_id,
        kind=edit.field,
        target=edit.target,
        before=edit.before,
        after=edit.after,
    )


def write_steps(row: Change, edit: Together) -> None:
    """Lets a row remember these steps."""
    row.before, row.after = _packed(edit.reversed().steps), _packed(edit.steps)


def edit_of(row: Change) -> Edit:
    """The change that a row remembers."""
    if row.kind != TOGETHER:
        return FieldSet(Field(row.kind), row.target, row.before, row.after)
    pairs = zip(cast("list[Any]", row.before), cast("list[Any]", row.after), strict=True)
    return Together(tuple(_step(kind, target, was, now) for (kind, target, was), (_, _, now) in pairs))


def _packed(steps: Iterable[Step]) -> list[list[Any]]:
    """Kind, target and the value after each step."""
    return [
        [step.field, step.target, step.after]
        if isinstance(step, FieldSet)
        else [TURNS, step.number, {"meeting": step.meeting_id, "from": _ids(step.before), "to": _dicts(step.after)}]
        for step in steps
    ]


def _step(kind: str, target: int, before: Any, after: Any) -> Step:
    if kind == TURNS:
        return TurnsReplaced(after["meeting"], target, _pieces(before["to"]), _pieces(after["to"]))
    return FieldSet(Field(kind), target, before, after)


def _ids(pieces: Iterable[Piece]) -> list[int]:
    return [piece.id for piece in pieces]


def _dicts(pieces: Iterable[Piece]) -> list[dict[str, Any]]:
    return [{field.name: getattr(piece, field.name) for field in fields(Piece)} for piece in pieces]


def _pieces(rows: Iterable[dict[str, Any]]) -> tuple[Piece, ...]:
    return tuple(Piece(**row) for row in rows)
