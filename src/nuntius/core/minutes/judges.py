"""Trained judges: how likely a sentence is the heart of an action, a decision, a question, or worth knowing.

Each is a logistic regression over the signs of a sentence and its vector, whose logit is weighed against that of the
network which reads the sentence in its context; what opens a chapter is judged by a forest of trees over the signs of
a turn, weighed against the same network. `training/train.py` makes them from the annotated talk of this repository.
"""

import json
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files

import numpy as np
from numpy.typing import NDArray

from nuntius.core.minutes.chapters import BORDER_SIGNS, border_signs
from nuntius.core.minutes.context import LEAST_OPENING, OF_SENTENCES, OPENS, in_context
from nuntius.core.minutes.forest import Forest, shipped
from nuntius.core.minutes.scene import KEPT, Scene
from nuntius.core.minutes.signs import ALL, signs

Likely = NDArray[np.float32]  # for each sentence of a talk, between 0 and 1

KINDS = OF_SENTENCES
WEIGHED = {  # share of the judge's logit and of the network's, and what is added; fitted on talk that neither has seen
    "action": (0.3, 0.4, 0.5),
    "decision": (0.5, 0.45, -0.5),
    "question": (1.0, 0.5, -0.3),
    "worth": (0.4, 0.4, 0.4),
}
OPENS_WEIGHED = (0.6, 0.4, -0.25)  # the same for the forest
SURE = 1e-4  # likelihood of the forest that counts as none, and apart from 1 as certain
VECTOR_SHARE = 3.0  # weight of the unit vector beside signs between 0 and 1


@dataclass(frozen=True, slots=True)
class Judge:
    """Weights of the signs and of the vector's dimensions."""

    bias: float
    weights: NDArray[np.float32]

    def logit(self, inputs: NDArray[np.float32]) -> NDArray[np.float32]:
        """Logit of the likelihood of each row of `inputs`, shape (sentences,)."""
        return np.asarray(inputs @ self.weights + self.bias, np.float32)

    def of(self, inputs: NDArray[np.float32]) -> NDArray[np.float32]:
        """Likelihood for each row of `inputs`, shape (sentences,)."""
        return _likelihood(self.logit(inputs))


def _likelihood(logit: NDArray[np.float32]) -> NDArray[np.float32]:
    return np.asarray(1 / (1 + np.exp(-logit)), np.float32)


@cache
def judges() -> dict[str, Judge]:
    """The judges that ship with the application."""
    kept = json.loads(files("nuntius.core.minutes").joinpath("judges.json").read_text())
    if tuple(kept["signs"]) != ALL:
        raise ValueError("judges.json was made for other signs: run `make judges`")
    return {kind: Judge(each["bias"], np.array(each["weights"], np.float32)) for kind, each in kept["judges"].items()}


@cache
def border_judge() -> Forest:
    """The judge of what opens a chapter that ships with the application."""
    return shipped("borders.json", BORDER_SIGNS)


def inputs(scene: Scene) -> NDArray[np.float32]:
    """What the judges look at, shape (sentences, signs + dimensions of a vector)."""
    return np.hstack([signs(scene), np.float32(VECTOR_SHARE) * scene.vectors])


@lru_cache(maxsize=KEPT)
def judged(scene: Scene) -> dict[str, Likely]:
    """For each kind the likelihood of every sentence of the talk."""
    return weighed(scene, judges())


def weighed(scene: Scene, by: dict[str, Judge]) -> dict[str, Likely]:
    """What judges say of every sentence, weighed against what its context says."""
    looked_at, beside = inputs(scene), in_context(scene)
    made = {}
    for column, kind in enumerate(KINDS):
        own, context, shift = WEIGHED[kind]
        made[kind] = _likelihood(own * by[kind].logit(looked_at) + context * beside[:, column] + np.float32(shift))
    return made


@lru_cache(maxsize=KEPT)
def judged_borders(scene: Scene) -> Likely:
    """For each turn the likelihood that it opens a chapter."""
    own, context, shift = OPENS_WEIGHED
    seen = np.clip(border_judge().of(border_signs(scene)), SURE, 1 - SURE)
    read = np.array(scene.highest(in_context(scene)[:, OPENS], LEAST_OPENING), np.float32)
    return _likelihood(own * np.log(seen / (1 - seen)) + context * read + np.float32(shift))
