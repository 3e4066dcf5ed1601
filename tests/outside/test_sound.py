"""Measures of sound, held against reference libraries and published tables."""

import kaldi_native_fbank
import numpy as np
import pyloudnorm
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.level import LoudnessMeter
from nuntius.core.speech.diarization.features import log_mel
from tests.help import tone
from tests.outside.published import kennedy

pytestmark = pytest.mark.outside


def test_features_equal_kaldis() -> None:
    """Log-mel features as kaldi-native-fbank computes them, with the settings of the speaker network."""
    samples = load(kennedy())
    options = kaldi_native_fbank.FbankOptions()
    options.frame_opts.dither = 0
    options.frame_opts.window_type = "hamming"
    options.mel_opts.num_bins = 80
    reference = kaldi_native_fbank.OnlineFbank(options)
    reference.accept_waveform(RATE, (samples * 32768).tolist())
    reference.input_finished()
    theirs = np.stack([reference.get_frame(i) for i in range(reference.num_frames_ready)])
    np.testing.assert_allclose(log_mel(samples), theirs, atol=2e-3)


def loudness(samples: np.ndarray) -> float:
    meter = LoudnessMeter()
    for start in range(0, len(samples), 1000):  # in uneven pieces, as a stream arrives
        meter.push(samples[start : start + 1000])
    return meter.loudness


def test_loudness_of_speech_equals_pyloudnorms() -> None:
    samples = load(kennedy())
    theirs = pyloudnorm.Meter(RATE).integrated_loudness(samples.astype(np.float64))
    assert loudness(samples) == pytest.approx(theirs, abs=0.2)


def test_loudness_of_the_calibration_tone() -> None:
    """ITU-R BS.1770-4, annex 1: a 997 Hz sine at full scale in one channel reads -3.01 LKFS."""
    assert loudness(tone(20.0, 997.0, level=1.0)) == pytest.approx(-3.01, abs=0.1)
