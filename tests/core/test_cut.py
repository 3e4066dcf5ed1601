"""Cut points: where a passage begins and ends in the sound."""

from pathlib import Path

import av
import numpy as np
import pytest

from nuntius.core.audio.cut import FADE, cut, places, write_passages
from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import WorkingCopy, to_bytes


@pytest.fixture
def copy(tmp_path: Path) -> WorkingCopy:
    """Ten seconds of silence with a loud second from 3 to 4."""
    samples = np.zeros(10 * RATE, np.float32)
    samples[3 * RATE : 4 * RATE] = np.sin(np.arange(RATE) * 0.3).astype(np.float32) * 0.8
    (tmp_path / "working.pcm").write_bytes(to_bytes(samples))
    return WorkingCopy(tmp_path / "working.pcm")


def test_a_passage_is_exact_to_the_sample_and_fades(copy: WorkingCopy) -> None:
    made = cut(copy, 3.0, 4.0)
    assert len(made) == RATE
    length = round(FADE * RATE)
    assert made[0] == 0 and abs(made[-1]) < 0.01
    np.testing.assert_array_equal(made[length:-length], copy.read(3.0, 4.0)[length:-length])


def test_the_recording_itself_is_left_alone(copy: WorkingCopy) -> None:
    before = copy.read(3.0, 3.1)
    cut(copy, 3.0, 3.1)
    np.testing.assert_array_equal(copy.read(3.0, 3.1), before)


@pytest.mark.parametrize(
    ("start", "end", "length"), [(3.0, 3.005, 80), (9.9, 12.0, 1600), (20.0, 21.0, 0), (5.0, 5.0, 0)]
)
def test_short_and_outside_passages(copy: WorkingCopy, start: float, end: float, length: int) -> None:
    assert len(cut(copy, start, end)) == length


def test_the_sound_stands_within_20_ms_of_where_it_was_cut(copy: WorkingCopy, tmp_path: Path) -> None:
    write_passages([cut(copy, 2.5, 4.5), cut(copy, 3.0, 3.5)], tmp_path / "out.ogg")
    assert places([2.0, 0.5]) == [(0.0, 2.0), (2.6, 3.1)]
    sound = np.abs(load(tmp_path / "out.ogg"))
    loud = np.flatnonzero(sound > 0.2) / RATE
    assert loud[0] == pytest.approx(0.5, abs=0.02)
    first = loud[loud < 2.0]
    assert first[-1] == pytest.approx(1.5, abs=0.02)
    second = loud[loud > 2.0]
    assert (second[0], second[-1]) == (pytest.approx(2.6, abs=0.02), pytest.approx(3.1, abs=0.02))
    with av.open(str(tmp_path / "out.ogg")) as made:
        assert (
            made.streams.audio[0].codec_context.name == "opus" or made.streams.audio[0].codec_context.name == "libopus"
        )
