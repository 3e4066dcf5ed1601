"""Log-mel features as the embedding network was trained on them."""

import numpy as np
import scipy.fft
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from nuntius.core.audio.decode import RATE, Samples

WINDOW = 400  # samples, 25 ms
HOP = 160  # samples, 10 ms
BANDS = 80
FFT = 512
LOWEST, HIGHEST = 20.0, 8000.0  # Hz
PREEMPHASIS = 0.97
FLOOR = 1.1920929e-07  # float32 epsilon, Kaldi's floor under the logarithm

Features = NDArray[np.float32]


def _mel(hertz: NDArray[np.float64]) -> NDArray[np.float64]:
    """Kaldi's mel scale, 1127 ln(1 + f / 700)."""
    return 1127 * np.log(1 + hertz / 700)


def _filters() -> Features:
    """Triangular filters over the FFT bins, shape (FFT / 2 + 1, BANDS)."""
    edges = _mel(np.array([LOWEST, HIGHEST]))
    width = (edges[1] - edges[0]) / (BANDS + 1)
    bins = _mel(np.arange(FFT // 2 + 1) * RATE / FFT)[:, None]
    rise = (bins - edges[0] - width * np.arange(BANDS)[None]) / width
    weights = np.maximum(0, np.minimum(rise, 2 - rise))
    weights[-1] = 0  # Kaldi leaves the Nyquist bin out
    return np.asarray(weights, np.float32)


_FILTERS = _filters()
_HAMMING = (0.54 - 0.46 * np.cos(2 * np.pi * np.arange(WINDOW) / (WINDOW - 1))).astype(np.float32)


def log_mel(samples: Samples) -> Features:
    """Features of shape (frames, 80), one frame every 10 ms; equals Kaldi's filter banks without dither.

    No frames for fewer than 400 samples.
    """
    if len(samples) < WINDOW:
        return np.zeros((0, BANDS), np.float32)
    frames = sliding_window_view(samples * np.float32(32768), WINDOW)[::HOP]
    frames = frames - frames.mean(1, keepdims=True)
    first = frames[:, :1] * np.float32(1 - PREEMPHASIS)
    rest = frames[:, 1:] - np.float32(PREEMPHASIS) * frames[:, :-1]
    windowed = np.concatenate([first, rest], 1) * _HAMMING
    power = np.abs(scipy.fft.rfft(windowed, FFT, axis=1).astype(np.complex64)) ** 2
    return np.asarray(np.log(np.maximum(power @ _FILTERS, FLOOR)), np.float32)
