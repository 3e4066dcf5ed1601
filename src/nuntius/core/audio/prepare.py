"""One pass over a recording: working copy, playback copy, waveform peaks, loudness."""

from collections.abc import Callable
from dataclasses import dataclass
from itertools import chain
from pathlib import Path

import av
import numpy as np

from nuntius.core.audio import pcm
from nuntius.core.audio.decode import RATE, Decoding, Resampler, Samples, frames, priming
from nuntius.core.audio.encode import OPUS_BITS, OPUS_RATE, SoundWriter
from nuntius.core.audio.level import SILENT_BELOW, LoudnessMeter, PeakMeter
from nuntius.core.audio.probe import LONGEST_HOURS
from nuntius.core.errors import SoundEmpty, SoundSilent, SoundTooLong

BLOCK = RATE  # samples measured and written at a time: one second


@dataclass(frozen=True, slots=True)
class Prepared:
    """What a pass found: `duration` in seconds, `loudness` in LUFS, `peak` in dBFS.

    `peaks` holds one byte a tenth of a second. `broken` says that the file ends in the middle.
    """

    duration: float
    loudness: float
    peak: float
    peaks: bytes
    broken: bool


def prepare(
    source: Path, working: Path, playback: Path, progress: Callable[[float], None] = lambda _: None
) -> Prepared:
    """Decodes `source` once into `working` (16 kHz PCM) and `playback` (Ogg/Opus).

    `progress` hears the seconds done. Raises SoundEmpty, SoundSilent, SoundTooLong, NotMedia.
    """
    state, peaks, loudness = Decoding(), PeakMeter(), LoudnessMeter()
    narrow, wide = Resampler(RATE, priming(source, RATE)), Resampler(OPUS_RATE, priming(source, OPUS_RATE))
    count = 0
    waiting: list[Samples] = []
    with working.open("wb") as out, av.open(str(playback), "w", format="ogg") as ogg:
        opus = SoundWriter(ogg, "libopus", OPUS_RATE, OPUS_BITS)
        for frame in chain(frames(source, state), [None]):  # None flushes
            opus.push(wide.push(frame))
            waiting.append(narrow.push(frame))
            if frame is not None and sum(map(len, waiting)) < BLOCK:
                continue
            samples = np.concatenate(waiting)
            waiting.clear()
            out.write(pcm.to_bytes(samples))
            peaks.push(samples)
            loudness.push(samples)
            count += len(samples)
            progress(count / RATE)
            if count > LONGEST_HOURS * 3600 * RATE:
                raise SoundTooLong(count / RATE / 3600, LONGEST_HOURS)
        opus.finish()
    if not count:
        raise SoundEmpty()
    if loudness.peak < SILENT_BELOW:
        raise SoundSilent()
    return Prepared(count / RATE, loudness.loudness, loudness.peak, peaks.finish(), state.broken)
