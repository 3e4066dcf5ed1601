"""A live recogniser that answers from a script: for quick tests of the interface only."""

from collections.abc import Sequence

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.live.line import Heard, LiveLine
from nuntius.core.transcript.word import spread


class ScriptedLines:
    """Says the script's lines as the sound reaches them, word by word while a line is being spoken."""

    def __init__(self, script: Sequence[LiveLine], start: float = 0.0) -> None:
        self._script = [line for line in sorted(script) if line.start >= start]
        self._now = start

    def hear(self, samples: Samples) -> Heard:
        self._now += len(samples) / RATE
        settled = [line for line in self._script if line.end <= self._now]
        self._script = self._script[len(settled) :]
        return Heard(tuple(settled), self._spoken())

    def finish(self) -> Heard:
        partial, self._script = self._spoken(), []
        return Heard((partial,) if partial else ())

    def _spoken(self) -> LiveLine | None:
        if not self._script or self._script[0].start >= self._now:
            return None
        line = self._script[0]
        said = [word.text for word in spread(line.text, line.start, line.end) if word.start < self._now]
        return LiveLine(line.start, self._now, " ".join(said))
