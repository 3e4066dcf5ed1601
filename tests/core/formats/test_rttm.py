"""RTTM: who spoke when."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.formats.rttm import read_rttm, write_rttm
from nuntius.core.speech.diarizer import Span


@given(st.lists(st.tuples(st.floats(0, 1e4), st.floats(0.01, 60), st.sampled_from("AB")), max_size=8))
def test_rttm_reads_back_what_was_written(rows: list[tuple[float, float, str]]) -> None:
    spans = sorted(Span(a, a + d, v) for a, d, v in rows)
    after = read_rttm("".join(write_rttm(spans, "a meeting")))
    assert sorted(s.voice for s in after) == sorted(s.voice for s in spans)
    assert [s.start for s in after] == pytest.approx([s.start for s in spans], abs=0.001)
