"""The two networks: who is active within ten seconds, and what a voice sounds like."""

import hashlib
from pathlib import Path
from typing import cast

import numpy as np
from numpy.typing import NDArray

from nuntius.core.errors import ModelMissing
from nuntius.core.networks import network
from nuntius.core.speech.diarization.features import Features

MODELS = Path(__file__).parent / "models"
DIGESTS = {  # sha256 of the files that `make models` derives
    "segmentation.onnx": "dabaa80572fcb44e69625c4e07d8f7c7d46b56bb67b503df13db8526096319c3",
    "trunk.onnx.1": "29dea54b00cc8cee4b7e43a8386cfe99cfa3fe2ee36a886aad1ae6d900d0864d",
    "trunk.onnx.2": "10519c53b73af6da3aa4f57be0c3e7b6e067fc2565c322a6602136864139c064",
    "projection.npy": "27538488e59f119d4ac70c88b97fa03b17bd8de07b59848164cdbc0c81882c8a",
}

WINDOW_SECONDS = 10.0
WINDOW_FRAMES = 589  # frames of a window
FRAME = 0.016875  # seconds between frames
LOCAL = 3  # voices that the segmentation network separates within one window
TRUNK_FRAME = 0.08  # seconds behind one frame of the trunk
TRUNK_WIDTH = 2560
EMBEDDING = 256

# Which local voices speak in each class of the network: none, one, or two at once.
POWERSET = np.array([[0, 0, 0], [1, 0, 0], [0, 1, 0], [0, 0, 1], [1, 1, 0], [1, 0, 1], [0, 1, 1]], np.float32)

Floats = NDArray[np.float32]


class Networks:
    """Loaded and checked networks. Raises ModelMissing when a file is not what it should be."""

    def __init__(self, threads: int = 2) -> None:
        trunk = _read("trunk.onnx.1") + _read("trunk.onnx.2")
        self._segmentation = network(_read("segmentation.onnx"), threads)
        self._trunk = network(trunk, threads)
        _read("projection.npy")
        projection = np.load(MODELS / "projection.npy").astype(np.float32)
        self._weights, self._bias = projection[:, :-1], projection[:, -1]

    def classes(self, windows: Floats) -> Floats:
        """Log probabilities (b, 589, 7) of the powerset classes for windows (b, 160000)."""
        return cast(Floats, self._segmentation.run(None, {"waveforms": windows[:, None]})[0])

    def trunk(self, features: Features) -> Floats:
        """Frames (2560, n) of 80 ms for mean-free features (8 n, 80)."""
        return cast(Floats, self._trunk.run(None, {"fbank": features[None]})[0][0])

    def embed(self, frames: Floats, masks: Floats) -> Floats:
        """Embeddings (m, 256) of masks (n, m) over trunk frames (2560, n): mean and deviation, projected.

        Statistics pooling after Snyder et al., "X-vectors", 2018. A mask of less than 1.5 frames gives zeros.
        """
        weight = np.maximum(masks.sum(0), 1e-6)
        mean = frames @ masks / weight
        variance = np.maximum((frames * frames) @ masks / weight - mean * mean, 0)
        deviation = np.sqrt(variance * weight / np.maximum(weight - 1, 1e-6))
        made = (self._weights @ np.concatenate([mean, deviation])).T + self._bias
        made[weight < 1.5] = 0
        return cast(Floats, made)


def _read(name: str) -> bytes:
    path = MODELS / name
    if not path.is_file():
        raise ModelMissing(f"{name} is missing")
    data = path.read_bytes()
    if hashlib.sha256(data).hexdigest() != DIGESTS[name]:
        raise ModelMissing(f"{name} is damaged")
    return data
