"""Words of a transcript with their place, as they are shown beside what rests on them."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Quoted:
    """Words of a turn, from `start` to `end` in seconds; `quote` may hold some around them."""

    turn: int
    start: float
    end: float
    speaker: str
    quote: str
