"""Some three hundred and seventy short exchanges, said on Wednesday 6 May 2026 at two: who has taken what on, and by when.

`tasks_said.txt` holds them; behind `>` stand whoever owns the one task, and its day, or `nothing`. What a day means
follows the table of readings in `tests/outside` (common practice, no source).
"""

import pytest

from tests.help import exchanges, lines_of

EXCHANGES = exchanges("tasks_said.txt")


@pytest.mark.parametrize("exchange", EXCHANGES, ids=[each.splitlines()[0][3:60] for each in EXCHANGES])
def test_who_has_taken_on_what_by_when(exchange: str) -> None:
    *rows, wanted = exchange.splitlines()
    found = [
        ", ".join(sorted(name.split()[0] for name in line.owner)) + (f" | {line.due}" if line.due else "")
        for line in lines_of(rows, "action")
    ]
    assert found == ([] if wanted == "> nothing" else [wanted.removeprefix("> ")])
