"""The listening digest: a meeting's most important passages, chapter by chapter, within a length."""

from collections.abc import Sequence
from dataclasses import dataclass

from nuntius.core.minutes.line import LineKind, LineState

WORTH = {
    LineKind.DECISION: 3.0,
    LineKind.ACTION: 2.2,
    LineKind.RISK: 2.0,
    LineKind.KEY_POINT: 2.0,
    LineKind.TURNING_POINT: 1.6,
    LineKind.NEED: 1.6,
    LineKind.QUESTION: 1.0,
}
OPEN_QUESTION = 1.6  # worth of a question that stayed open
MARGIN = 0.2  # seconds before and behind a passage, so that no word is clipped
NEAR = 3.0  # seconds between two passages that are heard as one
LONGEST = 45.0  # seconds of one passage; what is longer is no highlight
COST = 6.0  # seconds that a passage costs beside its own length: the listener has to find in


@dataclass(frozen=True, slots=True)
class Highlight:
    """A line of the minutes as the digest sees it: kind, state, chapter, and the stretches (seconds) it rests on."""

    kind: LineKind
    state: LineState
    chapter: int
    text: str
    stretches: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Chosen:
    """A passage of the digest, in seconds."""

    chapter: int
    title: str
    start: float
    end: float


def digest(lines: Sequence[Highlight], seconds: float) -> list[Chosen]:
    """Passages that together last at most `seconds`, in the order of the talk, each stretch once.

    First the best passage of every chapter, then whatever is worth most for the time that it takes.
    """
    passages = [(_worth(line) / (b - a + COST), line, a, b) for line in lines for a, b in _stretches(line)]
    ranked = sorted((p for p in passages if p[0] > 0), key=lambda p: (-p[0], p[2]))
    firsts = [next(p for p in ranked if p[1].chapter == chapter) for chapter in sorted({p[1].chapter for p in ranked})]
    chosen: list[Chosen] = []
    left = seconds
    for _, line, start, end in [*sorted(firsts, key=lambda p: -p[0]), *ranked]:
        if end - start > left or any(start < c.end and c.start < end for c in chosen):
            continue
        chosen.append(Chosen(line.chapter, line.text, start, end))
        left -= end - start
    return _joined(sorted(chosen, key=lambda c: c.start))


def _worth(line: Highlight) -> float:
    if line.state == LineState.SUPERSEDED:
        return 0.0
    return (
        OPEN_QUESTION if line.kind == LineKind.QUESTION and line.state == LineState.OPEN else WORTH.get(line.kind, 0.0)
    )


def _stretches(line: Highlight) -> list[tuple[float, float]]:
    """What a line rests on, near pieces as one: the whole where it is short enough, else its first piece."""
    made: list[tuple[float, float]] = []
    for start, end in sorted(line.stretches):
        start, end = max(0.0, start - MARGIN), end + MARGIN
        if made and start - made[-1][1] <= NEAR and end - made[-1][0] <= LONGEST:
            made[-1] = (made[-1][0], max(made[-1][1], end))
        else:
            made.append((start, end))
    return [(start, min(end, start + LONGEST)) for start, end in made[:1]]


def _joined(chosen: list[Chosen]) -> list[Chosen]:
    """Passages of one chapter that follow each other at once, as one."""
    made: list[Chosen] = []
    for each in chosen:
        if made and made[-1].chapter == each.chapter and each.start - made[-1].end < 2 * MARGIN:
            made[-1] = Chosen(each.chapter, made[-1].title, made[-1].start, each.end)
        else:
            made.append(each)
    return made
