"""Other ways to choose a talk's passages, to hold the minutes against: its beginning, and LexRank."""

import numpy as np
from sklearn.feature_extraction.text import TfidfVectorizer

DAMPING = 0.85  # of the random walk
STEPS = 100


def lead(sentences: list[str], words: int) -> str:
    """The first sentences, up to so many words."""
    return _cut(sentences, range(len(sentences)), words)


def lexrank(sentences: list[str], words: int) -> str:
    """The most central sentences, up to so many words, in their order.

    Continuous LexRank (Erkan and Radev, 2004): PageRank over the cosines of tf-idf vectors.
    """
    vectors = TfidfVectorizer().fit_transform(sentences)
    alike = np.asarray((vectors @ vectors.T).todense())
    walk = alike / np.maximum(alike.sum(1, keepdims=True), 1e-9)
    rank = np.full(len(sentences), 1 / len(sentences))
    for _ in range(STEPS):
        rank = (1 - DAMPING) / len(sentences) + DAMPING * walk.T @ rank
    return _cut(sentences, np.argsort(-rank, kind="stable"), words)


def _cut(sentences: list[str], order: object, words: int) -> str:
    chosen: list[int] = []
    spent = 0
    for number in map(int, order):  # type: ignore[call-overload]
        spent += len(sentences[number].split())
        if spent > words and chosen:
            break
        chosen.append(number)
    return " ".join(sentences[number] for number in sorted(chosen))
