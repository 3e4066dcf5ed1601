"""The floor while the meeting runs: who has spoken how long, and who holds it now."""

from collections.abc import Sequence
from dataclasses import dataclass

from nuntius.core.live.line import VoicedLine
from nuntius.core.speech.joining import BREAK

STILL = 3.0  # seconds without speech after which nobody holds the floor


@dataclass(frozen=True, slots=True)
class LiveFloor:
    """Seconds of speech per voice, who holds the floor since when, the longest unbroken stretch of each voice,
    and when each voice was last heard; all in seconds."""

    seconds: dict[str, float]
    holder: str | None
    held: float
    longest: dict[str, float]
    last_heard: dict[str, float]


def live_floor(lines: Sequence[VoicedLine], now: float, speaking: bool = False) -> LiveFloor:
    """The floor at `now`; `speaking` says that a line is being spoken that has not been settled.

    A stretch is unbroken while the same voice goes on with pauses of at most 1.5 s. Lines whose voice has not
    been assigned go to the voice before them. Empty for no lines.
    """
    seconds: dict[str, float] = {}
    longest: dict[str, float] = {}
    last: dict[str, float] = {}
    voice, begun, reached = None, 0.0, 0.0
    for each in lines:
        heard = each.voice or voice
        if heard is None:
            continue
        if heard != voice or each.line.start - reached > BREAK:
            voice, begun = heard, each.line.start
        reached = max(reached, each.line.end)
        seconds[heard] = seconds.get(heard, 0.0) + each.line.end - each.line.start
        longest[heard] = max(longest.get(heard, 0.0), each.line.end - begun)
        last[heard] = each.line.end
    goes_on = voice is not None and (speaking or now - reached <= STILL)
    return LiveFloor(seconds, voice if goes_on else None, max(0.0, now - begun) if goes_on else 0.0, longest, last)
