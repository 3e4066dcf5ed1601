"""Sound in every format that is promised, decoded with its times."""

from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.prepare import prepare
from tests.core.audio.samples import burst, encode, shift
from tests.help import tone, write_wav

FORMATS = {  # ending: codec, allowed shift in ms
    "wav": ("pcm_s16le", 0.1),
    "flac": ("flac", 0.1),
    "mp3": ("libmp3lame", 1),
    "m4a": ("aac", 1),
    "aac": ("aac", 1),
    "ogg": ("libopus", 1),
    "webm": ("libopus", 8),
    "mp4": ("aac", 1),
    "mov": ("aac", 1),
}


@pytest.mark.parametrize("ending", FORMATS)
def test_every_format_keeps_its_times(ending: str, tmp_path: Path, rng: np.random.Generator) -> None:
    samples = burst(rng)
    write_wav(tmp_path / "true.wav", samples, 48_000)
    path = tmp_path / f"sound.{ending}"
    encode(path, samples, FORMATS[ending][0])
    assert abs(shift(load(path), load(tmp_path / "true.wav"))) <= FORMATS[ending][1]


@pytest.mark.parametrize(("rate", "channels"), [(8_000, 1), (44_100, 2), (48_000, 6)])
def test_phone_sound_stereo_and_surround_are_taken(rate: int, channels: int, tmp_path: Path) -> None:
    mono = tone(2.0, rate=rate)
    write_wav(tmp_path / "s.wav", np.repeat(mono, channels), rate, channels)
    samples = load(tmp_path / "s.wav")
    assert len(samples) / RATE == pytest.approx(2.0, abs=0.01)
    assert np.abs(samples).max() > 0.2


def test_a_truncated_file_gives_what_is_there(tmp_path: Path) -> None:
    write_wav(tmp_path / "whole.wav", tone(4.0, rate=48_000), 48_000)
    encode(tmp_path / "whole.ogg", tone(4.0, rate=48_000), "libopus")
    for name in ("whole.wav", "whole.ogg"):
        data = (tmp_path / name).read_bytes()
        (tmp_path / f"cut-{name}").write_bytes(data[: len(data) * 6 // 10])
        made = prepare(tmp_path / f"cut-{name}", tmp_path / "w.pcm", tmp_path / "p.ogg")
        assert 1.0 < made.duration < 3.9
