"""What several tests of this folder share."""

from fractions import Fraction
from pathlib import Path
from typing import Any

import av
import numpy as np

from nuntius.core.audio.decode import RATE

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


def shift(found: np.ndarray, spoken: np.ndarray) -> float:
    """Milliseconds by which the burst stands later than it was put."""
    template = spoken[round(BURST_AT * RATE) : round((BURST_AT + BURST) * RATE)]
    at = int(np.argmax(np.correlate(found[: 3 * RATE], template, "valid")))
    return (at / RATE - BURST_AT) * 1000
