"""Diarization of a recording by windows."""

import json
from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.errors import ModelMissing
from nuntius.core.speech.diarization import networks
from nuntius.core.speech.diarization.batch import WindowDiarizer
from nuntius.core.speech.diarizer import Span
from tests.core.speech.samples import DEMO


class TestDiarizer:
    """Who spoke, on a demo recording whose turns are known."""

    @pytest.fixture(scope="class")
    def nets(self) -> networks.Networks:
        return networks.Networks(2)

    def test_voices_are_told_apart_and_keep_their_names_as_sound_arrives(self, nets: networks.Networks) -> None:
        truth = json.loads((DEMO / "winter-timetable.truth.json").read_text())["turns"]
        samples = load(DEMO / "winter-timetable.ogg")[: 60 * RATE]
        diarizer = WindowDiarizer(nets)
        diarizer.push(samples[: 40 * RATE])
        early = diarizer.spans()
        diarizer.push(samples[40 * RATE :])
        diarizer.finish()
        late = diarizer.spans()
        speakers = {s.voice: _speaker(truth, s) for s in late if s.end - s.start > 3}
        assert len(speakers) >= 3
        assert len(set(speakers.values())) == len(speakers)  # no two long voices are one person
        sure = [s for s in early if s.end - s.start > 4 and s.end < 38]
        assert sure
        assert all(any(s.voice == o.voice and o.start < s.end - 1 and s.start + 1 < o.end for o in late) for s in sure)

    def test_silence_has_no_voices(self, nets: networks.Networks) -> None:
        diarizer = WindowDiarizer(nets)
        diarizer.push(np.zeros(3 * RATE, np.float32))
        diarizer.finish()
        assert diarizer.spans() == []

    def test_a_damaged_model_is_named(self, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
        (tmp_path / "trunk.onnx.1").write_bytes(b"not a model")
        monkeypatch.setattr(networks, "MODELS", tmp_path)
        with pytest.raises(ModelMissing, match=r"trunk.onnx.1 is damaged"):
            networks.Networks()


def _speaker(truth: list[dict[str, object]], span: Span) -> str:
    """Who speaks most of a span."""
    shared = {str(t["speaker"]): 0.0 for t in truth}
    for t in truth:
        shared[str(t["speaker"])] += max(
            0.0, min(span.end, float(str(t["end"]))) - max(span.start, float(str(t["start"])))
        )
    return max(shared, key=lambda name: shared[name])
