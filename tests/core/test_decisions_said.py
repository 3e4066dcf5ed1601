"""Some hundred and thirty short exchanges, said on Wednesday 6 May 2026 at two: whether something is settled, and where.

`decisions_said.txt` holds them; behind the words that settle the one matter, or from which it is told, stands `*`.
"""

from datetime import date, time
from pathlib import Path

import pytest

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import MeetingFacts
from tests.help import talk

VOICES = {"A": "Ann Lowe", "B": "Ben Hart", "C": "Cleo Dunn", "D": "Joan Pike"}
FACTS = MeetingFacts(date(2026, 5, 6), tuple(VOICES.values()), begun=time(14, 0))
EXCHANGES = Path(__file__).with_name("decisions_said.txt").read_text().strip().split("\n--\n")


@pytest.mark.parametrize("exchange", EXCHANGES, ids=[each.splitlines()[0][3:60] for each in EXCHANGES])
def test_what_is_settled(exchange: str) -> None:
    rows = exchange.splitlines()
    settle = {number for number, row in enumerate(rows) if row.endswith(" *")}
    said = ((VOICES[row[0]], row[3:].removesuffix(" *")) for row in rows)
    lines = make_minutes(talk(*said), FACTS).lines
    found = [line.turns for line in lines if line.kind == "decision" and line.state != "superseded"]
    assert len(found) == min(1, len(settle))
    assert all(turns & settle for turns in found)
