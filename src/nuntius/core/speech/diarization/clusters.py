"""From the local voices of many windows to the voices of the meeting."""

from dataclasses import dataclass

import numpy as np
from scipy.cluster.hierarchy import fcluster, linkage
from scipy.optimize import linear_sum_assignment

from nuntius.core.speech.diarization.networks import EMBEDDING, WINDOW_SECONDS, Floats
from nuntius.core.speech.diarization.windows import Window

# Chosen on the labelled sound that tests/outside/published.py names; cosine distances unless said.
CUT = 0.50  # average-linkage distance up to which two clusters are one voice
FINER_CUTS = (0.45, 0.40, 0.35, 0.30, 0.25, 0.20)  # tried when fewer voices came out than are known
SAME_VOICE = 0.70  # cosine similarity of two centroids that are one voice
TRAINING_SECONDS = 1.0  # clean seconds that an embedding needs to form clusters
LEAST_SECONDS, MOST_SECONDS, LEAST_SHARE = 1.0, 10.0, 0.01  # speech that a voice needs to be one
MOST_TRAINING = 2500  # embeddings that are linked; the cost grows with the square
LEAST_FRAMES = 4  # active frames below which a local voice is nobody
ROUNDS = 3  # of giving local voices to centroids and moving the centroids
MOST_VOICES = 20


@dataclass(frozen=True, slots=True)
class Assignment:
    """`voices` (windows, 3) holds a voice's number or -1; `centroids` (voices, 256) what each sounds like."""

    voices: np.ndarray
    centroids: Floats

    @property
    def count(self) -> int:
        """The number of voices."""
        return len(self.centroids)


def assign(windows: list[Window], step: float, people: int | None, earlier: Floats | None = None) -> Assignment:
    """Gives each local voice of each window to a voice of the meeting.

    With the centroids of an `earlier` assignment windows are assigned by those alone: quick, but nobody new is found.
    """
    embeddings = np.stack([window.embeddings for window in windows])
    clean = np.stack([window.clean for window in windows])
    active = np.stack([window.active.sum(0) for window in windows])
    known = (np.abs(embeddings).sum(2) > 0) & (active >= LEAST_FRAMES)
    rows, columns = np.nonzero(known)
    voices = np.full(known.shape, -1)
    if not len(rows):
        return Assignment(voices, np.zeros((0, EMBEDDING), np.float32))
    vectors, seconds = unit(embeddings[rows, columns]), clean[rows, columns]
    if earlier is not None:
        _give(voices, rows, columns, vectors @ earlier.T)
        return Assignment(voices, earlier)
    training = _training(seconds)
    weights = np.maximum(seconds[training], 0.05)
    density = step / WINDOW_SECONDS * max(int(np.sum(seconds >= TRAINING_SECONDS)), len(training)) / len(training)
    centroids = _centroids(vectors[training], weights, density, people)
    for _ in range(ROUNDS):
        _give(voices, rows, columns, vectors @ centroids.T)
        centroids = _moved(centroids, voices[rows, columns][training], vectors[training], weights)
    return Assignment(voices, centroids)


def unit(vectors: Floats) -> Floats:
    """Vectors of length 1; zeros stay zeros."""
    return np.asarray(vectors / np.maximum(np.linalg.norm(vectors, axis=-1, keepdims=True), 1e-9), np.float32)


def _training(seconds: Floats) -> np.ndarray:
    """Indices of the embeddings that form the clusters: the ones with enough clean speech."""
    chosen = np.nonzero(seconds >= TRAINING_SECONDS)[0]
    if not len(chosen):
        chosen = np.arange(len(seconds))
    if len(chosen) > MOST_TRAINING:
        chosen = chosen[np.linspace(0, len(chosen) - 1, MOST_TRAINING).astype(int)]
    return chosen


def found_voices(vectors: Floats, seconds: Floats, people: int | None, cut: float) -> Floats:
    """Unit centroids (k, 256) of the voices in vectors (n, 256) that stand for so many seconds (n,) of speech each."""
    training = _training(seconds)
    vectors, seconds = vectors[training], seconds[training]
    centroids = _centroids(vectors, seconds, 1.0, people, cut)
    for _ in range(ROUNDS):
        centroids = _moved(centroids, (vectors @ centroids.T).argmax(1), vectors, seconds)
    return centroids


def _centroids(vectors: Floats, weights: Floats, density: float, people: int | None, coarsest: float = CUT) -> Floats:
    """Unit centroids (k, 256), the voice with most speech first."""
    wanted = people or 1
    tree = linkage(vectors, "average", "cosine") if len(vectors) > 1 else None
    for cut in (coarsest, *FINER_CUTS):
        labels = fcluster(tree, cut, "distance") - 1 if tree is not None else np.zeros(1, int)
        sums, seconds = _sums(labels, vectors, weights, density)
        if len(sums) >= wanted:
            break
    least = min(MOST_SECONDS, max(LEAST_SECONDS, LEAST_SHARE * float(weights.sum()) * density))
    keep = (seconds >= least) | (np.arange(len(sums)) < wanted)
    sums, seconds = _joined(sums[keep], seconds[keep], wanted)
    order = np.argsort(-seconds)[: people or MOST_VOICES]
    return unit(sums[order])


def _sums(labels: np.ndarray, vectors: Floats, weights: Floats, density: float) -> tuple[Floats, Floats]:
    """Weighted sums (k, 256) and seconds (k,) of clusters, the longest first."""
    count = int(labels.max()) + 1
    sums = np.zeros((count, EMBEDDING), np.float32)
    np.add.at(sums, labels, vectors * weights[:, None])
    seconds = np.bincount(labels, weights, count) * density
    order = np.argsort(-seconds)
    return sums[order], seconds[order].astype(np.float32)


def _joined(sums: Floats, seconds: Floats, wanted: int) -> tuple[Floats, Floats]:
    """Joins the closest clusters while they sound alike and more than `wanted` are left."""
    while len(sums) > wanted:
        alike = unit(sums) @ unit(sums).T
        np.fill_diagonal(alike, -9)
        a, b = sorted(int(i) for i in np.unravel_index(alike.argmax(), alike.shape))
        if alike[a, b] < SAME_VOICE:
            break
        sums[a] += sums[b]
        seconds[a] += seconds[b]
        sums, seconds = np.delete(sums, b, 0), np.delete(seconds, b)
    return sums, seconds


def _give(voices: np.ndarray, rows: np.ndarray, columns: np.ndarray, alike: Floats) -> None:
    """Gives each local voice its best centroid; two of one window share none while there are others."""
    borders = np.nonzero(np.diff(rows))[0] + 1
    for group in np.split(np.arange(len(rows)), borders):
        voices[rows[group], columns[group]] = alike[group].argmax(1)
        own, centroid = linear_sum_assignment(-alike[group])
        voices[rows[group[own]], columns[group[own]]] = centroid


def _moved(centroids: Floats, labels: np.ndarray, vectors: Floats, weights: Floats) -> Floats:
    sums = np.zeros_like(centroids)
    np.add.at(sums, labels, vectors * weights[:, None])
    empty = np.abs(sums).sum(1) == 0
    sums[empty] = centroids[empty]
    return unit(sums)
