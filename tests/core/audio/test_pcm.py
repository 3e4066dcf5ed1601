"""The working copy: stretches read from a file of samples."""

from pathlib import Path

import numpy as np

from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from tests.help import tone


def test_the_working_copy_reads_stretches(wav: Path, tmp_path: Path) -> None:
    prepare(wav, tmp_path / "w.pcm", tmp_path / "p.ogg")
    sound = WorkingCopy(tmp_path / "w.pcm")
    assert np.abs(sound.read(1.0, 1.5) - tone(3.0)[16_000:24_000]).max() < 2e-4
    assert len(sound.read(2.9, 9.0)) == 1_600
    assert len(sound.read(5.0, 6.0)) == 0
