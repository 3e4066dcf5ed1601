"""Sound in, windows out: who is active in each ten seconds, and an embedding of each of them.

The trunk of the embedding network runs once over the sound in blocks; every window then pools its own
stretch of the trunk's frames, so that overlapping windows cost little.
"""

import math
from dataclasses import dataclass, field

import numpy as np

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.speech.diarization.features import Features, log_mel
from nuntius.core.speech.diarization.networks import (
    EMBEDDING,
    FRAME,
    LOCAL,
    POWERSET,
    TRUNK_FRAME,
    TRUNK_WIDTH,
    WINDOW_FRAMES,
    WINDOW_SECONDS,
    Floats,
    Networks,
)

BLOCK = 20.0  # seconds of sound behind one run of the trunk; shorter ones answer sooner and cost a little more
CONTEXT = 0.8  # seconds on each side of a block, so that its borders are computed as if in the middle
NORMALISED = 2000  # feature frames (20 s) whose mean is taken off
LEAST_CLEAN = 0.5  # seconds of speech without overlap below which overlapped frames are used too
BATCH = 8  # windows a run of the segmentation
WINDOW_TRUNK_FRAMES = round(WINDOW_SECONDS / TRUNK_FRAME)


@dataclass(frozen=True, slots=True)
class Window:
    """Ten seconds from `start` (seconds): `active` (589, 3) of bool, and for each of the three local voices
    an embedding (256,) and its clean seconds."""

    start: float
    active: np.ndarray
    embeddings: Floats
    clean: Floats


@dataclass(slots=True)
class WindowReader:
    """Cuts arriving sound into windows that begin `step` seconds apart."""

    networks: Networks
    step: float
    block: float = BLOCK
    windows: list[Window] = field(default_factory=list)
    seen: int = 0  # samples so far
    _sound: Samples = field(default_factory=lambda: np.zeros(0, np.float32))
    _sound_start: int = 0  # sample number of the first one kept
    _frames: Floats = field(default_factory=lambda: np.zeros((TRUNK_WIDTH, 0), np.float32))
    _frames_start: int = 0  # trunk frame number of the first one kept
    _history: Features = field(default_factory=lambda: np.zeros((0, 80), np.float32))

    @property
    def duration(self) -> float:
        """Seconds of sound seen."""
        return self.seen / RATE

    def push(self, samples: Samples, last: bool = False) -> None:
        """Takes samples, shape (n,); `last` makes windows of the rest, too."""
        self._sound = np.concatenate([self._sound, samples])
        self.seen += len(samples)
        while self._run_trunk(last):
            self._read_windows(last)
        self._read_windows(last)

    def _trunk_end(self) -> int:
        return int(self._frames_start + self._frames.shape[1])

    def _run_trunk(self, last: bool) -> bool:
        """Runs the trunk over one more block if enough sound is there."""
        begin = self._trunk_end() * TRUNK_FRAME
        length = min(self.block, self.duration - begin)
        if length < TRUNK_FRAME or (not last and begin + length + CONTEXT > self.duration):
            return False
        left, right = max(0.0, begin - CONTEXT), min(self.duration, begin + length + CONTEXT)
        first = round(left * RATE)
        features = log_mel(self._samples(first, max(round(right * RATE) + 240, first + 4000)))
        fresh = features[round((begin - left) * 100) :]
        heard = np.concatenate([self._history, fresh])[-NORMALISED:]
        self._history = heard[: len(heard) - round(CONTEXT * 100)]
        skip = round((begin - left) / TRUNK_FRAME)
        count = math.ceil(length / TRUNK_FRAME - 0.01)
        made = self.networks.trunk(features - heard.mean(0))[:, skip : skip + count]
        self._frames = np.concatenate([self._frames, made], 1)
        return bool(made.shape[1] > 0)

    def _samples(self, first: int, end: int) -> Samples:
        """Samples `first` to `end`, with silence where the sound has ended."""
        part = self._sound[max(0, first - self._sound_start) : max(0, end - self._sound_start)]
        return np.pad(part, (0, end - first - len(part)))

    def _read_windows(self, last: bool) -> None:
        number, todo = len(self.windows), []
        while self._ready(number, last):
            todo.append(number)
            number += 1
        for start in range(0, len(todo), BATCH):
            self._read_batch(todo[start : start + BATCH])
        self._forget()

    def _ready(self, number: int, last: bool) -> bool:
        end, framed = number * self.step + WINDOW_SECONDS, self._trunk_end() * TRUNK_FRAME
        if end <= min(self.duration, framed):
            return True
        whole = last and framed + TRUNK_FRAME >= self.duration
        return whole and (number == 0 or end - self.step < self.duration)

    def _read_batch(self, numbers: list[int]) -> None:
        size = round(WINDOW_SECONDS * RATE)
        firsts = [round(number * self.step * RATE) for number in numbers]
        scores = self.networks.classes(np.stack([self._samples(first, first + size) for first in firsts]))
        active = most_likely(scores)
        for number, window in zip(numbers, active, strict=True):
            clean = window & (window.sum(1, keepdims=True) == 1)
            start = number * self.step
            self.windows.append(
                Window(start, window, self._embeddings(start, window, clean), clean.sum(0).astype(np.float32) * FRAME)
            )

    def _embeddings(self, start: float, active: np.ndarray, clean: np.ndarray) -> Floats:
        """Embeddings (3, 256) from clean frames where there are enough, else from all active ones."""
        first = max(round(start / TRUNK_FRAME), self._frames_start)
        end = min(self._trunk_end(), round(start / TRUNK_FRAME) + WINDOW_TRUNK_FRAMES)
        if end <= first:
            return np.zeros((LOCAL, EMBEDDING), np.float32)
        middles = (np.arange(first, end) + 0.5) * TRUNK_FRAME - start
        at = np.clip(middles / WINDOW_SECONDS * WINDOW_FRAMES, 0, WINDOW_FRAMES - 1).astype(int)
        enough = clean.sum(0) * FRAME >= LEAST_CLEAN
        masks = np.where(enough, clean[at], active[at]).astype(np.float32)
        frames = self._frames[:, first - self._frames_start : end - self._frames_start]
        return self.networks.embed(frames, masks)

    def _forget(self) -> None:
        """Drops sound and frames that no later window needs."""
        following = len(self.windows) * self.step
        drop = min(max(0, int(following / TRUNK_FRAME) - 2 - self._frames_start), self._frames.shape[1])
        self._frames, self._frames_start = self._frames[:, drop:], self._frames_start + drop
        needed = min(following, self._trunk_end() * TRUNK_FRAME) - CONTEXT
        keep = max(0, round(needed * RATE) - self._sound_start)
        self._sound, self._sound_start = self._sound[keep:], self._sound_start + keep


def most_likely(scores: Floats) -> np.ndarray:
    """Active local voices (b, 589, 3) of bool from log probabilities (b, 589, 7)."""
    return np.asarray(POWERSET[scores.argmax(-1)] > 0)
