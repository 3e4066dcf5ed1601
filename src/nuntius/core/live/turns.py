"""Live lines and voices joined into turns, before the better recogniser has heard the whole."""

from collections.abc import Sequence
from itertools import pairwise

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import BREAK
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import Word, spread

NOBODY = "Voice A"  # where no voice has been assigned (yet)
NEAR = 1.0  # seconds beside a line in which a voice may stand for it
LEAST_PIECE = 0.7  # seconds of a line that a voice must speak to have a piece of its own
NEAR_END = 0.8  # seconds from a change of voice within which the end of a sentence is taken for it


def voice_of(line: LiveLine, spans: Sequence[Span]) -> str | None:
    """The voice that speaks most of a line, else the nearest one within a second; None where there is none."""
    shares: dict[str, float] = {}
    for span in spans:
        shares[span.voice] = shares.get(span.voice, 0.0) + max(
            0.0, min(span.end, line.end) - max(span.start, line.start)
        )
    best = max(shares, key=lambda voice: shares[voice], default=None)
    if best is not None and shares[best] > 0:
        return best
    near = [s for s in spans if s.start - NEAR < line.end and line.start < s.end + NEAR]
    return min(near, key=lambda s: max(s.start - line.end, line.start - s.end)).voice if near else None


def split_at_voices(line: LiveLine, spans: Sequence[Span]) -> list[tuple[LiveLine, str]]:
    """The line in pieces, each with its voice, where one voice follows another within it; [] where none is assigned.

    The recogniser ends lines at pauses, and people answer without one. A voice needs 0.7 s of the line to have a
    piece of its own; a piece ends behind the word nearest to where the next voice begins, rather at the end of a
    sentence within 0.8 s of it, since the times of single words are not known.
    """
    inside = [s for s in sorted(spans) if min(s.end, line.end) - max(s.start, line.start) >= LEAST_PIECE]
    changes = [(a.voice, b.voice, max(b.start, min(a.end, b.end))) for a, b in pairwise(inside) if a.voice != b.voice]
    words = spread(line.text, line.start, line.end)
    pieces: list[tuple[LiveLine, str]] = []
    first = 0
    for voice, _, at in changes:
        last = _boundary(words, first, at)
        if last is not None:
            pieces.append((_piece(words[first:last]), voice))
            first = last
    if pieces:
        return [*pieces, (_piece(words[first:]), changes[-1][1])]
    whole = voice_of(line, spans)
    return [(line, whole)] if whole is not None else []


def _boundary(words: Sequence[Word], first: int, at: float) -> int | None:
    """Number of the word that begins a new piece near `at` seconds; None where a piece would be left empty."""
    boundaries = range(first + 1, len(words))
    ends = [i for i in boundaries if words[i - 1].text[-1:] in ".?!," and abs(words[i].start - at) <= NEAR_END]
    return min(ends or boundaries, key=lambda i: abs(words[i].start - at), default=None)


def _piece(words: Sequence[Word]) -> LiveLine:
    return LiveLine(words[0].start, words[-1].end, " ".join(word.text for word in words))


def live_transcript(lines: Sequence[VoicedLine], duration: float) -> Transcript:
    """Turns of the lines so far: lines of one voice that follow each other closely are one turn.

    A line without a voice yet goes to the voice before it. Empty for no lines.
    """
    turns: list[Turn] = []
    voice = NOBODY
    for each in sorted(lines, key=lambda each: (each.line.start, each.number)):
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
    """Start in seconds of the turn being spoken at `at`, else of the last one before it; `at` where nobody spoke.

    A line without a voice yet stands for itself.
    """
    before = [each for each in sorted(lines, key=lambda each: (each.line.start, each.number)) if each.line.start <= at]
    start = before[-1].line.start if before else at
    for earlier, later in zip(reversed(before[:-1]), reversed(before), strict=False):
        if later.voice is None or earlier.voice != later.voice or later.line.start - earlier.line.end > BREAK:
            break
        start = earlier.line.start
    return start
