"""What given stretches of a recording sound like, each taken as a whole."""

from collections.abc import Callable, Sequence
from functools import lru_cache

import numpy as np

from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.speech.diarization.clusters import unit
from nuntius.core.speech.diarization.features import log_mel
from nuntius.core.speech.diarization.networks import EMBEDDING, TRUNK_FRAME, TRUNK_WIDTH, Floats, Networks
from nuntius.core.speech.diarization.windows import BLOCK, CONTEXT

BLOCK_FRAMES = round(BLOCK / TRUNK_FRAME)
MOST = 10.0  # seconds of a stretch that are embedded; more add nothing


class VoicePrints:
    """Embeds stretches of a working copy."""

    def __init__(self, networks: Networks) -> None:
        self._networks = networks

    def of(
        self,
        sound: WorkingCopy,
        stretches: Sequence[tuple[float, float]],
        progress: Callable[[float], None] = lambda _: None,
    ) -> Floats:
        """Unit vectors (n, 256) of stretches (start, end) in seconds, best in order of time; `progress` hears the
        share done. A stretch too short to be heard has zeros.
        """
        made = np.zeros((len(stretches), EMBEDDING), np.float32)
        frames = lru_cache(maxsize=2)(lambda block: self._frames(sound, block))
        for number, (start, end) in enumerate(stretches):
            first, last = round(start / TRUNK_FRAME), round(min(end, start + MOST) / TRUNK_FRAME)
            blocks = range(first // BLOCK_FRAMES, max(first, last - 1) // BLOCK_FRAMES + 1)
            heard = np.concatenate([frames(block) for block in blocks], 1)
            heard = heard[:, first - blocks[0] * BLOCK_FRAMES : last - blocks[0] * BLOCK_FRAMES]
            made[number] = unit(self._networks.embed(heard, np.ones((heard.shape[1], 1), np.float32)))[0]
            progress((number + 1) / len(stretches))
        return made

    def _frames(self, sound: WorkingCopy, block: int) -> Floats:
        """Frames (2560, n) of one block of the sound, computed with a little of what lies around it."""
        start = block * BLOCK
        begin, end = max(0.0, start - CONTEXT), min(sound.duration, start + BLOCK + CONTEXT)
        features = log_mel(sound.read(begin, end))
        if not len(features):
            return np.zeros((TRUNK_WIDTH, 0), np.float32)
        skip = round((start - begin) / TRUNK_FRAME)
        return self._networks.trunk(features - features.mean(0))[:, skip : skip + BLOCK_FRAMES]
