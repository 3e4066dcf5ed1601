"""A turn: one speaker's uninterrupted speech."""

from dataclasses import dataclass

from nuntius.core.transcript.word import Word


@dataclass(frozen=True, slots=True)
class Turn:
    """Words of one speaker in order; `cue` is the identifier the turn had in its source, if any."""

    speaker: str
    words: tuple[Word, ...]
    cue: str = ""

    @property
    def start(self) -> float:
        """Start of the first word in seconds; 0 for a turn without words."""
        return self.words[0].start if self.words else 0.0

    @property
    def end(self) -> float:
        """End of the last word in seconds; 0 for a turn without words."""
        return max(word.end for word in self.words) if self.words else 0.0

    @property
    def text(self) -> str:
        """The words, joined by single spaces."""
        return " ".join(word.text for word in self.words)
