"""How sure it is who spoke a turn, by what the diarizer heard: for each turn, shown where it is doubtful."""

from collections.abc import Iterator, Sequence
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
    heard: list[dict[str, int]] = [{} for _ in turns]  # by voice: words of the turn during which it is heard
    for turn, voices in _at(turns, sorted(spans)):
        for voice in voices:
            heard[turn][voice] = heard[turn].get(voice, 0) + 1
    return [_certainty(voice, len(middles), found) for (voice, middles), found in zip(turns, heard, strict=True)]


def _at(turns: Sequence[tuple[str, Sequence[float]]], spans: Sequence[Span]) -> Iterator[tuple[int, set[str]]]:
    """The turn of each word and the voices heard at its middle: one sweep along the axis of time."""
    waiting, going = 0, list[Span]()
    for middle, turn in sorted((middle, turn) for turn, (_, middles) in enumerate(turns) for middle in middles):
        while waiting < len(spans) and spans[waiting].start < middle:
            going.append(spans[waiting])
            waiting += 1
        going = [span for span in going if span.end >= middle]
        yield turn, {span.voice for span in going}


def _certainty(voice: str, words: int, heard: dict[str, int]) -> Certainty:
    count = max(1, words)
    over = tuple(sorted(other for other, times in heard.items() if other != voice and times / count >= AT_ONCE))
    return Certainty(heard.get(voice, 0) / count < DOUBTFUL, over)
