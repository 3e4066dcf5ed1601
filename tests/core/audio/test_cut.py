"""Cut points: where a passage begins and ends in the sound."""

from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.cut import FADE, cut
from nuntius.core.audio.decode import RATE
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
