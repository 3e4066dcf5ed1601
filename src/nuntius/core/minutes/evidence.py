"""Where in a transcript the words of a stretch of time stand."""

from nuntius.core.minutes.line import Passage
from nuntius.core.transcript.transcript import Transcript


def located(transcript: Transcript, start: float, end: float) -> Passage | None:
    """The words between two times (seconds), of the turn that holds most of them; None where none is spoken then.

    A word belongs to the stretch in which its middle lies.
    """
    best: tuple[int, Passage] | None = None
    for number, turn in enumerate(transcript.turns):
        if not turn.words or turn.words[-1].end < start or turn.words[0].start > end:
            continue
        inside = [i for i, word in enumerate(turn.words) if start <= (word.start + word.end) / 2 <= end]
        if inside and (best is None or len(inside) > best[0]):
            best = len(inside), Passage(number, inside[0], inside[-1])
    return best[1] if best else None
