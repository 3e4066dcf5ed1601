"""Live lines and voices joined into turns, before the better recogniser has heard the whole."""

from collections import Counter
from collections.abc import Sequence

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import BREAK
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

NOBODY = "Voice A"  # where no voice has been told (yet)
NEAR = 1.0  # seconds beside a line in which a voice may stand for it


def voice_of(line: LiveLine, spans: Sequence[Span]) -> str | None:
    """The voice that speaks most of a line, else the nearest one within a second; None where there is none."""
    shares: Counter[str] = Counter()
    for span in spans:
        shares[span.voice] += max(0.0, min(span.end, line.end) - max(span.start, line.start))  # type: ignore[assignment]
    best = max(shares, key=lambda voice: shares[voice], default=None)
    if best is not None and shares[best] > 0:
        return best
    near = [s for s in spans if s.start - NEAR < line.end and line.start < s.end + NEAR]
    return min(near, key=lambda s: max(s.start - line.end, line.start - s.end)).voice if near else None


def live_transcript(lines: Sequence[VoicedLine], duration: float) -> Transcript:
    """Turns of the lines so far: lines of one voice that follow each other closely are one turn.

    A line whose voice has not been told yet goes to the voice before it. Empty for no lines.
    """
    turns: list[Turn] = []
    voice = NOBODY
    for each in sorted(lines, key=lambda each: each.number):
        voice = each.voice or voice
        words = spread(each.text, each.line.start, each.line.end)
        if not words:
            continue
        if turns and turns[-1].speaker == voice and words[0].start - turns[-1].end <= BREAK:
            turns[-1] = Turn(voice, turns[-1].words + words)
        else:
            turns.append(Turn(voice, words))
    return in_order(turns, duration)


def turn_start(lines: Sequence[VoicedLine], at: float) -> float:
    """Start in seconds of the turn being spoken at `at`, else of the last one before it; `at` where nobody spoke."""
    before = [each for each in sorted(lines, key=lambda each: each.number) if each.line.start <= at]
    start = before[-1].line.start if before else at
    for earlier, later in zip(reversed(before[:-1]), reversed(before), strict=False):
        if earlier.voice != later.voice or later.line.start - earlier.line.end > BREAK:
            break
        start = earlier.line.start
    return start
