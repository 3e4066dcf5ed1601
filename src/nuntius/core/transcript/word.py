"""The smallest piece of a transcript: one spoken word with its times."""

from dataclasses import dataclass


@dataclass(frozen=True, order=True, slots=True)
class Word:
    """One word as written; times in seconds from the meeting's start, confidence 0 to 1."""

    start: float
    end: float
    text: str
    confidence: float = 1.0

    @property
    def ends_sentence(self) -> bool:
        """Whether a sentence ends with this word, by its sign."""
        return self.text.endswith((".", "?", "!"))

    @property
    def middle(self) -> float:
        """Midpoint in seconds: what decides to whom a word belongs."""
        return (self.start + self.end) / 2


def spread(text: str, start: float, end: float, confidence: float = 1.0) -> tuple[Word, ...]:
    """Words of a text that has only a start and an end (seconds).

    Each word gets a share of the time in proportion to its letters plus one for the gap behind it,
    which is as close as one comes without the sound. No words for an empty text.
    """
    parts = text.split()
    weights = [len(part) + 1 for part in parts]
    total = sum(weights)
    words, done = [], 0
    for part, weight in zip(parts, weights, strict=True):
        begin = start + (end - start) * done / total
        done += weight
        words.append(Word(begin, start + (end - start) * done / total, part, confidence))
    return tuple(words)
