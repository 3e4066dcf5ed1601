"""Floor figures held against pyannote.core on the same spans.

Source: pyannote.core, `Annotation.label_duration`, `Timeline.support` and `Annotation.get_overlap`.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pyannote.core import Annotation, Segment

from nuntius.core.floor_report import floor_report
from nuntius.core.transcript.transcript import Transcript

SPANS = st.lists(
    st.tuples(st.integers(0, 90_000), st.integers(100, 9_000), st.sampled_from("ABC")).map(
        lambda row: (row[0] / 1000, (row[0] + row[1]) / 1000, row[2])
    ),
    min_size=1,
    max_size=15,
)


@pytest.mark.outside
@given(SPANS)
def test_seconds_silence_and_overlap_are_those_of_the_reference(spans: list[tuple[float, float, str]]) -> None:
    reference = Annotation()
    for number, (start, end, label) in enumerate(spans):
        reference[Segment(start, end), number] = label
    support = reference.support()  # one voice's own spans may meet: they count once there
    joined = [(segment.start, segment.end, str(label)) for segment, _, label in support.itertracks(yield_label=True)]
    report = floor_report(joined, Transcript((), 0.0), 100)
    for voice in report.voices:
        assert voice.seconds == pytest.approx(support.label_duration(voice.voice), abs=1e-6)
    spoken = support.get_timeline().support().duration()
    assert report.silence == pytest.approx(100 - spoken, abs=1e-6)
    overlapped = support.get_overlap().duration()
    # where three speak at once, both who came later speak over somebody
    assert report.overlap >= overlapped - 1e-6
    assert (report.overlap > 0) == (overlapped > 0)
