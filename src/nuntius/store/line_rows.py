"""Lines of minutes as plain values: what versions and changes remember of them, and rows made of that again."""

from collections.abc import Iterable, Sequence
from datetime import date
from typing import Any

from sqlalchemy import text
from sqlalchemy.orm import Session

from nuntius.core.minutes.evidence import located
from nuntius.core.minutes.line import Passage
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.models import EvidenceRow, LineRow

LineValues = dict[str, Any]  # by the name of the column; `evidence` is a list of the values of passages

COLUMNS = (
    "number", "kind", "place", "chapter", "text", "person_text", "owner", "due", "due_said", "state", "answer", "why",
    "doubts", "checked_by", "thrown_out", "progress", "remark", "set_by_person", "made_by", "joined",
)  # fmt: skip
EVIDENCE_COLUMNS = ("of_answer", "turn", "first", "last", "start", "end", "quote")


def values_of(line: LineRow) -> LineValues:
    """All of a line, ready for JSON, without its number in the database."""
    return {name: value_of(line, name) for name in (*COLUMNS, "evidence")}


def value_of(line: LineRow, name: str) -> Any:
    """One column of a line, or its evidence, ready for JSON."""
    if name == "evidence":
        return [{each: getattr(row, each) for each in EVIDENCE_COLUMNS} for row in line.evidence]
    value = getattr(line, name)
    return value.isoformat() if isinstance(value, date) else value


def put_values(line: LineRow, values: LineValues) -> None:
    """Sets the columns that are named, and the evidence where it is among them."""
    for name, value in values.items():
        if name == "evidence":
            line.evidence = [EvidenceRow(**each) for each in value]
        elif name == "due":
            line.due = date.fromisoformat(value) if value else None
        else:
            setattr(line, name, value)


def new_line_id(session: Session) -> int:
    """A number that no line has or ever had; good until the end of the writing transaction."""
    used = session.execute(text("SELECT seq FROM sqlite_sequence WHERE name = 'line'")).scalar()
    return int(used or 0) + 1


def evidence_row(transcript: Transcript, passage: Passage, of_answer: bool) -> EvidenceRow:
    """A passage of a transcript as a row."""
    words = transcript.turns[passage.turn].words[passage.first : passage.last + 1]
    return EvidenceRow(
        of_answer=of_answer,
        turn=passage.turn,
        first=passage.first,
        last=passage.last,
        start=words[0].start,
        end=max(word.end for word in words),
        quote=" ".join(word.text for word in words),
    )


def anchor(evidence: Iterable[EvidenceRow], transcript: Transcript) -> None:
    """Lets passages name the turns and words that are spoken at their times now; where there are none they stay."""
    for row in (row for row in evidence if not _holds(row, transcript)):
        found = located(transcript, row.start, row.end)
        if found is not None:
            row.turn, row.first, row.last = found.turn, found.first, found.last


def _holds(row: EvidenceRow, transcript: Transcript) -> bool:
    """Whether the words that a passage names are the ones at its time: others may speak at once, and are not meant."""
    words = transcript.turns[row.turn].words if row.turn < len(transcript.turns) else ()
    return row.last < len(words) and abs(words[row.first].start - row.start) < EXACT


def spans_of(line: LineRow) -> tuple[tuple[float, float], ...]:
    """Start and end in seconds of what a line rests on, its answer's aside."""
    return tuple((row.start, row.end) for row in line.evidence if not row.of_answer)


EXACT = 0.01  # seconds by which the rounding of stored times may differ

SPACING = 1024  # between the numbers of lines that follow each other, so that others find room between them


def number_lines(lines: Sequence[LineRow]) -> None:
    """Numbers lines in their order."""
    for place, line in enumerate(lines, 1):
        if line.number != place * SPACING:
            line.number = place * SPACING
