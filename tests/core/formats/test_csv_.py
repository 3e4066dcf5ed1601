"""Tables."""

import csv
import io

from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.formats.csv_ import table, write_actions_csv, write_transcript_csv
from tests.core.formats.samples import MINUTES, TALK


class TestTables:
    def test_a_transcript_a_row_a_turn(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_transcript_csv(TALK)))))
        assert [row["text"] for row in rows] == [turn.text for turn in TALK.turns]
        assert rows[1]["start"] == "5.000"

    def test_actions(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_actions_csv(MINUTES)))))
        assert [(row["owner"], row["due"], row["checked"]) for row in rows] == [
            ("Douglas", "2026-11-06", "yes"),
            ("", "", "no"),
        ]

    @given(st.text(st.characters(codec="utf-8", exclude_characters="\x00"), max_size=30))
    def test_nothing_is_computed_by_a_spreadsheet(self, text: str) -> None:
        (_, row) = csv.reader(io.StringIO("".join(table(("a",), [(text,)])), newline=""))
        shown = row[0] if row else ""
        assert shown.removeprefix("'") == text.removeprefix("'") and not shown.startswith(("=", "+", "-", "@"))
