"""Decoding, streamed: memory does not grow with the length of the recording."""

from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

import av
import numpy as np
from av.error import EOFError as AvEnd
from av.error import FFmpegError
from numpy.typing import NDArray

from nuntius.core.audio.probe import open_media

RATE = 16_000  # Hz, what the recogniser and the diarizer take
ADTS_PRIMING = 1024  # samples that an AAC encoder puts before the sound; ADTS has no field for it

Samples = NDArray[np.float32]


@dataclass(slots=True)
class Decoding:
    """State of one pass: `broken` becomes True when the file ended in the middle of its data."""

    broken: bool = False


def frames(path: Path, state: Decoding) -> Iterator[av.AudioFrame]:
    """Decoded frames of the first sound track; a truncated or damaged tail ends the stream quietly."""
    with open_media(path) as container:
        stream = container.streams.audio[0]
        stream.codec_context.thread_type = "AUTO"
        packets = container.demux(stream)
        while True:
            try:
                packet = next(packets)
            except (StopIteration, AvEnd):
                return
            except FFmpegError:
                state.broken = True
                return
            try:
                yield from packet.decode()
            except FFmpegError:  # one damaged packet: go on with the next
                state.broken = True


class Resampler:
    """Frames in, mono float32 samples at `rate` Hz out."""

    def __init__(self, rate: int = RATE, skip: int = 0) -> None:
        self._resampler = av.AudioResampler("flt", "mono", rate)
        self._skip = skip  # samples at `rate` still to be dropped

    def push(self, frame: av.AudioFrame | None) -> Samples:
        """Samples that became ready, shape (n,); None flushes the end."""
        if frame is not None:
            frame.pts = None  # gaps and wild time stamps must not be filled with invented silence
        made = [part.to_ndarray().reshape(-1) for part in self._resampler.resample(frame)]
        samples = np.concatenate(made) if made else np.zeros(0, np.float32)
        dropped = min(self._skip, len(samples))
        self._skip -= dropped
        return samples[dropped:].astype(np.float32, copy=False)


def priming(path: Path, rate: int) -> int:
    """Samples at `rate` Hz to drop from the start of a bare AAC stream; 0 for every other container."""
    with open_media(path) as container:
        if container.format.name != "aac":
            return 0
        return round(ADTS_PRIMING * rate / container.streams.audio[0].codec_context.sample_rate)


def samples(path: Path, rate: int = RATE) -> Iterator[Samples]:
    """The sound of `path` as mono float32 blocks at `rate` Hz, each as long as the file's own frames."""
    resampler, state = Resampler(rate, priming(path, rate)), Decoding()
    for frame in frames(path, state):
        yield resampler.push(frame)
    yield resampler.push(None)


def load(path: Path, rate: int = RATE) -> Samples:
    """The whole sound of a short file, shape (n,)."""
    return np.concatenate(list(samples(path, rate)))
