"""Passages cut out of a recording, to the sample, with short fades at both ends."""

import numpy as np

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.audio.pcm import WorkingCopy

FADE = 0.010  # seconds; long enough against a click, too short to be heard; common practice, no source


def cut(copy: WorkingCopy, start: float, end: float, fade: float = FADE) -> Samples:
    """Samples from `start` to `end` seconds at 16 kHz, shape (n,), faded in and out over `fade` seconds.

    A passage shorter than two fades is faded over halves of it; empty outside the recording.
    """
    samples = copy.read(start, end).copy()
    length = min(round(fade * RATE), len(samples) // 2)
    if length:
        slope = np.linspace(0, 1, length, endpoint=False, dtype=np.float32)
        samples[:length] *= slope
        samples[-length:] *= slope[::-1]
    return samples
