"""Live text and live voices, fed as the sound would arrive, held against published text and labels."""

from itertools import pairwise

import jiwer
import numpy as np
import pytest
from pyannote.core import Annotation, Segment, Timeline
from pyannote.metrics.diarization import DiarizationErrorRate

from nuntius.core.audio.decode import RATE, Samples, load
from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.streamed import StreamedLines, StreamEngine
from nuntius.core.live.voices import LiveVoices
from nuntius.core.speech.diarization.networks import Networks
from tests.outside.published import librivox, telephone_call
from tests.outside.test_words import plain

pytestmark = pytest.mark.outside

PART = RATE // 2  # samples of a part, as a page sends them


@pytest.fixture(scope="module")
def engine() -> StreamEngine:
    return StreamEngine()


def heard(engine: StreamEngine, samples: Samples) -> list[LiveLine]:
    """The settled lines of a sound that arrives part by part."""
    stream = StreamedLines(engine)
    lines = [line for at in range(0, len(samples), PART) for line in stream.hear(samples[at : at + PART]).settled]
    return [*lines, *stream.finish().settled]


def test_read_books_as_they_are_read(engine: StreamEngine) -> None:
    """LibriVox clips of Debian's pocketsphinx-testdata with their published text."""
    texts, paths = zip(*librivox(), strict=True)
    found = [plain(" ".join(line.text for line in heard(engine, load(path)))) for path in paths]
    assert jiwer.wer([plain(text) for text in texts], found) <= 0.10


def test_lines_lie_in_the_order_of_time_and_where_somebody_speaks(engine: StreamEngine) -> None:
    """The telephone call of pyannote-audio with its published labels."""
    call = telephone_call()
    lines = heard(engine, call.samples)
    assert all(a.start <= b.start and a.end >= a.start for a, b in pairwise(lines))
    speech = call.reference.get_timeline().support()
    inside = sum(any(s.start - 0.5 <= (line.start + line.end) / 2 <= s.end + 0.5 for s in speech) for line in lines)
    assert inside == len(lines) > 2


def voiced(lines: list[LiveLine], samples: Samples) -> list[VoicedLine]:
    """The lines as they stand when the sound has arrived: voices told as it came, lines in pieces where several speak."""
    voices, rows = LiveVoices(Networks(1)), [VoicedLine(n, line) for n, line in enumerate(lines)]
    for at in range(0, len(samples) + 12 * RATE, PART):
        voices.push(samples[at : at + PART] if at < len(samples) else np.zeros(PART, np.float32))
        there = [row for row in rows if row.line.end <= (at + PART) / RATE]
        for number, pieces in voices.assign(there).items():
            rows = [row for row in rows if row.number != number]
            following = max((row.number for row in rows), default=0) + 1
            made = [VoicedLine(number if i == 0 else following + i, *piece) for i, piece in enumerate(pieces)]
            rows = sorted([*rows, *made], key=lambda row: row.line.start)
    return rows


def test_live_voices_of_the_call(engine: StreamEngine) -> None:
    """Against the call's published labels, no time off at borders.

    The recogniser makes three lines of the thirty seconds: taken whole, 30 % of the speech bears the wrong voice, in
    pieces 15 %.
    """
    call = telephone_call()
    hypothesis = Annotation()
    for row in voiced(heard(engine, call.samples), call.samples):
        if row.voice:
            hypothesis[Segment(row.line.start, row.line.end)] = row.voice
    extent = Timeline([Segment(0.0, len(call.samples) / RATE)])
    error = DiarizationErrorRate().compute_components(call.reference, hypothesis, uem=extent)
    assert error["confusion"] / error["total"] <= 0.2


def test_a_stream_that_is_begun_again_loses_nothing(engine: StreamEngine) -> None:
    """Hearing goes on at any sample, as after a restart: the words behind it are the same."""
    samples = np.concatenate([load(path) for _, path in librivox()])
    whole = heard(engine, samples)
    later = whole[len(whole) // 2]
    stream = StreamedLines(engine, later.start - 0.2)
    begun = samples[round((later.start - 0.2) * RATE) :]
    again = [line for at in range(0, len(begun), PART) for line in stream.hear(begun[at : at + PART]).settled]
    again += stream.finish().settled
    assert abs(again[0].start - later.start) < 0.6
    assert (
        jiwer.wer(
            plain(" ".join(e.text for e in whole if e.start >= later.start)), plain(" ".join(e.text for e in again))
        )
        < 0.2
    )
    assert np.all(np.diff([line.start for line in again]) >= 0)
