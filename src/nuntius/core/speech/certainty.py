"""How sure it is who spoke a turn, by what the diarizer heard: told for each turn, shown where it is doubtful."""

from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

from nuntius.core.speech.diarizer import Span

DOUBTFUL = (
    0.5  # share of a turn's words heard in its own voice below which the voice is in doubt; common practice, no source
)
AT_ONCE = 0.5  # share of a turn's words during which another voice is heard, from which both speak at once


@dataclass(frozen=True, slots=True)
class Certainty:
    """`doubtful`: the words lie mostly outside what was heard of their voice; `over`: who speaks at the same time."""

    doubtful: bool = False
    over: tuple[str, ...] = ()


def certainties(turns: Sequence[tuple[str, Sequence[float]]], spans: Sequence[Span]) -> list[Certainty]:
    """The certainty of each turn, given as its voice and the middles of its words (seconds).

    Nothing is in doubt where no spans are known.
    """
    if not spans:
        return [Certainty() for _ in turns]
    ordered = sorted(spans)
    starts = [span.start for span in ordered]
    longest = max(span.end - span.start for span in ordered)
    return [_certainty(voice, middles, ordered, starts, longest) for voice, middles in turns]


def _certainty(
    voice: str, middles: Sequence[float], spans: Sequence[Span], starts: list[float], longest: float
) -> Certainty:
    own, others = 0, dict[str, int]()
    for middle in middles:
        near = spans[bisect_left(starts, middle - longest) : bisect_left(starts, middle)]
        heard = {span.voice for span in near if span.end >= middle}
        own += voice in heard
        for other in heard - {voice}:
            others[other] = others.get(other, 0) + 1
    count = max(1, len(middles))
    over = tuple(sorted(other for other, times in others.items() if times / count >= AT_ONCE))
    return Certainty(own / count < DOUBTFUL, over)
