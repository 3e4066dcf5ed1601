"""Words and spans joined into turns: every word goes to a voice by its own time."""

from bisect import bisect_right

from nuntius.core.speech.diarizer import Span
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import Word

BREAK = 1.5  # seconds of silence after which the same voice begins a new turn
LONGEST = 60.0  # seconds after which a turn ends at the next sentence
SNAP = 0.35  # seconds by which a lone word at a border is given to the sentence it belongs to
UNKNOWN_VOICE = "Voice A"


def join(words: tuple[Word, ...], spans: list[Span], duration: float) -> Transcript:
    """Turns of the words, each word with the voice in whose span its midpoint lies.

    Where spans overlap the shortest one wins, so that backchannels are not swallowed; in gaps the nearest.
    """
    ordered = sorted(words)
    voices = _voices(ordered, sorted(spans))
    voices = _settled(ordered, voices)
    turns: list[Turn] = []
    start = 0
    for i in range(1, len(ordered) + 1):
        if i == len(ordered) or voices[i] != voices[start] or _breaks(ordered, start, i):
            turns.append(Turn(voices[start], tuple(ordered[start:i])))
            start = i
    return in_order(turns, duration)


def _breaks(words: list[Word], start: int, i: int) -> bool:
    pause = words[i].start - words[i - 1].end
    ended = words[i - 1].text[-1:] in ".?!"
    return pause > BREAK or (ended and words[i - 1].end - words[start].start > LONGEST)


def _voices(words: list[Word], spans: list[Span]) -> list[str]:
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


def _settled(words: list[Word], voices: list[str]) -> list[str]:
    """Gives a lone word at a change of voice to the sentence that it begins or ends.

    The recogniser's times and the diarizer's borders differ by a few hundredths; a sentence end between two
    words tells better where one voice stopped.
    """
    made = list(voices)
    for i in range(1, len(words)):
        if made[i] == made[i - 1]:
            continue
        ends_before = words[i - 1].text[-1:] in ".?!"
        if (
            not ends_before
            and words[i].text[-1:] in ".?!"
            and words[i].end - words[i].start < SNAP
            and words[i].start - words[i - 1].end < 0.1
        ):
            made[i] = made[i - 1]  # the last word of the sentence before
        elif (
            not ends_before
            and i >= 2
            and words[i - 2].text[-1:] in ".?!"
            and made[i - 2] == made[i - 1]
            and words[i - 1].end - words[i - 1].start < SNAP
        ):
            made[i - 1] = made[i]  # the first word of this sentence
    return made
