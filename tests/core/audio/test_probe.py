"""What a file is, before it is worked on."""

from pathlib import Path

import av
import numpy as np
import pytest

from nuntius.core.audio.prepare import prepare
from nuntius.core.audio.probe import probe
from nuntius.core.errors import Fault, NotMedia, SoundEmpty, SoundSilent, SoundTrackMissing
from tests.help import write_wav


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
