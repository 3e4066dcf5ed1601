"""TTML: written, read back, and held against another reader."""

import pytest
from pycaption import DFXPReader

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.reading import read_transcript
from nuntius.core.formats.ttml import read_ttml, seconds, write_ttml
from tests.core.formats.samples import TALK


class TestTimedText:
    @pytest.mark.filterwarnings("ignore")  # of that reader's own making
    def test_another_reader_finds_the_same_cues(self) -> None:
        found = DFXPReader().read("".join(write_ttml(TALK)))
        captions = found.get_captions("en")
        assert [c.get_text() for c in captions] == [turn.text for turn in TALK.turns]
        assert [(c.start, c.end) for c in captions] == [(1_000_000, 4_500_000), (5_000_000, 7_250_000)]

    def test_it_comes_back_whole(self) -> None:
        again = read_transcript("".join(write_ttml(TALK)).encode())
        assert [(t.speaker, t.text, t.start, t.end) for t in again.turns] == [
            (t.speaker, t.text, t.start, t.end) for t in TALK.turns
        ]

    @pytest.mark.parametrize(
        ("text", "expected"),
        [("00:00:01.5", 1.5), ("01:00:00", 3600.0), ("00:00:01:15", 1.5), ("2.5s", 2.5), ("90f", 3.0), ("250ms", 0.25), ("1h", 3600.0), ("x", None), ("", None)],
    )  # fmt: skip
    def test_time_expressions(self, text: str, expected: float | None) -> None:
        """W3C TTML2, 12.3.1: clock time with fraction or frames (30 a second where none is named), offset time."""
        assert seconds(text) == expected

    def test_durations_breaks_and_missing_agents(self) -> None:
        text = (
            '<tt xmlns="http://www.w3.org/ns/ttml" xmlns:ttm="http://www.w3.org/ns/ttml#metadata"><body><div>'
            '<p begin="1s" dur="2s" ttm:agent="ines">One<br/>two</p><p begin="4s" end="5s">three</p><p begin="6s">lost</p>'
            "</div></body></tt>"
        )
        again = read_ttml(text)
        assert [(t.speaker, t.text, t.start, t.end) for t in again.turns] == [
            ("ines", "One two", 1.0, 3.0),
            ("ines", "three", 4.0, 5.0),
        ]

    @pytest.mark.parametrize("text", ["<tt", "<html></html>", '<!DOCTYPE a [<!ENTITY b "c">]><tt>&b;</tt>'])
    def test_broken_or_hostile_markup_is_refused(self, text: str) -> None:
        with pytest.raises(TranscriptUnreadable):
            read_ttml(text)
