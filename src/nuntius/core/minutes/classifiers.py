"""Trained classifiers: how likely a sentence is the heart of an action, a decision, a question, or worth knowing.

Each is a logistic regression over the features of a sentence and its vector, whose logit is weighed against that of the
network which reads the sentence in its context; what opens a chapter is classified by a forest of trees over the features of
a turn, weighed against the same network. `training/train.py` makes them from the annotated talk of this repository.
"""

import json
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files

import numpy as np
from numpy.typing import NDArray

from nuntius.core.minutes.chapters import BOUNDARY_FEATURES, boundary_features
from nuntius.core.minutes.context import LEAST_OPENING, OF_SENTENCES, OPENS, in_context
from nuntius.core.minutes.features import ALL, features
from nuntius.core.minutes.forest import Forest, shipped
from nuntius.core.minutes.scene import KEPT, Scene

Likely = NDArray[np.float32]  # for each sentence of a talk, between 0 and 1

KINDS = OF_SENTENCES
WEIGHED = {  # share of the classifier's logit and of the network's, and what is added; fitted on talk that neither has seen
    "action": (0.3, 0.4, 0.5),
    "decision": (0.5, 0.45, -0.5),
    "question": (1.0, 0.5, -0.3),
    "worth": (0.4, 0.4, 0.4),
}
OPENS_WEIGHED = (0.6, 0.4, -0.25)  # the same for the forest
SURE = 1e-4  # likelihood of the forest that counts as none, and apart from 1 as certain
VECTOR_SHARE = 3.0  # weight of the unit vector beside features between 0 and 1


@dataclass(frozen=True, slots=True)
class Classifier:
    """Weights of the features and of the vector's dimensions."""

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
def classifiers() -> dict[str, Classifier]:
    """The classifiers that ship with the application."""
    kept = json.loads(files("nuntius.core.minutes").joinpath("classifiers.json").read_text())
    if tuple(kept["features"]) != ALL:
        raise ValueError("classifiers.json was made for other features: run `make classifiers`")
    return {
        kind: Classifier(each["bias"], np.array(each["weights"], np.float32))
        for kind, each in kept["classifiers"].items()
    }


@cache
def segmentation_classifier() -> Forest:
    """The classifier of what opens a chapter that ships with the application."""
    return shipped("segmentation.json", BOUNDARY_FEATURES)


def inputs(scene: Scene) -> NDArray[np.float32]:
    """What the classifiers look at, shape (sentences, features + dimensions of a vector)."""
    return np.hstack([features(scene), np.float32(VECTOR_SHARE) * scene.vectors])


@lru_cache(maxsize=KEPT)
def likelihoods(scene: Scene) -> dict[str, Likely]:
    """For each kind the likelihood of every sentence of the talk."""
    return weighed(scene, classifiers())


def weighed(scene: Scene, by: dict[str, Classifier]) -> dict[str, Likely]:
    """What classifiers say of every sentence, weighed against what its context says."""
    looked_at, beside = inputs(scene), in_context(scene)
    made = {}
    for column, kind in enumerate(KINDS):
        own, context, shift = WEIGHED[kind]
        made[kind] = _likelihood(own * by[kind].logit(looked_at) + context * beside[:, column] + np.float32(shift))
    return made


@lru_cache(maxsize=KEPT)
def segmentation_likelihoods(scene: Scene) -> Likely:
    """For each turn the likelihood that it opens a chapter."""
    own, context, shift = OPENS_WEIGHED
    seen = np.clip(segmentation_classifier().of(boundary_features(scene)), SURE, 1 - SURE)
    read = np.array(scene.highest(in_context(scene)[:, OPENS], LEAST_OPENING), np.float32)
    return _likelihood(own * np.log(seen / (1 - seen)) + context * read + np.float32(shift))
