"""A forest of decision trees as plain numbers, so that a trained one can be kept as text and read anywhere."""

from collections.abc import Sequence
from dataclasses import dataclass
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

    def of(self, signs: NDArray[np.float32]) -> NDArray[np.float32]:
        """Likelihood of each row of `signs`, shape (rows,)."""
        rows = np.arange(len(signs))
        at = np.zeros(len(signs), np.int32)
        while (inside := self.sign[at] != LEAF).any():
            goes_left = signs[rows, np.maximum(self.sign[at], 0)] <= self.most[at]
            at = np.where(inside, np.where(goes_left, self.left[at], self.right[at]), at)
        return np.asarray(self.likely[at], np.float32)


@dataclass(frozen=True, slots=True)
class Forest:
    """The mean of its trees (Breiman, Random Forests, 2001)."""

    trees: tuple[Tree, ...]

    def of(self, signs: NDArray[np.float32]) -> NDArray[np.float32]:
        """Likelihood of each row of `signs`, shape (rows,)."""
        return np.asarray(np.mean([tree.of(signs) for tree in self.trees], axis=0), np.float32)


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
