"""Some three hundred and seventy short exchanges, said on Wednesday 6 May 2026 at two: who has taken what on, and by when.

`tasks_said.txt` holds them; behind `>` stand whoever owns the one task, and its day, or `nothing`. What a day means
follows the table of readings in `tests/outside` (common practice, no source).
"""

from datetime import date, time
from pathlib import Path

import pytest

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import MeetingFacts
from tests.help import talk

VOICES = {"A": "Ann Lowe", "B": "Ben Hart", "C": "Cleo Dunn", "D": "Joan Pike"}
FACTS = MeetingFacts(date(2026, 5, 6), tuple(VOICES.values()), begun=time(14, 0))
EXCHANGES = Path(__file__).with_name("tasks_said.txt").read_text().strip().split("\n--\n")


@pytest.mark.parametrize("exchange", EXCHANGES, ids=[each.splitlines()[0][3:60] for each in EXCHANGES])
def test_who_has_taken_on_what_by_when(exchange: str) -> None:
    *rows, wanted = exchange.splitlines()
    lines = make_minutes(talk(*((VOICES[row[0]], row[3:]) for row in rows)), FACTS).lines
    found = [
        ", ".join(sorted(name.split()[0] for name in line.owner)) + (f" | {line.due}" if line.due else "")
        for line in lines
        if line.kind == "action" and line.state != "superseded"
    ]
    assert found == ([] if wanted == "> nothing" else [wanted.removeprefix("> ")])
