"""What is written for playback."""

from pathlib import Path

import numpy as np

from nuntius.core.audio.decode import load
from nuntius.core.audio.encode import write_picture
from nuntius.core.audio.probe import probe
from tests.core.audio.samples import burst, encode, shift
from tests.help import write_wav


def test_the_picture_is_kept_for_playback(tmp_path: Path, rng: np.random.Generator) -> None:
    encode(tmp_path / "v.mp4", burst(rng), "aac", picture=True)
    assert probe(tmp_path / "v.mp4").has_picture
    write_picture(tmp_path / "v.mp4", tmp_path / "out.mp4")
    assert probe(tmp_path / "out.mp4").has_picture
    write_wav(tmp_path / "true.wav", burst(np.random.default_rng(5)), 48_000)
    assert abs(shift(load(tmp_path / "out.mp4"), load(tmp_path / "true.wav"))) < 25
