"""What every live recogniser does: sound in as it arrives, lines out as they become clear."""

from typing import Protocol

from nuntius.core.audio.decode import Samples
from nuntius.core.live.line import Heard


class LiveRecogniser(Protocol):
    """Turns arriving sound into lines; times are seconds from `start` on, the moment its first sample lies at."""

    def hear(self, samples: Samples) -> Heard:
        """Takes more mono 16 kHz samples, shape (n,), the next ones in time."""
        ...

    def finish(self) -> Heard:
        """Says that the sound has ended; what was still partial is settled. It may not be used after that."""
        ...
