"""Passages cut out of a recording, to the sample, with short fades at both ends."""

from collections.abc import Iterable, Sequence
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


def places(lengths: Sequence[float], pause: float = PAUSE) -> list[tuple[float, float]]:
    """Start and end (seconds) of passages of these lengths in a file that holds them one after another."""
    made: list[tuple[float, float]] = []
    for length in lengths:
        start = made[-1][1] + pause if made else 0.0
        made.append((start, start + length))
    return made


def write_passages(passages: Iterable[Samples], target: Path, pause: float = PAUSE) -> None:
    """An Ogg/Opus file of passages one after another, with a pause between them."""
    with av.open(str(target), "w", format="ogg") as out:
        writer, resampler = SoundWriter(out, "libopus", OPUS_RATE, OPUS_BITS), Resampler(OPUS_RATE)
        for number, passage in enumerate(passages):
            if number:
                writer.push(resampler.push(_frame(np.zeros(round(pause * RATE), np.float32))))
            writer.push(resampler.push(_frame(passage)))
        writer.push(resampler.push(None))
        writer.finish()


def _frame(samples: Samples) -> av.AudioFrame:
    frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(samples[None]), "flt", "mono")
    frame.sample_rate = RATE
    return frame
