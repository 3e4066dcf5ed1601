"""What every recogniser does, on each of them."""

import json
from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import WorkingCopy, to_bytes
from nuntius.core.errors import ModelMissing, ScriptMissing
from nuntius.core.speech.recogniser import STRETCH, Recogniser, recognise_stretch, stretches
from nuntius.core.speech.scripted import ScriptedRecogniser
from nuntius.jobs import engines
from nuntius.settings import Settings
from tests.core.speech.samples import DEMO


def test_stretches_cover_all_sound_and_cut_where_it_is_quiet(tmp_path: Path, rng: np.random.Generator) -> None:
    samples = 0.1 * rng.standard_normal(round((STRETCH + 60) * RATE)).astype(np.float32)
    quiet = STRETCH - 7.0
    samples[round((quiet - 0.5) * RATE) : round((quiet + 0.5) * RATE)] = 0
    (tmp_path / "w.pcm").write_bytes(to_bytes(samples))
    plan = stretches(WorkingCopy(tmp_path / "w.pcm"))
    assert len(plan) == 2
    assert plan[0].end == plan[1].start == pytest.approx(quiet, abs=0.4)
    assert (plan[0].start, plan[1].end) == (0.0, pytest.approx(STRETCH + 60))


class RecogniserContract:
    """What holds for every recogniser; each class below runs it on one."""

    heard = "three things to"

    def recogniser(self, folder: Path) -> Recogniser:
        raise NotImplementedError

    @pytest.fixture
    def sound(self, tmp_path: Path) -> WorkingCopy:
        (tmp_path / "w.pcm").write_bytes(to_bytes(load(DEMO / "winter-timetable.ogg")[: 8 * RATE]))
        return WorkingCopy(tmp_path / "w.pcm")

    def test_words_have_times_in_order_inside_the_sound(self, sound: WorkingCopy, tmp_path: Path) -> None:
        engine = self.recogniser(tmp_path)
        found = recognise_stretch(engine, sound, stretches(sound)[0])
        assert self.heard in " ".join(w.text for w in found).lower()
        assert all(0 <= w.start <= w.end <= sound.duration + 0.5 and 0 <= w.confidence <= 1 for w in found)
        assert list(found) == sorted(found)

    def test_silence_holds_no_words(self, tmp_path: Path) -> None:
        engine = self.recogniser(tmp_path)
        assert engine.recognise(np.zeros(0, np.float32)) == ()


class TestWhisper(RecogniserContract):
    def recogniser(self, folder: Path) -> Recogniser:
        return engines.recogniser(Settings.from_environment({}), folder)

    def test_a_folder_without_a_model_is_named(self, tmp_path: Path) -> None:
        with pytest.raises(ModelMissing, match=r"holds no model\.bin"):
            engines.recogniser(Settings.from_environment({"NUNTIUS_MODEL_DIR": str(tmp_path)}), tmp_path)


class TestStreaming(RecogniserContract):
    def recogniser(self, folder: Path) -> Recogniser:
        return engines.recogniser(Settings.from_environment({"NUNTIUS_RECOGNISER": "streaming"}), folder)


class TestScripted(RecogniserContract):
    def recogniser(self, folder: Path) -> Recogniser:
        (folder / "s.json").write_text(json.dumps({"turns": [{"start": 1, "end": 3, "text": "Three things today:"}]}))
        return ScriptedRecogniser(folder / "s.json")

    def test_without_a_script_it_says_so(self, tmp_path: Path) -> None:
        with pytest.raises(ScriptMissing):
            ScriptedRecogniser(tmp_path / "none.json")
