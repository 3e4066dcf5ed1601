"""The floor: who was speaking when, and each one's share of it."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Floor:
    """Seconds of speech per voice (`seconds`), each voice's share of all speech, and the seconds of silence.

    Overlapping speech counts for everybody who speaks, so the shares add up to 1 and the silence stands
    apart (`silence` is the time in which nobody speaks).
    """

    seconds: dict[str, float]
    silence: float

    @property
    def shares(self) -> dict[str, float]:
        """Share (0 to 1) of each voice; empty when nobody spoke."""
        total = sum(self.seconds.values())
        return {voice: part / total for voice, part in self.seconds.items()} if total else {}


def floor_of(spans: list[tuple[float, float, str]], duration: float) -> Floor:
    """Floor of spans (start, end, voice) in seconds within a recording of `duration` seconds."""
    seconds: dict[str, float] = {}
    for start, end, voice in spans:
        seconds[voice] = seconds.get(voice, 0.0) + max(0.0, end - start)
    spoken, reached = 0.0, 0.0
    for start, end, _ in sorted(spans):
        if end > reached:
            spoken += end - max(start, reached)
            reached = end
    return Floor(seconds, max(0.0, duration - spoken))
