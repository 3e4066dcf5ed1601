"""Live text: what has been heard while the meeting still runs."""

from dataclasses import dataclass


@dataclass(frozen=True, order=True, slots=True)
class LiveLine:
    """A stretch of speech between two short pauses, `start` to `end` in seconds from the meeting's start."""

    start: float
    end: float
    text: str


@dataclass(frozen=True, slots=True)
class Heard:
    """Lines that have become settled since the last time, and the one that is still being spoken."""

    settled: tuple[LiveLine, ...] = ()
    partial: LiveLine | None = None


@dataclass(frozen=True, slots=True)
class VoicedLine:
    """A settled line with its voice (None while none is assigned) and a person's words in its place."""

    number: int
    line: LiveLine
    voice: str | None = None
    person_text: str | None = None

    @property
    def text(self) -> str:
        """What stands on the page: a person's words before the machine's."""
        return self.line.text if self.person_text is None else self.person_text
