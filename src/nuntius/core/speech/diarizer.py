"""What every diarizer does: sound in, who spoke when out."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Protocol

from nuntius.core.audio.decode import Samples


@dataclass(frozen=True, order=True, slots=True)
class Span:
    """One voice speaking without a break from `start` to `end` seconds; spans may overlap."""

    start: float
    end: float
    voice: str


class Diarizer(Protocol):
    """Finds who speaks when, as the sound arrives or all at once."""

    def push(self, samples: Samples) -> None:
        """Takes more mono 16 kHz samples, shape (n,)."""
        ...

    def finish(self) -> None:
        """Says that the sound has ended."""
        ...

    def spans(self, people: int | None = None) -> list[Span]:
        """Spans so far, by start; `people` is the number of voices where it is known.

        A voice keeps its name from call to call. Empty when nobody has spoken.
        """
        ...


def relabelled(spans: Sequence[Span], names: dict[str, str]) -> list[Span]:
    """The spans under other names."""
    return [Span(span.start, span.end, names.get(span.voice, span.voice)) for span in spans]


def voice_name(number: int) -> str:
    """`Voice A` for 0, `Voice Z` for 25, `Voice AA` for 26."""
    letters = ""
    number += 1
    while number:
        number, rest = divmod(number - 1, 26)
        letters = chr(ord("A") + rest) + letters
    return f"Voice {letters}"
