"""Passages of one or several meetings in titled sections, and where each stands when they are played as one."""

from dataclasses import dataclass
from pathlib import Path

PAUSE = 0.6  # seconds of silence between two passages; common practice, no source
BEFORE_SECTION = 1.0  # seconds of silence before a section, so that it is heard as one
SHORTEST_CAPTION = 0.3  # seconds


@dataclass(frozen=True, slots=True)
class Said:
    """Words of one voice within a passage; seconds from the passage's beginning."""

    speaker: str
    start: float
    end: float
    text: str


@dataclass(frozen=True, slots=True)
class Clip:
    """A passage: seconds `start` to `end` of a working copy, with its picture where the meeting has one.

    `source` says where it is from: meeting, day, time.
    """

    title: str
    source: str
    sound: Path
    start: float
    end: float
    said: tuple[Said, ...] = ()
    picture: Path | None = None

    @property
    def length(self) -> float:
        return self.end - self.start


@dataclass(frozen=True, slots=True)
class Part:
    """A section: a title ("" for none) and its passages."""

    title: str
    clips: tuple[Clip, ...]


@dataclass(frozen=True, slots=True)
class Placed:
    """What is heard from `start` to `end` seconds of the whole: a passage, or (`clip` None) a section's heading."""

    start: float
    end: float
    part: int
    clip: Clip | None


def laid_out(parts: tuple[Part, ...], headings: tuple[float, ...]) -> tuple[Placed, ...]:
    """Every heading and passage at its place. `headings` are the seconds of each section's spoken title, 0 for none."""
    made: list[Placed] = []
    clock = 0.0
    for number, (part, heading) in enumerate(zip(parts, headings, strict=True)):
        clock += BEFORE_SECTION if made and part.title else 0.0
        if heading:
            made.append(Placed(clock, clock + heading, number, None))
            clock += heading + PAUSE
        for i, clip in enumerate(part.clips):
            clock += PAUSE if i or (made and not heading and not part.title) else 0.0
            made.append(Placed(clock, clock + clip.length, number, clip))
            clock += clip.length
    return tuple(made)


def chapters(parts: tuple[Part, ...], placed: tuple[Placed, ...]) -> list[tuple[str, float, float]]:
    """Title, start and end (seconds) of each chapter: the sections, or the passages where sections have no titles."""
    titled = any(part.title for part in parts)
    starts: list[tuple[str, float]] = []
    last = -1
    for each in placed:
        title = parts[each.part].title if titled else each.clip.title if each.clip else ""
        if not titled or each.part != last:
            starts.append((title or "Without a title", each.start))
        last = each.part
    ends = [start for _, start in starts[1:]] + [placed[-1].end if placed else 0.0]
    return [(title, start, end) for (title, start), end in zip(starts, ends, strict=True)]


def captions(parts: tuple[Part, ...], placed: tuple[Placed, ...]) -> list[Said]:
    """What is said when in the whole, in order; a spoken heading is a caption without a speaker."""
    made = []
    for each in placed:
        if each.clip is None:
            made.append(Said("", each.start, each.end, parts[each.part].title))
        for said in each.clip.said if each.clip else ():
            start = each.start + max(0.0, said.start)
            end = min(each.end, each.start + said.end)
            if end - start >= SHORTEST_CAPTION:
                made.append(Said(said.speaker, start, end, said.text))
    return made
