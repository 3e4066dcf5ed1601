"""A forest of decision trees as plain numbers, so that a trained one can be kept as text and read anywhere."""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from importlib.resources import files
from typing import Any

import numpy as np
from numpy.typing import NDArray

LEAF = -1  # stands for the sign that a node looks at where it looks at none


@dataclass(frozen=True, slots=True)
class Tree:
    """Nodes in arrays of one length: which sign each looks at, up to which value it goes left, where to, its likelihood."""

    sign: NDArray[np.int32]
    most: NDArray[np.float32]
    left: NDArray[np.int32]
    right: NDArray[np.int32]
    likely: NDArray[np.float32]


@dataclass(frozen=True)
class Forest:
    """The mean of its trees (Breiman, Random Forests, 2001)."""

    trees: tuple[Tree, ...]

    @cached_property
    def _whole(self) -> Tree:
        """All trees side by side, shape (trees, nodes), so that few rows are classified as quickly as many."""
        most = max(len(tree.sign) for tree in self.trees)

        def side_by_side(of: str, beyond: int) -> NDArray[Any]:
            return np.stack(
                [
                    np.pad(kept, (0, most - len(kept)), constant_values=beyond)
                    for kept in (getattr(t, of) for t in self.trees)
                ]
            )

        return Tree(
            side_by_side("sign", LEAF),
            side_by_side("most", 0),
            side_by_side("left", 0),
            side_by_side("right", 0),
            side_by_side("likely", 0),
        )

    def of(self, features: NDArray[np.float32]) -> NDArray[np.float32]:
        """Likelihood of each row of `features`, shape (rows,)."""
        whole, rows = self._whole, np.arange(len(features))
        tree = np.arange(len(self.trees))[:, None]
        at = np.zeros((len(self.trees), len(features)), np.int32)
        while (inside := (sign := whole.sign[tree, at]) != LEAF).any():
            goes_left = features[rows, np.maximum(sign, 0)] <= whole.most[tree, at]
            at = np.where(inside, np.where(goes_left, whole.left[tree, at], whole.right[tree, at]), at)
        return np.asarray(np.mean(whole.likely[tree, at], axis=0), np.float32)


def shipped(name: str, features: Sequence[str]) -> Forest:
    """The forest that ships under this name; ValueError where it was made for other features."""
    kept = json.loads(files("nuntius.core.minutes").joinpath(name).read_text())
    if kept["features"] != list(features):
        raise ValueError(f"{name} was made for other features: run `make classifiers`")
    return forest_of(kept["trees"])


def forest_of(kept: Sequence[dict[str, Any]]) -> Forest:
    """A forest from its trees as they are kept."""
    return Forest(
        tuple(
            Tree(
                np.array(tree["sign"], np.int32),
                np.array(tree["most"], np.float32),
                np.array(tree["left"], np.int32),
                np.array(tree["right"], np.int32),
                np.array(tree["likely"], np.float32),
            )
            for tree in kept
        )
    )
