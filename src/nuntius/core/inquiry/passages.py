"""How much each turn looks like the answer to a question: features for the trained classifiers of passages."""

import numpy as np
from numpy.typing import NDArray

from nuntius.core.inquiry.asked import Asked
from nuntius.core.language.en.wants import AMOUNTS, WANTS
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.scene import Scene

BESIDE = 3  # turns before a turn in which its subject may have been named
PASSAGE_FEATURES = (
    "nearest sentence", "near with neighbours", "near with what led to it", "words", "words beside", "words before", "fits",
    "fits and words beside", "fits and near", "asks", "short", "answers", "near the question answered", "named speaks",
    "worth", "action and who", "decision and which", "figure and count",
)  # fmt: skip
OF_BEST = ("nearest sentence", "near with neighbours", "words", "words beside", "words before", "fits")
OF_ALL = ("nearest sentence", "words", "words beside", "fits and words beside")
FEW = 5  # turns that are looked at together
FOUND_FEATURES = (
    "best", *OF_BEST, *(f"highest {name}" for name in OF_ALL), "five likeliest", "five nearest", "nearest stands out",
    "never said", "seldom word said", "names something", *(f"wants {kind}" for kind in WANTS),
    *(f"wants {kind}, fits" for kind in WANTS), *(f"wants {kind}, words beside" for kind in WANTS),
)  # fmt: skip


def passage_features(talk: Scene, asked: Asked, likelihoods: dict[str, Likely]) -> NDArray[np.float32]:
    """Features of each turn, shape (turns, PASSAGE_FEATURES), each between about 0 and 1.

    `likelihoods` holds for each kind the likelihood of every sentence of the talk.
    """
    count = len(talk.by_turn)
    sums = np.array([talk.vectors[list(turn)].sum(0) for turn in talk.numbers])
    near = talk.highest(asked.near)
    likely = {kind: talk.highest(likelihoods[kind]) for kind in ("worth", "action", "decision")}
    made = np.zeros((count, len(PASSAGE_FEATURES)), np.float32)
    for turn in range(count):
        around = range(max(0, turn - 1), min(count, turn + 2))
        before = range(max(0, turn - BESIDE), turn + 1)
        beside = asked.cover(around)
        fits = float(asked.fits(talk, talk.text(turn)))
        answers = turn > 0 and any(s.is_question for s in talk.by_turn[turn - 1])
        asks = bool(talk.by_turn[turn]) and talk.by_turn[turn][-1].is_question
        made[turn] = [
            near[turn], _cosine(asked, sums[list(around)].sum(0)), _cosine(asked, sums[list(before)].sum(0)),
            asked.cover([turn]), beside, asked.cover(before), fits, fits * beside, fits * near[turn], float(asks),
            float(len(talk.transcript.turns[turn].words) <= 3), float(answers), near[turn - 1] * answers,
            float(talk.speaker(turn) in asked.named), likely["worth"][turn],
            likely["action"][turn] * (asked.wants == "who"),
            likely["decision"][turn] * (asked.wants in ("which", "how", "yes")), fits * (asked.wants in ("count", *AMOUNTS)),
        ]  # fmt: skip
    return made


def found_features(asked: Asked, features: NDArray[np.float32], likely: Likely) -> NDArray[np.float32]:
    """Features of whether the likeliest turn answers the question at all, shape (FOUND_FEATURES,)."""
    best = features[int(np.argmax(likely))]
    of_best = {name: float(best[PASSAGE_FEATURES.index(name)]) for name in OF_BEST}
    highest = [float(features[:, PASSAGE_FEATURES.index(name)].max()) for name in OF_ALL]
    near = np.sort(asked.near)[::-1]
    apart = float(near[0] - near.mean()) / (float(near.std()) or 1.0) / FEW
    kinds = np.array([float(asked.wants == kind) for kind in WANTS])
    return np.array([
        float(likely.max()), *of_best.values(), *highest, float(np.sort(likely)[-FEW:].sum()), float(near[:FEW].mean()), apart,
        1 - asked.cover(range(len(asked.held))), float(asked.is_said(asked.seldom)), float(asked.names_something),
        *kinds, *(kinds * of_best["fits"]), *(kinds * of_best["words beside"]),
    ], np.float32)  # fmt: skip


def _cosine(asked: Asked, total: NDArray[np.float32]) -> float:
    size = float(np.linalg.norm(total))
    return float(total @ asked.vector) / size if size else 0.0
