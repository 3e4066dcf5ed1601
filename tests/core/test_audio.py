"""Sound in every format that is promised, and in every state that it arrives in."""

from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.encode import write_picture
from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from nuntius.core.audio.probe import probe
from nuntius.core.errors import Fault, NotMedia, SoundEmpty, SoundSilent, SoundTrackMissing
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
BURST_AT, BURST = 2.0, 0.1  # seconds


def burst(rng: np.random.Generator) -> np.ndarray:
    samples = np.zeros(4 * 48_000, np.float32)
    samples[round(BURST_AT * 48_000) : round((BURST_AT + BURST) * 48_000)] = 0.3 * rng.standard_normal(
        round(BURST * 48_000)
    )
    return samples


def encode(path: Path, samples: np.ndarray, codec: str, picture: bool = False) -> None:
    container = {"m4a": "mp4", "aac": "adts"}.get(path.suffix[1:])
    with av.open(str(path), "w", format=container) as out:
        stream: Any = out.add_stream(codec, rate=48_000, layout="mono")
        video = out.add_stream("libx264", rate=10) if picture else None
        if video is not None:
            video.width, video.height, video.pix_fmt = 64, 48, "yuv420p"
            for n in range(40):
                shown = av.VideoFrame.from_ndarray(np.full((48, 64, 3), n * 6, np.uint8), "rgb24")
                out.mux(video.encode(shown))
            out.mux(video.encode(None))
        frame = av.AudioFrame.from_ndarray(samples[None].astype(np.float32), "flt", "mono")
        frame.sample_rate, frame.pts, frame.time_base = 48_000, 0, Fraction(1, 48_000)
        resampler = av.AudioResampler(
            stream.format.name, "mono", 48_000, frame_size=stream.codec_context.frame_size or 1024
        )
        for part in [*resampler.resample(frame), *resampler.resample(None)]:
            out.mux(stream.encode(part))
        out.mux(stream.encode(None))


def shift(found: np.ndarray, sought: np.ndarray) -> float:
    """Milliseconds by which the burst stands later than it was put."""
    template = sought[round(BURST_AT * RATE) : round((BURST_AT + BURST) * RATE)]
    at = int(np.argmax(np.correlate(found[: 3 * RATE], template, "valid")))
    return (at / RATE - BURST_AT) * 1000


@pytest.mark.parametrize("ending", FORMATS)
def test_every_format_keeps_its_times(ending: str, tmp_path: Path, rng: np.random.Generator) -> None:
    samples = burst(rng)
    write_wav(tmp_path / "true.wav", samples, 48_000)
    path = tmp_path / f"sound.{ending}"
    encode(path, samples, FORMATS[ending][0])
    assert abs(shift(load(path), load(tmp_path / "true.wav"))) <= FORMATS[ending][1]


def test_a_pass_makes_working_copy_playback_copy_peaks_and_loudness(wav: Path, tmp_path: Path) -> None:
    heard: list[float] = []
    made = prepare(wav, tmp_path / "w.pcm", tmp_path / "p.ogg", heard.append)
    assert made.duration == pytest.approx(3.0)
    assert WorkingCopy(tmp_path / "w.pcm").duration == pytest.approx(3.0)
    assert probe(tmp_path / "p.ogg").codec == "opus"
    assert abs(len(load(tmp_path / "p.ogg")) / RATE - 3.0) < 0.03
    assert len(made.peaks) == 30
    assert set(made.peaks) <= {75, 76, 77}  # 0.3 of 255
    assert made.peak == pytest.approx(20 * np.log10(0.3), abs=0.05)
    assert not made.broken
    assert heard == sorted(heard)
    assert heard[-1] == pytest.approx(3.0)


def test_the_working_copy_reads_stretches(wav: Path, tmp_path: Path) -> None:
    prepare(wav, tmp_path / "w.pcm", tmp_path / "p.ogg")
    sound = WorkingCopy(tmp_path / "w.pcm")
    assert np.abs(sound.read(1.0, 1.5) - tone(3.0)[16_000:24_000]).max() < 2e-4
    assert len(sound.read(2.9, 9.0)) == 1_600
    assert len(sound.read(5.0, 6.0)) == 0


@pytest.mark.parametrize(("rate", "channels"), [(8_000, 1), (44_100, 2), (48_000, 6)])
def test_phone_sound_stereo_and_surround_are_taken(rate: int, channels: int, tmp_path: Path) -> None:
    mono = tone(2.0, rate=rate)
    write_wav(tmp_path / "s.wav", np.repeat(mono, channels), rate, channels)
    samples = load(tmp_path / "s.wav")
    assert len(samples) / RATE == pytest.approx(2.0, abs=0.01)
    assert np.abs(samples).max() > 0.2


def test_the_picture_is_kept_for_playback(tmp_path: Path, rng: np.random.Generator) -> None:
    encode(tmp_path / "v.mp4", burst(rng), "aac", picture=True)
    assert probe(tmp_path / "v.mp4").has_picture
    write_picture(tmp_path / "v.mp4", tmp_path / "out.mp4")
    assert probe(tmp_path / "out.mp4").has_picture
    write_wav(tmp_path / "true.wav", burst(np.random.default_rng(5)), 48_000)
    assert abs(shift(load(tmp_path / "out.mp4"), load(tmp_path / "true.wav"))) < 25


def test_a_truncated_file_gives_what_is_there(tmp_path: Path) -> None:
    write_wav(tmp_path / "whole.wav", tone(4.0, rate=48_000), 48_000)
    encode(tmp_path / "whole.ogg", tone(4.0, rate=48_000), "libopus")
    for name in ("whole.wav", "whole.ogg"):
        data = (tmp_path / name).read_bytes()
        (tmp_path / f"cut-{name}").write_bytes(data[: len(data) * 6 // 10])
        made = prepare(tmp_path / f"cut-{name}", tmp_path / "w.pcm", tmp_path / "p.ogg")
        assert 1.0 < made.duration < 3.9


def test_the_ending_of_the_name_counts_for_nothing(wav: Path, tmp_path: Path) -> None:
    wav.rename(tmp_path / "sound.mp3")
    assert probe(tmp_path / "sound.mp3").codec == "pcm_s16le"


def test_bad_input_gets_its_own_sentence(tmp_path: Path, rng: np.random.Generator) -> None:
    (tmp_path / "noise.mp3").write_bytes(rng.bytes(20_000))
    (tmp_path / "empty.wav").write_bytes(b"")
    write_wav(tmp_path / "nothing.wav", np.zeros(0, np.float32), 16_000)
    write_wav(tmp_path / "silent.wav", np.zeros(32_000, np.float32), 16_000)
    with av.open(str(tmp_path / "mute.mp4"), "w") as out:
        video = out.add_stream("libx264", rate=10)
        video.width, video.height, video.pix_fmt = 64, 48, "yuv420p"
        out.mux(video.encode(av.VideoFrame.from_ndarray(np.zeros((48, 64, 3), np.uint8), "rgb24")))
        out.mux(video.encode(None))
    expected: dict[str, type[Fault]] = {
        "noise.mp3": NotMedia,
        "empty.wav": SoundEmpty,
        "nothing.wav": SoundEmpty,
        "silent.wav": SoundSilent,
        "mute.mp4": SoundTrackMissing,
    }
    for name, fault in expected.items():
        with pytest.raises(fault) as caught:
            probe(tmp_path / name)
            prepare(tmp_path / name, tmp_path / "w.pcm", tmp_path / "p.ogg")
        assert caught.value.sentence.count(".") >= 1
