"""Voices diarized live and afterwards, matched by the time in which both speak."""

from collections.abc import Sequence

import numpy as np
from scipy.optimize import linear_sum_assignment

from nuntius.core.speech.diarizer import Span, voice_name


def matched(before: Sequence[Span], after: Sequence[Span]) -> dict[str, str]:
    """For each voice of `after` the voice of `before` with which it shares most speech, one to one.

    A voice of `after` that matches none gets a name that no voice of `before` has.
    """
    old = list(dict.fromkeys(span.voice for span in before))
    new = list(dict.fromkeys(span.voice for span in after))
    shared = np.zeros((len(new), len(old)))
    for row, voice in enumerate(new):
        for column, other in enumerate(old):
            shared[row, column] = _shared(
                [s for s in after if s.voice == voice], [s for s in before if s.voice == other]
            )
    names = {
        new[row]: old[column]
        for row, column in zip(*linear_sum_assignment(-shared), strict=True)
        if shared[row, column] > 0
    }
    free = (name for name in map(voice_name, range(len(old) + len(new) + 1)) if name not in old)
    return {voice: names[voice] if voice in names else next(free) for voice in new}


def _shared(a: Sequence[Span], b: Sequence[Span]) -> float:
    """Seconds that two rows of spans, each sorted by start, have in common."""
    total, i, j = 0.0, 0, 0
    while i < len(a) and j < len(b):
        total += max(0.0, min(a[i].end, b[j].end) - max(a[i].start, b[j].start))
        if a[i].end < b[j].end:
            i += 1
        else:
            j += 1
    return total
