"""What a person corrected in the live text, carried over to the words of the better recogniser."""

from collections.abc import Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher

from nuntius.core.transcript.edits import retimed
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import Word

EDGE = 0.6  # seconds by which the two recognisers' boundaries of the same words differ


@dataclass(frozen=True, slots=True)
class Correction:
    """Words heard live between `start` and `end` seconds, and what a person put in their place."""

    start: float
    end: float
    heard: str
    written: str


def merged(heard: Sequence[str], written: Sequence[str], settled: Sequence[str]) -> list[str]:
    """The settled words with the person's edits made in them: a three-way merge at the level of words.

    What the person left alone comes from the better recogniser; what the person changed, added or removed
    stays as the person left it, whatever the recogniser heard there.
    """
    places = _places(heard, settled)
    made: list[str] = []
    reached = 0
    for tag, a, b, c, d in SequenceMatcher(None, _plain(heard), _plain(written), autojunk=False).get_opcodes():
        if tag == "equal":
            continue
        first, end = places[a], places[b]
        made += settled[reached:first]
        made += written[c:d]
        reached = max(first, end)
    return [*made, *settled[reached:]]


def corrected_turns(transcript: Transcript, corrections: Sequence[Correction]) -> dict[int, tuple[Word, ...]]:
    """The words of each turn that a correction changes, by the turn's number (0 for the first).

    A correction goes to the turn that holds most of its time; one that changes nothing there is left out.
    """
    made: dict[int, tuple[Word, ...]] = {}
    for each in corrections:
        number = _turn(transcript, each)
        if number is None:
            continue
        words = made.get(number, transcript.turns[number].words)
        inside = [i for i, word in enumerate(words) if each.start - EDGE <= word.middle <= each.end + EDGE]
        if not inside:
            continue
        first, last = inside[0], inside[-1] + 1
        settled = [word.text for word in words[first:last]]
        first, last, settled = _narrowed(each, first, settled)
        text = merged(each.heard.split(), each.written.split(), settled)
        if text != settled and text:
            made[number] = (*words[:first], *retimed(words[first:last], " ".join(text)), *words[last:])
    return made


def _narrowed(correction: Correction, first: int, settled: list[str]) -> tuple[int, int, list[str]]:
    """Leaves out words at both ends that belong to the lines beside: those that match nothing heard live."""
    blocks = [
        block
        for block in SequenceMatcher(
            None, _plain(settled), _plain(correction.heard.split()), autojunk=False
        ).get_matching_blocks()
        if block.size
    ]
    if not blocks:
        return first, first + len(settled), settled
    heard = len(correction.heard.split())
    begin = max(0, blocks[0].a - blocks[0].b)
    end = min(len(settled), blocks[-1].a + blocks[-1].size + heard - blocks[-1].b - blocks[-1].size)
    return first + begin, first + end, settled[begin:end]


def _places(heard: Sequence[str], settled: Sequence[str]) -> list[int]:
    """For each boundary between words heard live (0 to len), the boundary among the settled words."""
    places = [0] * (len(heard) + 1)
    for _, a, b, c, d in SequenceMatcher(None, _plain(heard), _plain(settled), autojunk=False).get_opcodes():
        for boundary in range(a, b + 1):
            places[boundary] = c + round((boundary - a) / (b - a) * (d - c)) if b > a else d
    places[len(heard)] = len(settled)
    return places


def _plain(words: Sequence[str]) -> list[str]:
    return [word.lower().strip(".,!?;:\"'") for word in words]


def _turn(transcript: Transcript, correction: Correction) -> int | None:
    """Number of the turn with most words within the time of a correction."""
    counts = [
        sum(correction.start - EDGE <= word.middle <= correction.end + EDGE for word in turn.words)
        for turn in transcript.turns
    ]
    return max(range(len(counts)), key=counts.__getitem__) if any(counts) else None
