"""How a meeting went: who had the floor for how long, how often, over whom, and how evenly.

Speech is counted as in the floor: overlapping speech counts for everybody who speaks.
"""

import math
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from nuntius.core.transcript.transcript import Transcript

Span = tuple[float, float, str]  # start and end in seconds, voice
PAUSE = 2.0  # seconds of a voice's silence within which its stretch goes on; common practice, no source
SILENCE = 2.0  # seconds in which nobody speaks, from which it counts as a silence; common practice, no source
SLICES = 10  # equal parts of the meeting for the balance over time


@dataclass(frozen=True, slots=True)
class VoiceFloor:
    """One voice: seconds of speech, turns, longest unbroken stretch (seconds), words, questions asked.

    `overlaps` counts how often the voice began while another was speaking, `overlapped` the seconds of that.
    """

    voice: str
    seconds: float
    turns: int
    longest: float
    words: int
    questions: int
    overlaps: int
    overlapped: float

    @property
    def pace(self) -> float:
        """Words a minute of speech; 0 for a voice that did not speak."""
        return 60 * self.words / self.seconds if self.seconds else 0.0


@dataclass(frozen=True, slots=True)
class FloorSlice:
    """A part of the meeting: start and end in seconds, and each voice's seconds in it."""

    title: str
    start: float
    end: float
    seconds: dict[str, float]


@dataclass(frozen=True, slots=True)
class FloorReport:
    """All of it. `silence` and `overlap` are seconds; `silences` are the stretches in which nobody spoke."""

    voices: tuple[VoiceFloor, ...]
    duration: float
    silence: float
    overlap: float
    silences: tuple[tuple[float, float], ...]
    over_time: tuple[FloorSlice, ...]
    chapters: tuple[FloorSlice, ...]

    @property
    def shares(self) -> dict[str, float]:
        """Share (0 to 1) of each voice in all speech; empty when nobody spoke."""
        total = sum(voice.seconds for voice in self.voices)
        return {voice.voice: voice.seconds / total for voice in self.voices} if total else {}

    @property
    def evenness(self) -> float:
        """How evenly the floor was shared, 0 (one voice alone) to 1 (all alike).

        Entropy of the shares over its greatest value (Pielou, J. Theoret. Biol. 13, 1966); 1 for fewer than two voices.
        """
        shares = [share for share in self.shares.values() if share > 0]
        if len(self.voices) < 2:
            return 1.0
        return -sum(share * math.log(share) for share in shares) / math.log(len(self.voices))


def floor_report(
    spans: Sequence[Span], transcript: Transcript, duration: float, chapters: Sequence[tuple[str, float, float]] = ()
) -> FloorReport:
    """The report of spans within `duration` seconds; words and questions come from the transcript.

    `chapters` are title, start and end in seconds.
    """
    spans = sorted((max(0.0, a), min(b, duration), v) for a, b, v in spans if min(b, duration) > max(0.0, a))
    speech = _joined([(a, b) for a, b, _ in spans])
    over = _over_others(spans)
    voices = tuple(_voice(spans, over, transcript, voice) for voice in dict.fromkeys(v for _, _, v in spans))
    width = duration / SLICES
    parts = [("", i * width, (i + 1) * width) for i in range(SLICES)] if duration else []
    spoken = sum(b - a for a, b in speech)
    return FloorReport(
        tuple(sorted(voices, key=lambda each: -each.seconds)),
        duration,
        duration - spoken,
        sum(over),
        tuple((a, b) for a, b in _gaps(speech, duration) if b - a >= SILENCE),
        tuple(_slice(spans, *part) for part in parts),
        tuple(_slice(spans, *part) for part in chapters),
    )


def _voice(spans: Sequence[Span], over: list[float], transcript: Transcript, voice: str) -> VoiceFloor:
    own = [(a, b) for a, b, v in spans if v == voice]
    begun = [seconds for (_, _, v), seconds in zip(spans, over, strict=True) if v == voice and seconds > 0]
    turns = [turn for turn in transcript.turns if turn.speaker == voice]
    held = _held(spans, voice)
    return VoiceFloor(
        voice,
        sum(b - a for a, b in own),
        len(held),
        max(b - a for a, b in held),
        sum(len(turn.words) for turn in turns),
        sum(word.text.rstrip("\"'”’)").endswith("?") for turn in turns for word in turn.words),
        len(begun),
        sum(begun),
    )


def _over_others(spans: Sequence[Span]) -> list[float]:
    """For each span the seconds in which another voice, that began before it, is speaking as well."""
    made: list[float] = []
    running: list[Span] = []
    for a, b, voice in spans:
        running = [each for each in running if each[1] > a]
        made.append(max((min(b, end) - a for _, end, other in running if other != voice), default=0.0))
        running.append((a, b, voice))
    return made


def _held(spans: Sequence[Span], voice: str) -> list[tuple[float, float]]:
    """Where a voice holds the floor: its spans, joined over pauses in which nobody else begins to speak."""
    made: list[tuple[float, float]] = []
    starts = [a for a, _, _ in spans]
    for a, b, v in spans:
        if v != voice:
            continue
        if made and a - made[-1][1] <= PAUSE and bisect_left(starts, made[-1][1]) >= bisect_left(starts, a):
            made[-1] = (made[-1][0], max(made[-1][1], b))
        else:
            made.append((a, b))
    return made


def _joined(stretches: list[tuple[float, float]]) -> list[tuple[float, float]]:
    made: list[tuple[float, float]] = []
    for a, b in sorted(stretches):
        if made and a <= made[-1][1]:
            made[-1] = (made[-1][0], max(made[-1][1], b))
        else:
            made.append((a, b))
    return made


def _gaps(speech: list[tuple[float, float]], duration: float) -> list[tuple[float, float]]:
    edges = [(0.0, 0.0), *speech, (duration, duration)]
    return [(one[1], two[0]) for one, two in pairwise(edges)]


def _slice(spans: Sequence[Span], title: str, start: float, end: float) -> FloorSlice:
    seconds: dict[str, float] = {}
    for a, b, voice in spans:
        if (inside := min(b, end) - max(a, start)) > 0:
            seconds[voice] = seconds.get(voice, 0.0) + inside
    return FloorSlice(title, start, end, seconds)
