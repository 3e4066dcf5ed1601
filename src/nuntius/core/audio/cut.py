"""Passages cut out of a recording, to the sample, with short fades at both ends."""

from collections.abc import Iterable
from pathlib import Path

import av
import numpy as np

from nuntius.core.audio.decode import RATE, Resampler, Samples
from nuntius.core.audio.encode import OPUS_BITS, OPUS_RATE, SoundWriter
from nuntius.core.audio.pcm import WorkingCopy

FADE = 0.010  # seconds; long enough against a click, too short to be heard; common practice, no source
PAUSE = 0.6  # seconds of silence between two passages that are played as one; common practice, no source


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


def write_passages(passages: Iterable[Samples], target: Path, pause: float = PAUSE) -> list[tuple[float, float]]:
    """An Ogg/Opus file of passages one after another; start and end (seconds) of each in it."""
    places: list[tuple[float, float]] = []
    at = 0.0
    with av.open(str(target), "w", format="ogg") as out:
        writer, resampler = SoundWriter(out, "libopus", OPUS_RATE, OPUS_BITS), Resampler(OPUS_RATE, 0)
        for passage in passages:
            if places:
                writer.push(resampler.push(_frame(np.zeros(round(pause * RATE), np.float32))))
                at += pause
            writer.push(resampler.push(_frame(passage)))
            places.append((at, at + len(passage) / RATE))
            at = places[-1][1]
        writer.push(resampler.push(None))
        writer.finish()
    return places


def _frame(samples: Samples) -> av.AudioFrame:
    frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(samples[None]), "flt", "mono")
    frame.sample_rate = RATE
    return frame
