"""Voices told while the meeting runs: soon by those known already, now and then anew over all of it."""

from collections.abc import Sequence

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.matching import matched, relabelled
from nuntius.core.live.turns import NEAR, split_at_voices, voice_of
from nuntius.core.speech.diarization.batch import WindowDiarizer
from nuntius.core.speech.diarization.networks import Networks
from nuntius.core.speech.diarizer import Span

BLOCK = 5.0  # seconds of sound behind one run of the trunk: 95 to 98 % of voices as in the end (measured)
SOONEST = 10.0  # seconds between two runs over the whole, at least
SHARE = 1 / 60  # of the meeting's length between two runs over the whole, whose cost grows with it


class LiveVoices:
    """Takes the sound as it arrives and tells whose each line is."""

    def __init__(self, networks: Networks) -> None:
        self._diarizer = WindowDiarizer(networks, block=BLOCK)
        self._seconds = self._whole_at = self._told_at = 0.0

    def push(self, samples: Samples) -> None:
        """Takes more mono 16 kHz samples, shape (n,)."""
        self._diarizer.push(samples)
        self._seconds += len(samples) / RATE

    def tell(self, lines: Sequence[VoicedLine]) -> dict[int, list[tuple[LiveLine, str]]]:
        """The voice of each line, by its number, as far as the sound has been listened to; {} when nothing is new.

        A line whose voice is told for the first time comes in pieces where voices follow each other in it. A voice
        keeps the name that its lines bear already.
        """
        if self._diarizer.reached <= self._told_at:
            return {}
        self._told_at = self._diarizer.reached
        anew = self._seconds - self._whole_at >= max(SOONEST, self._seconds * SHARE) or not self._whole_at
        if anew:
            self._whole_at = self._seconds
        spans = self._diarizer.spans(anew=anew)
        before = [Span(e.line.start, e.line.end, e.voice) for e in lines if e.voice]
        spans = relabelled(spans, matched(before, spans)) if before else spans
        told = {e.number: self._pieces(e, spans) for e in lines if e.line.end <= self._told_at}
        return {number: pieces for number, pieces in told.items() if pieces}

    def _pieces(self, each: VoicedLine, spans: Sequence[Span]) -> list[tuple[LiveLine, str]]:
        near = [s for s in spans if s.end > each.line.start - NEAR and s.start < each.line.end + NEAR]
        if each.voice is None and each.person_text is None:
            return split_at_voices(each.line, near)
        voice = voice_of(each.line, near)
        return [(each.line, voice)] if voice else []
