"""Some hundred and thirty short exchanges: whether something is settled, and where.

`decisions_said.txt` holds them; behind the words that settle the one matter, or from which it is told, stands `*`.
"""

import pytest

from tests.help import exchanges, lines_of

EXCHANGES = exchanges("decisions_said.txt")


@pytest.mark.parametrize("exchange", EXCHANGES, ids=[each.splitlines()[0][3:60] for each in EXCHANGES])
def test_what_is_settled(exchange: str) -> None:
    rows = exchange.splitlines()
    settle = {number for number, row in enumerate(rows) if row.endswith(" *")}
    found = [line.turns for line in lines_of([row.removesuffix(" *") for row in rows], "decision")]
    assert len(found) == min(1, len(settle))
    assert all(turns & settle for turns in found)
