"""Stand-ins of the speech engines; `core/speech` and `core/live` hold them to what the real ones do."""

from collections.abc import Sequence

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.speech.diarizer import Span


class PlannedDiarizer:
    """Says who spoke when by a plan, as far as the sound has arrived."""

    def __init__(self, *plan: Span) -> None:
        self._plan, self._arrived = plan, 0

    def push(self, samples: Samples) -> None:
        self._arrived += len(samples)

    def finish(self) -> None:
        pass

    def spans(self, people: int | None = None) -> list[Span]:
        end = self._arrived / RATE
        voices: Sequence[str] = sorted({span.voice for span in self._plan})[:people]
        named = [span if span.voice in voices else Span(span.start, span.end, voices[-1]) for span in self._plan]
        return sorted(Span(s.start, min(s.end, end), s.voice) for s in named if s.start < end)
