"""How much each turn looks like the answer to a question: signs for the trained judge of passages."""

import numpy as np
from numpy.typing import NDArray

from nuntius.core.inquiry.asked import KINDS, Asked
from nuntius.core.minutes.judges import judged
from nuntius.core.minutes.scene import Scene

BESIDE = 3  # turns before a turn in which its subject may have been named
PASSAGE_SIGNS = (
    "nearest sentence", "near with neighbours", "near with what led to it", "words", "words beside", "words before", "fits",
    "fits and words beside", "fits and near", "asks", "short", "answers", "near the question answered", "named speaks",
    "worth", "action and who", "decision and which", "figure and count",
)  # fmt: skip
FOUND_SIGNS = (
    "best", "nearest sentence", "near with neighbours", "words", "words beside", "words before", "fits", "never said",
    "lead", *(f"wants {kind}" for kind in KINDS), *(f"wants {kind}, fits" for kind in KINDS),
)  # fmt: skip


def passage_signs(talk: Scene, asked: Asked, said: list[frozenset[str]]) -> NDArray[np.float32]:
    """Signs of each turn, shape (turns, PASSAGE_SIGNS), each between about 0 and 1."""
    likely = judged(talk)
    count = len(talk.by_turn)
    sums = np.array([talk.vectors[[talk.index[s.turn, s.first] for s in turn]].sum(0) for turn in talk.by_turn])
    near = [max((float(asked.near[talk.index[s.turn, s.first]]) for s in turn), default=0.0) for turn in talk.by_turn]
    tops = {
        kind: [
            max((float(likely[kind][talk.index[s.turn, s.first]]) for s in turn), default=0.0) for turn in talk.by_turn
        ]
        for kind in ("worth", "action", "decision")
    }
    made = np.zeros((count, len(PASSAGE_SIGNS)), np.float32)
    for turn in range(count):
        around = range(max(0, turn - 1), min(count, turn + 2))
        before = range(max(0, turn - BESIDE), turn + 1)
        beside = asked.cover(frozenset().union(*(said[t] for t in around)))
        fits = float(asked.fits(talk, talk.text(turn)))
        answers = turn > 0 and any(s.is_question for s in talk.by_turn[turn - 1])
        asks = bool(talk.by_turn[turn]) and talk.by_turn[turn][-1].is_question
        made[turn] = [
            near[turn], _cosine(asked, sums[list(around)].sum(0)), _cosine(asked, sums[list(before)].sum(0)),
            asked.cover(said[turn]), beside, asked.cover(frozenset().union(*(said[t] for t in before))), fits,
            fits * beside, fits * near[turn], float(asks), float(len(talk.transcript.turns[turn].words) <= 3), float(answers),
            near[turn - 1] * answers if turn else 0.0, float(talk.speaker(turn) in asked.named), tops["worth"][turn],
            tops["action"][turn] * (asked.wants == "who"), tops["decision"][turn] * (asked.wants in ("which", "how", "yes")),
            fits * (asked.wants == "count"),
        ]  # fmt: skip
    return made


def found_signs(
    asked: Asked, said: list[frozenset[str]], signs: NDArray[np.float32], likely: NDArray[np.float32]
) -> NDArray[np.float32]:
    """Signs of whether the likeliest turn answers the question at all, shape (FOUND_SIGNS,)."""
    order = np.argsort(-likely, kind="stable")
    best = signs[order[0]]
    fits = float(best[PASSAGE_SIGNS.index("fits")])
    everywhere = frozenset().union(*said)
    rest = [float(likely[t]) for t in order if abs(int(t) - int(order[0])) > BESIDE]
    wants = [float(asked.wants == kind) for kind in KINDS]
    return np.array(
        [float(likely[order[0]]), *best[[0, 1, 3, 4, 5]], fits, 1 - asked.cover(everywhere),
         float(likely[order[0]]) - max(rest, default=0.0), *wants, *(fits * want for want in wants)],
        np.float32,
    )  # fmt: skip


def _cosine(asked: Asked, total: NDArray[np.float32]) -> float:
    size = float(np.linalg.norm(total))
    return float(total @ asked.vector) / size if size else 0.0
