"""A transcript: the turns of a meeting in order."""

from dataclasses import dataclass

from nuntius.core.transcript.turn import Turn


@dataclass(frozen=True, slots=True)
class Transcript:
    """Turns by start; `duration` is the length of the sound in seconds (or the last end)."""

    turns: tuple[Turn, ...]
    duration: float

    @property
    def speakers(self) -> tuple[str, ...]:
        """Speakers in the order in which they first spoke."""
        return tuple(dict.fromkeys(turn.speaker for turn in self.turns))

    @property
    def word_count(self) -> int:
        return sum(len(turn.words) for turn in self.turns)


def in_order(turns: list[Turn], duration: float | None = None) -> Transcript:
    """A transcript of the turns that hold words, sorted by start and numbered where they have no cue."""
    kept = sorted((turn for turn in turns if turn.words), key=lambda turn: (turn.start, turn.end))
    named = tuple(
        turn if turn.cue else Turn(turn.speaker, turn.words, str(number)) for number, turn in enumerate(kept, 1)
    )
    last = max((turn.end for turn in named), default=0.0)
    return Transcript(named, last if duration is None else max(duration, 0.0))
