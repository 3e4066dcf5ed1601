"""What every recogniser does, and how a long recording is laid before it."""

from dataclasses import dataclass
from typing import Protocol

import numpy as np

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.transcript.word import Word

STRETCH = 150.0  # seconds recognised at a time: progress, restart and memory all hang on it
SEEK = 20.0  # seconds before the end of a stretch in which the quietest moment is looked for
QUIET_WINDOW = 0.3  # seconds


class Recogniser(Protocol):
    """Turns sound into words."""

    name: str

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        """Words of mono 16 kHz samples, shape (n,), with times in seconds from the first sample."""
        ...


@dataclass(frozen=True, slots=True)
class Stretch:
    """A piece of a recording from `start` to `end` seconds."""

    start: float
    end: float


def stretches(sound: WorkingCopy) -> list[Stretch]:
    """Cuts a recording at quiet moments into pieces of at most STRETCH seconds; the same for the same sound."""
    cuts = [0.0]
    while sound.duration - cuts[-1] > STRETCH:
        begin = cuts[-1] + STRETCH - SEEK
        cuts.append(begin + _quietest(sound.read(begin, begin + SEEK)))
    return [Stretch(a, b) for a, b in zip(cuts, [*cuts[1:], sound.duration], strict=True) if b > a]


def _quietest(samples: Samples) -> float:
    """Middle in seconds of the quietest window of `samples`, the latest one of equals."""
    size = round(QUIET_WINDOW * RATE)
    energy = np.convolve(np.square(samples.astype(np.float64)), np.ones(size), "valid")[::160]
    lowest = len(energy) - 1 - int(np.argmin(energy[::-1]))
    return (lowest * 160 + size / 2) / RATE


def recognise_stretch(recogniser: Recogniser, sound: WorkingCopy, stretch: Stretch) -> tuple[Word, ...]:
    """Words of one stretch, with times from the start of the recording."""
    words = recogniser.recognise(sound.read(stretch.start, stretch.end))
    return tuple(
        Word(word.start + stretch.start, word.end + stretch.start, word.text, word.confidence) for word in words
    )
