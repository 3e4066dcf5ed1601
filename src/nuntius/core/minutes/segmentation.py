"""Which turns open the chapters of a talk: those that are likeliest together.

Each turn may open a chapter, and chapters have a usual length. The best division of the two is found by dynamic
programming over the ends of chapters (a semi-Markov model after Sarawagi and Cohen 2004; from memory).
"""

import numpy as np
from numpy.typing import NDArray

USUAL = 13.0  # turns of a chapter (median)
SPREAD = 0.5  # of the logarithm of that; both fitted on talk that was not learnt from
READY = 2.0  # added to the logit of a turn, against how rare boundaries are; fitted with them
LEAST_LIKELY = 0.05  # likelihood below which a turn opens no chapter
APART, APART_FINE = 5, 3  # turns of a chapter at least; where finer ones are asked for
FINER = 2.0  # times as many boundaries then, in chapters as many times shorter
MOST, TURNS_EACH = 4, 30  # boundaries of any talk, and turns for which there may be one more
LONGER = 1.1  # times as long as chapters usually are where there are more boundaries than that
SURE = 1e-4  # likelihood that counts as none, and apart from 1 as certain


def boundaries(likely: NDArray[np.float32], fine: bool = False) -> list[int]:
    """Numbers of the turns that open a chapter, apart from the first.

    `likely` says for each turn how likely it opens one; `fine` asks for finer chapters. A long talk has longer ones,
    so that its minutes stay a few pages.
    """
    times = FINER if fine else 1.0
    most = times * (MOST + len(likely) / TURNS_EACH)
    clipped = np.clip(likely, SURE, 1 - SURE)
    logits = np.where(times * likely < LEAST_LIKELY, -np.inf, np.log(clipped / (1 - clipped)))
    usual = USUAL / times
    while len(found := _best(logits + READY, usual, APART_FINE if fine else APART)) > most:
        usual *= LONGER
    return found


def _best(worth: NDArray[np.float64], usual: float, apart: int) -> list[int]:
    """The boundaries with the highest sum of what each is worth and of how usual the lengths of the chapters are."""
    count = len(worth)
    length = np.arange(1, count + 1)
    usually = -((np.log(length) - np.log(usual)) ** 2) / (2 * SPREAD**2)
    usually[: apart - 1] = -np.inf
    score = np.full(count + 1, -np.inf)
    score[0] = 0.0
    before = np.zeros(count + 1, int)
    for end in range(1, count + 1):
        sums = score[:end] + usually[:end][::-1]
        before[end] = sums.argmax()
        score[end] = sums[before[end]] + (worth[end] if end < count else 0.0)
    found = []
    end = int(before[count])
    while end > 0:
        found.append(end)
        end = int(before[end])
    return sorted(found)
