"""All that is made of a file in one pass."""

from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from nuntius.core.audio.probe import probe


def test_a_pass_makes_working_copy_playback_copy_peaks_and_loudness(wav: Path, tmp_path: Path) -> None:
    heard: list[float] = []
    made = prepare(wav, tmp_path / "w.pcm", tmp_path / "p.ogg", heard.append)
    assert made.duration == pytest.approx(3.0)
    assert WorkingCopy(tmp_path / "w.pcm").duration == pytest.approx(3.0)
    assert probe(tmp_path / "p.ogg").codec == "opus"
    assert abs(len(load(tmp_path / "p.ogg")) / RATE - 3.0) < 0.03
    assert len(made.peaks) == 30
    assert set(made.peaks) <= {75, 76, 77}  # 0.3 of 255
    assert made.peak == pytest.approx(20 * np.log10(0.3), abs=0.05)
    assert not made.broken
    assert heard == sorted(heard)
    assert heard[-1] == pytest.approx(3.0)


def test_the_ending_of_the_name_counts_for_nothing(wav: Path, tmp_path: Path) -> None:
    wav.rename(tmp_path / "sound.mp3")
    assert probe(tmp_path / "sound.mp3").codec == "pcm_s16le"
