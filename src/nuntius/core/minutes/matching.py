"""Which line of newly made minutes is which of the ones before, so that links, ticks and history stay with it."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from nuntius.core.minutes.line import LineKind

Span = tuple[float, float]  # start and end in seconds

SAME = (
    0.3  # likeness from which a line that nobody touched counts as the same; below it another line stands at its place
)


@dataclass(frozen=True, slots=True)
class Comparable:
    """What a line is compared by. `kind` is None where a person chose it, so that any other kind may be the same line.

    `touched` says that a person changed or ticked it: it is the same as whatever rests on the same sound.
    """

    kind: LineKind | None
    text: str
    spans: tuple[Span, ...]
    touched: bool = False


def matched(before: Sequence[Comparable], after: Sequence[Comparable]) -> dict[int, int]:
    """Index of each line before and the index of what it is now, each used once, the likest pairs first.

    Only lines of one kind that rest on sound in common are paired. Empty where nothing is.
    """
    likest = sorted(
        (
            (-likeness, i, j)
            for i, one in enumerate(before)
            for j, other in enumerate(after)
            if (likeness := _likeness(one, other)) > (0 if one.touched else SAME)
        ),
    )
    pairs: dict[int, int] = {}
    taken: set[int] = set()
    for _, i, j in likest:
        if i not in pairs and j not in taken:
            pairs[i] = j
            taken.add(j)
    return pairs


def covered(inner: Iterable[Span], outer: Sequence[Span]) -> float:
    """Share of the seconds of `inner` that lie within `outer`, 0 to 1; 0 for no seconds."""
    spans = list(inner)
    whole = sum(end - start for start, end in spans)
    return _shared(spans, outer) / whole if whole > 0 else 0.0


def _likeness(one: Comparable, other: Comparable) -> float:
    """0 for lines that are not the same, else up to 1: the mean of the Jaccard indices of their sound and their words."""
    if one.kind not in (None, other.kind):
        return 0.0
    shared = _shared(one.spans, other.spans)
    if shared <= 0:
        return 0.0
    union = sum(end - start for start, end in (*one.spans, *other.spans)) - shared
    mine, theirs = _words(one.text), _words(other.text)
    words = len(mine & theirs) / len(mine | theirs) if mine | theirs else 0.0
    return (shared / union + words) / 2


def _shared(one: Iterable[Span], other: Sequence[Span]) -> float:
    return sum(max(0.0, min(b, d) - max(a, c)) for a, b in one for c, d in other)


def _words(text: str) -> frozenset[str]:
    return frozenset(re.findall(r"[a-z0-9']+", text.lower()))
