"""Waveform peaks and loudness, gathered while the sound streams by."""

import math

import numpy as np
from numpy.typing import NDArray
from scipy.signal import lfilter

from nuntius.core.audio.decode import RATE, Samples

PEAK_STEP = 0.1  # seconds of sound behind one peak of the waveform
BLOCK = 0.4  # seconds, gating block of ITU-R BS.1770-4
OVERLAP = 4  # each gating block begins a quarter of its length after the one before
ABSOLUTE_GATE = -70.0  # LUFS, BS.1770-4
RELATIVE_GATE = -10.0  # LU below the ungated mean, BS.1770-4
SILENT_BELOW = -60.0  # dBFS peak over the whole recording; common practice, no source
_OFFSET = -0.691  # dB, BS.1770-4 equation 2

Filter = tuple[NDArray[np.float64], NDArray[np.float64]]


class PeakMeter:
    """Largest absolute sample of each tenth of a second, 0 to 255."""

    def __init__(self) -> None:
        self._step = round(PEAK_STEP * RATE)
        self._rest = np.zeros(0, np.float32)
        self._peaks: list[NDArray[np.uint8]] = []

    def push(self, samples: Samples) -> None:
        joined = np.concatenate([self._rest, samples])
        whole = len(joined) // self._step * self._step
        self._rest = joined[whole:]
        self._keep(joined[:whole].reshape(-1, self._step))

    def finish(self) -> bytes:
        """One byte a step; the last one may stand for less than a step."""
        if len(self._rest):
            self._keep(self._rest[None])
        return b"".join(part.tobytes() for part in self._peaks)

    def _keep(self, rows: Samples) -> None:
        if rows.size:
            self._peaks.append(np.minimum(np.abs(rows).max(1) * 255, 255).astype(np.uint8))


class LoudnessMeter:
    """Integrated loudness (LUFS) after ITU-R BS.1770-4 for one channel, and the peak (dBFS)."""

    def __init__(self) -> None:
        self._shelf, self._high = k_weighting(RATE)
        self._shelf_state, self._high_state = np.zeros(2), np.zeros(2)
        self._hop = round(BLOCK / OVERLAP * RATE)
        self._rest = np.zeros(0)
        self._energies: list[float] = []  # mean square of each hop
        self._peak = 0.0

    def push(self, samples: Samples) -> None:
        if not len(samples):
            return
        self._peak = max(self._peak, float(np.abs(samples).max()))
        weighted, self._shelf_state = lfilter(*self._shelf, samples, zi=self._shelf_state)
        weighted, self._high_state = lfilter(*self._high, weighted, zi=self._high_state)
        joined = np.concatenate([self._rest, weighted])
        whole = len(joined) // self._hop * self._hop
        self._rest = joined[whole:]
        self._energies += np.square(joined[:whole].reshape(-1, self._hop)).mean(1).tolist()

    @property
    def peak(self) -> float:
        """Largest sample in dBFS; -inf for digital silence."""
        return 20 * math.log10(self._peak) if self._peak else -math.inf

    @property
    def loudness(self) -> float:
        """Integrated loudness in LUFS; -inf when no block lies above the absolute gate."""
        hops = np.array(self._energies)
        if len(hops) < OVERLAP:
            return -math.inf
        blocks = np.convolve(hops, np.ones(OVERLAP) / OVERLAP, "valid")
        heard = blocks[_lufs(blocks) > ABSOLUTE_GATE]
        if not len(heard):
            return -math.inf
        gate = float(_lufs(heard.mean(keepdims=True))[0]) + RELATIVE_GATE
        return float(_lufs(heard[_lufs(heard) > gate].mean(keepdims=True))[0])


def k_weighting(rate: int) -> tuple[Filter, Filter]:
    """The two filters of BS.1770 for any rate.

    Analogue parameters from which the recommendation's 48 kHz coefficients follow by the bilinear
    transform (gain 4.0 dB, 1681.97 Hz, Q 0.7072; high pass 38.135 Hz, Q 0.5003).
    """
    k = math.tan(math.pi * 1681.974450955533 / rate)
    gain, q = 10 ** (3.999843853973347 / 20), 0.7071752369554196
    middle = gain**0.4996667741545416
    norm = 1 + k / q + k * k
    shelf = (
        np.array([gain + middle * k / q + k * k, 2 * (k * k - gain), gain - middle * k / q + k * k]) / norm,
        np.array([1.0, 2 * (k * k - 1) / norm, (1 - k / q + k * k) / norm]),
    )
    k, q = math.tan(math.pi * 38.13547087602444 / rate), 0.5003270373238773
    norm = 1 + k / q + k * k
    high = np.array([1.0, -2.0, 1.0]), np.array([1.0, 2 * (k * k - 1) / norm, (1 - k / q + k * k) / norm])
    return shelf, high


def _lufs(mean_square: NDArray[np.float64]) -> NDArray[np.float64]:
    return _OFFSET + 10 * np.log10(np.maximum(mean_square, 1e-12))
