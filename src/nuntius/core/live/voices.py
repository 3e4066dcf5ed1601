"""Voices assigned while the meeting runs: soon by those known already, now and then again over all of it."""

from bisect import bisect_left
from collections.abc import Sequence

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.matching import matched
from nuntius.core.live.turns import NEAR, split_at_voices, voice_of
from nuntius.core.speech.diarization.batch import WindowDiarizer
from nuntius.core.speech.diarization.networks import Networks
from nuntius.core.speech.diarizer import Span, relabelled

BLOCK = 5.0  # seconds of sound behind one run of the trunk: 95 to 98 % of voices as in the end (measured)
SOONEST = 10.0  # seconds between two runs over the whole, at least
SHARE = 1 / 60  # of the meeting's length between two runs over the whole, whose cost grows with it
LATEST = 40.0  # seconds that are looked at between two runs over the whole


class LiveVoices:
    """Takes the sound as it arrives and assigns each line to a voice."""

    def __init__(self, networks: Networks) -> None:
        self._diarizer = WindowDiarizer(networks, block=BLOCK)
        self._seconds = self._whole_at = self._told_at = 0.0
        self._names: dict[str, str] = {}  # the diarizer's voices, and the names that lines bear for them

    def push(self, samples: Samples) -> None:
        """Takes more mono 16 kHz samples, shape (n,)."""
        self._diarizer.push(samples)
        self._seconds += len(samples) / RATE

    @property
    def has_news(self) -> bool:
        """Whether sound has been listened to by which no line has a voice yet."""
        return self._diarizer.reached > self._told_at

    def assign(self, lines: Sequence[VoicedLine]) -> dict[int, list[tuple[LiveLine, str]]]:
        """The voice of each line, by its number, as far as the sound has been listened to; {} when nothing is new.

        Between two runs over the whole only the latest lines get voices. A line whose voice is assigned for the first time
        comes in pieces where voices follow each other in it. A voice keeps the name that its lines bear already.
        """
        if not self.has_news:
            return {}
        self._told_at = self._diarizer.reached
        if self._seconds - self._whole_at >= max(SOONEST, self._seconds * SHARE) or not self._whole_at:
            self._whole_at, since = self._seconds, 0.0
            spans = self._whole(lines)
        else:
            since = self._told_at - LATEST
            spans = relabelled(self._diarizer.latest(LATEST), self._names)
        there = [e for e in lines if e.line.end <= self._told_at and e.line.start >= since]
        longest = max((span.end - span.start for span in spans), default=0.0)
        starts = [span.start for span in spans]
        assigned = {e.number: _pieces(e, _near(e.line, spans, starts, longest)) for e in there}
        return {number: pieces for number, pieces in assigned.items() if pieces}

    def _whole(self, lines: Sequence[VoicedLine]) -> list[Span]:
        """Voices found again over the whole, under the names that lines bear already."""
        spans = self._diarizer.spans()
        before = [Span(e.line.start, e.line.end, e.voice) for e in lines if e.voice]
        self._names = matched(before, spans) if before else {span.voice: span.voice for span in spans}
        return relabelled(spans, self._names)


def _near(line: LiveLine, spans: Sequence[Span], starts: Sequence[float], longest: float) -> list[Span]:
    """The spans within a second of a line, out of all of them in order."""
    first, last = bisect_left(starts, line.start - NEAR - longest), bisect_left(starts, line.end + NEAR)
    return [span for span in spans[first:last] if span.end > line.start - NEAR]


def _pieces(each: VoicedLine, near: Sequence[Span]) -> list[tuple[LiveLine, str]]:
    if each.voice is None and each.person_text is None:
        return split_at_voices(each.line, near)
    voice = voice_of(each.line, near)
    return [(each.line, voice)] if voice else []
