"""Who spoke, held against labelled talk that pyannote-audio carries, with pyannote.metrics.

The error is scored with overlap and with 0.25 s on each side of a border left out, as NIST's Rich Transcription
evaluation plans do (RT-09). The limits are what was measured on this very sound, with a little room; the aim is to
notice a step back.
"""

import pytest
from pyannote.core import Annotation, Segment, Timeline
from pyannote.metrics.diarization import DiarizationErrorRate

from nuntius.core.audio.decode import RATE
from nuntius.core.speech.diarizer import Span
from nuntius.jobs.engines import diarizer
from nuntius.settings import Settings
from tests.outside.published import Labelled, meetings, telephone_call

pytestmark = pytest.mark.outside
COLLAR = 0.5  # seconds in all, half of it on each side


def spans(clip: Labelled, people: int | None = None) -> list[Span]:
    engine = diarizer(Settings.from_environment({}))
    engine.push(clip.samples)
    engine.finish()
    return engine.spans(people)


def annotation(found: list[Span]) -> Annotation:
    made = Annotation()
    for number, span in enumerate(found):
        made[Segment(span.start, span.end), number] = span.voice
    return made


def error_rate(clips: list[Labelled], *, told: bool = False) -> float:
    """Pooled over all clips: components are added up before the ratio is taken."""
    metric = DiarizationErrorRate(collar=COLLAR)
    for clip in clips:
        found = annotation(spans(clip, len(clip.reference.labels()) if told else None))
        whole = Timeline([Segment(0, len(clip.samples) / RATE)])
        metric(clip.reference, found, uem=whole)
    return float(abs(metric))


def test_a_telephone_call_of_two() -> None:
    call = telephone_call()
    assert {span.voice for span in spans(call)} == {"Voice A", "Voice B"}
    assert error_rate([call]) < 0.05


def test_meetings_heard_from_afar() -> None:
    clips = [*meetings(), telephone_call()]
    assert len(clips) == 15
    assert error_rate(clips) < 0.27
    assert error_rate(clips, told=True) < 0.26
