"""Words and their voices joined into turns."""

from bisect import bisect_right
from collections.abc import Sequence

from nuntius.core.speech.diarizer import Span
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import Word

BREAK = 1.5  # seconds of silence after which the same voice begins a new turn
LONGEST = 60.0  # seconds after which a turn ends at the next sentence
UNKNOWN_VOICE = "Voice A"


def join(words: Sequence[Word], voices: Sequence[str], duration: float) -> Transcript:
    """Turns of the words; `voices` holds the voice of each of them, in order of time."""
    ordered = sorted(words)
    turns: list[Turn] = []
    start = 0
    for i in range(1, len(ordered) + 1):
        if i == len(ordered) or voices[i] != voices[start] or _breaks(ordered, start, i):
            turns.append(Turn(voices[start], tuple(ordered[start:i])))
            start = i
    return in_order(turns, duration)


def _breaks(words: list[Word], start: int, i: int) -> bool:
    pause = words[i].start - words[i - 1].end
    return pause > BREAK or (words[i - 1].ends_sentence and words[i - 1].end - words[start].start > LONGEST)


def by_time(words: Sequence[Word], spans: Sequence[Span]) -> list[str]:
    """For each word the voice in whose span its midpoint lies.

    Where spans overlap the shortest one wins, so that backchannels are not swallowed; in gaps the nearest.
    """
    spans = sorted(spans)
    if not spans:
        return [UNKNOWN_VOICE] * len(words)
    starts = [span.start for span in spans]
    longest = max(span.end - span.start for span in spans)
    made = []
    for word in words:
        middle = word.middle
        upto = bisect_right(starts, middle)
        begin = bisect_right(starts, middle - longest)
        over = [span for span in spans[begin:upto] if span.end >= middle]
        if over:
            made.append(min(over, key=lambda span: span.end - span.start).voice)
        else:
            near = spans[max(0, begin - 1) : upto + 1] or spans
            made.append(min(near, key=lambda span: max(span.start - middle, middle - span.end)).voice)
    return made
