"""Tables as comma-separated values (RFC 4180)."""

import csv
from collections.abc import Iterable, Iterator, Sequence
from io import StringIO

from nuntius.core.floor_report import FloorReport
from nuntius.core.formats.markdown import WrittenMinutes
from nuntius.core.minutes.line import LineKind, LineState
from nuntius.core.transcript.transcript import Transcript

STARTS_FORMULA = (
    "=",
    "+",
    "-",
    "@",
    "\t",
    "\r",
)  # what a spreadsheet would compute instead of show; common practice, no source


def table(head: Sequence[str], rows: Iterable[Sequence[object]]) -> Iterator[str]:
    """Rows with a head, each with its line end. Text that a spreadsheet would compute gets an apostrophe before it."""
    yield _row(head)
    for row in rows:
        yield _row(row)


def _row(cells: Sequence[object]) -> str:
    made = StringIO()
    csv.writer(made).writerow([_shown(cell) for cell in cells])
    return made.getvalue()


def _shown(cell: object) -> object:
    return f"'{cell}" if isinstance(cell, str) and cell.startswith(STARTS_FORMULA) else cell


def write_transcript_csv(transcript: Transcript) -> Iterator[str]:
    """A row a turn: number, start and end in seconds, speaker, words."""
    turns = enumerate(transcript.turns, 1)
    rows = ((number, f"{t.start:.3f}", f"{t.end:.3f}", t.speaker, t.text) for number, t in turns)
    yield from table(("turn", "start", "end", "speaker", "text"), rows)


def write_actions_csv(minutes: WrittenMinutes) -> Iterator[str]:
    """A row an action: who, what, by when, the words of that, how far it is, whether it was checked, where it was said."""
    actions = [line for line in minutes.lines if line.kind == LineKind.ACTION]
    rows = (
        (
            ", ".join(a.owner),
            a.text,
            a.due_date or "",
            a.due_said,
            a.state if a.state == LineState.SUPERSEDED else a.progress,
            "yes" if a.checked else "no",
            ", ".join(a.passages),
            a.note,
        )
        for a in actions
    )
    yield from table(("owner", "task", "due", "due as said", "state", "checked", "times", "remark"), rows)


def write_floor_csv(report: FloorReport) -> Iterator[str]:
    """A row a voice: share, seconds, turns, longest, how often and long it began over others, words, pace, questions."""
    head = (
        "voice",
        "share",
        "seconds",
        "turns",
        "longest",
        "began over others",
        "seconds over others",
        "words",
        "words a minute",
        "questions",
    )
    rows = (
        (
            v.voice,
            f"{report.shares[v.voice]:.4f}",
            f"{v.seconds:.2f}",
            v.turns,
            f"{v.longest:.2f}",
            v.overlaps,
            f"{v.overlapped:.2f}",
            v.words,
            f"{v.pace:.1f}",
            v.questions,
        )
        for v in report.voices
    )
    yield from table(head, rows)
