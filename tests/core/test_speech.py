"""Words given to voices, stretches, and one contract for every recogniser."""

import json
from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import WorkingCopy, to_bytes
from nuntius.core.errors import ModelMissing, ScriptMissing
from nuntius.core.speech.diarization import networks
from nuntius.core.speech.diarization.batch import WindowDiarizer
from nuntius.core.speech.diarizer import Span, voice_name
from nuntius.core.speech.joining import by_time, join
from nuntius.core.speech.recogniser import STRETCH, Recogniser, recognise_stretch, stretches
from nuntius.core.speech.scripted import ScriptedRecogniser
from nuntius.core.transcript.word import Word
from nuntius.jobs import engines
from nuntius.settings import Settings

DEMO = Path(__file__).parents[2] / "demo"


def words(*rows: tuple[str, float, float]) -> tuple[Word, ...]:
    return tuple(Word(a, b, text) for text, a, b in rows)


def test_a_word_goes_to_the_voice_in_whose_span_its_middle_lies() -> None:
    said = words(("Shall", 0, 0.4), ("we?", 0.4, 0.9), ("Yes.", 1.0, 1.4))
    voices = by_time(said, [Span(0, 1, "A"), Span(1, 2, "B")])
    assert [(t.speaker, t.text) for t in join(said, voices, 2.0).turns] == [("A", "Shall we?"), ("B", "Yes.")]


def test_a_backchannel_inside_a_long_turn_is_not_swallowed() -> None:
    said = words(("We", 0, 0.5), ("repair", 0.5, 1), ("Mm-hm.", 1.1, 1.5), ("it", 1.6, 2), ("now.", 2, 2.5))
    assert by_time(said, [Span(0, 2.6, "A"), Span(1.05, 1.55, "B")]) == ["A", "A", "B", "A", "A"]


def test_a_word_in_a_gap_goes_to_the_nearest_voice_and_without_voices_to_one() -> None:
    said = words(("Hm.", 4.0, 4.2))
    assert by_time(said, [Span(0, 1, "A"), Span(5, 6, "B")]) == ["B"]
    assert by_time(said, []) == ["Voice A"]
    assert join((), (), 9).turns == ()


def test_a_long_pause_ends_a_turn_of_the_same_voice() -> None:
    made = join(words(("One.", 0, 0.5), ("Two.", 4, 4.5)), ["A", "A"], 5)
    assert len(made.turns) == 2


def test_voices_have_letters() -> None:
    assert [voice_name(n) for n in (0, 25, 26, 27)] == ["Voice A", "Voice Z", "Voice AA", "Voice AB"]


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
        told = {s.voice: _speaker(truth, s) for s in late if s.end - s.start > 3}
        assert len(told) >= 3
        assert len(set(told.values())) == len(told)  # no two long voices are one person
        sure = [s for s in early if s.end - s.start > 4 and s.end < 38]
        assert sure
        assert all(any(s.voice == o.voice and o.start < s.end - 1 and s.start + 1 < o.end for o in late) for s in sure)

    def test_the_number_of_people_is_kept_to(self, nets: networks.Networks) -> None:
        diarizer = WindowDiarizer(nets)
        diarizer.push(load(DEMO / "winter-timetable.ogg")[: 40 * RATE])
        diarizer.finish()
        assert len({s.voice for s in diarizer.spans(2)}) == 2

    def test_no_sound_and_silence_have_no_voices(self, nets: networks.Networks) -> None:
        for seconds in (0, 3):
            diarizer = WindowDiarizer(nets)
            diarizer.push(np.zeros(seconds * RATE, np.float32))
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
