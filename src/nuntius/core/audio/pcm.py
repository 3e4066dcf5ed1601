"""The working copy of a recording: 16 kHz mono 16-bit samples in a bare file that can be mapped."""

from pathlib import Path

import numpy as np

from nuntius.core.audio.decode import RATE, Samples

FULL_SCALE = 32768.0  # 16-bit full scale


def to_bytes(samples: Samples) -> bytes:
    """16-bit little-endian bytes of float samples in -1 to 1; louder ones are clipped."""
    scaled = np.clip(samples * FULL_SCALE, -FULL_SCALE, FULL_SCALE - 1)
    return bytes(scaled.astype("<i2").tobytes())


class WorkingCopy:
    """Reads stretches of a working file without loading the rest."""

    def __init__(self, path: Path) -> None:
        self._data = np.memmap(path, "<i2", "r") if path.stat().st_size else np.zeros(0, "<i2")

    @property
    def duration(self) -> float:
        """Length in seconds."""
        return len(self._data) / RATE

    def read(self, start: float, end: float) -> Samples:
        """Float samples from `start` to `end` seconds, shape (n,); shorter at the end of the file."""
        part = self._data[max(0, round(start * RATE)) : max(0, round(end * RATE))]
        return np.asarray(part, np.float32) / np.float32(FULL_SCALE)
