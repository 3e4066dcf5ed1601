"""Whose words: phrases given to the voices that they sound like."""

import json
from collections.abc import Callable, Sequence
from pathlib import Path

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import WorkingCopy, to_bytes
from nuntius.core.speech.diarization.networks import EMBEDDING, Floats, Networks
from nuntius.core.speech.diarization.phrases import Diarized, Prints, diarize_phrases
from nuntius.core.speech.diarization.voiceprints import VoicePrints
from nuntius.core.speech.diarizer import Span
from nuntius.core.transcript.word import Word, spread
from tests.help import ROOT

DEMO = ROOT / "demo"

Line = tuple[str, str, float]  # who really speaks, what, and for how many seconds
LONG = "We need a new rope for the north pier before winter."
TALK: list[Line] = [(who, LONG, 3.0) for who in "ABABABABABABABABABABABAB"]


class Said:
    """A talk in which it is known who speaks when; one line follows the other after a fifth of a second."""

    def __init__(self, lines: Sequence[Line], gap: float = 0.2) -> None:
        self.words: list[Word] = []
        self.truth: list[str] = []
        self.lines: list[Span] = []
        clock = 0.0
        for who, text, seconds in lines:
            said = spread(text, clock, clock + seconds)
            self.words += said
            self.truth += [who] * len(said)
            self.lines.append(Span(clock, clock + seconds, who))
            clock += seconds + gap

    def prints(self, noise: float = 0.4) -> Prints:
        """Prints of phrases as a network gives them: the voice's own direction and some noise."""
        rng = np.random.default_rng(3)
        voices = sorted({line.voice for line in self.lines})
        own = rng.standard_normal((len(voices), EMBEDDING))

        def of(stretches: Sequence[tuple[float, float]]) -> Floats:
            made = []
            for start, end in stretches:
                shared = [max(0.0, min(end, x.end) - max(start, x.start)) for x in self.lines]
                who = voices.index(self.lines[int(np.argmax(shared))].voice)
                made.append(own[who] + noise * rng.standard_normal(EMBEDDING))
            return np.asarray([v / np.linalg.norm(v) for v in made], np.float32)

        return of

    def right(self, diarized: Diarized) -> float:
        return share_right(list(zip(diarized.voices, self.truth, strict=True)))


def share_right(pairs: Sequence[tuple[str, str]]) -> float:
    """The share of words in the right voice, from (voice, person), each voice taken for who speaks most of its words."""
    people = {voice for _, voice in pairs}
    own = {voice: max(people, key=lambda who: pairs.count((voice, who))) for voice, _ in pairs}
    return sum(own[voice] == who for voice, who in pairs) / len(pairs)


def heard(said: Said, instead: Callable[[int, Span], str]) -> list[Span]:
    """What a diarizer made of it: for each line the voice that it took it for."""
    return [Span(line.start, line.end, instead(number, line)) for number, line in enumerate(said.lines)]


def test_a_short_turn_that_was_heard_as_its_neighbours_goes_to_whom_it_sounds_like() -> None:
    said = Said([*TALK, ("A", "Shall we buy it now?", 1.5), ("B", "Agreed.", 0.5), ("A", "Then I will order it.", 1.5)])
    spans = heard(said, lambda number, line: "X" if number >= len(TALK) else line.voice)
    diarized = diarize_phrases(said.words, spans, said.prints())
    assert diarized.voices == tuple("Voice A" if who == "A" else "Voice B" for who in said.truth)
    assert [(round(s.start, 1), s.voice) for s in diarized.spans][-2:] == [
        (said_at(said, -2), "Voice B"),
        (said_at(said, -1), "Voice A"),
    ]


def said_at(said: Said, line: int) -> float:
    return round(said.lines[line].start, 1)


def test_a_person_whom_the_diarizer_did_not_hear_at_all_is_found() -> None:
    said = Said([*TALK, *[("C", LONG, 3.0), ("A", LONG, 3.0)] * 3])
    diarized = diarize_phrases(
        said.words, heard(said, lambda _, line: "B" if line.voice == "C" else line.voice), said.prints()
    )
    assert set(diarized.voices) == {"Voice A", "Voice B", "Voice C"}
    assert said.right(diarized) == 1


def test_one_person_heard_as_two_becomes_one() -> None:
    said = Said(TALK)
    diarized = diarize_phrases(
        said.words, heard(said, lambda number, line: f"{line.voice}{number // 12}"), said.prints()
    )
    assert set(diarized.voices) == {"Voice A", "Voice B"} == {span.voice for span in diarized.spans}


def test_the_number_of_people_is_kept_to() -> None:
    said = Said([*TALK, *[("C", LONG, 3.0)] * 4])
    diarized = diarize_phrases(said.words, heard(said, lambda _, line: line.voice), said.prints(), people=2)
    assert len(set(diarized.voices)) == 2


def test_with_little_talk_the_diarizer_is_believed_and_nothing_is_listened_to() -> None:
    said = Said(TALK[:4])
    spans = heard(said, lambda number, line: "X" if number == 2 else line.voice)

    def never(_: Sequence[tuple[float, float]]) -> Floats:
        raise AssertionError

    diarized = diarize_phrases(said.words, spans, never)
    assert set(diarized.voices) == {"A", "B", "X"}
    assert diarized.spans == tuple(spans)
    assert diarize_phrases([], [], never) == Diarized((), ())


def test_a_pause_within_a_sentence_does_not_change_the_voice_for_a_doubtful_sound() -> None:
    """`I would` sounds a little more like B than like A, which is what a breath of noise does."""
    said = Said([*TALK, ("A", "I would", 0.5), ("A", "rather have the long rope.", 1.5)], gap=0.2)
    prints = said.prints(0.0)
    a, b = prints([(0.0, 3.0), (3.2, 6.2)])

    def of(stretches: Sequence[tuple[float, float]]) -> Floats:
        made = prints(stretches)
        made[-2] = (0.45 * a + 0.55 * b) / np.linalg.norm(0.45 * a + 0.55 * b)
        return made

    diarized = diarize_phrases(said.words, heard(said, lambda _, line: line.voice), of)
    assert diarized.voices[-7:] == ("Voice A",) * 7


def test_a_second_voice_over_the_first_stays_in_the_spans() -> None:
    said = Said(TALK)
    over = Span(said.lines[4].start + 1, said.lines[4].start + 1.6, "B")
    diarized = diarize_phrases(said.words, [*heard(said, lambda _, line: line.voice), over], said.prints())
    at = over.start + 0.3
    assert {span.voice for span in diarized.spans if span.start <= at <= span.end} == {"Voice A", "Voice B"}


def test_names_given_to_voices_are_carried_to_words_and_spans() -> None:
    diarized = Diarized(("Voice A", "Voice B"), (Span(0, 1, "Voice A"),)).named({"Voice A": "Voice C"})
    assert diarized == Diarized(("Voice C", "Voice B"), (Span(0, 1, "Voice C"),))


class TestVoicePrints:
    """With the real networks, on a demo recording whose turns are known."""

    @pytest.fixture(scope="class")
    def networks(self) -> Networks:
        return Networks(2)

    @pytest.fixture
    def sound(self, tmp_path: Path) -> WorkingCopy:
        (tmp_path / "w.pcm").write_bytes(to_bytes(load(DEMO / "winter-timetable.ogg")[: 110 * RATE]))
        return WorkingCopy(tmp_path / "w.pcm")

    def test_five_people_are_told_apart_where_the_diarizer_heard_only_one(
        self, networks: Networks, sound: WorkingCopy
    ) -> None:
        turns = json.loads((DEMO / "winter-timetable.truth.json").read_text())["turns"]
        said = [(t["speaker"], spread(t["text"], t["start"], t["end"])) for t in turns if t["end"] < 108]
        words = [word for _, each in said for word in each]
        truth = [who for who, each in said for _ in each]
        diarized = diarize_phrases(
            words, [Span(0, 110, "Voice A")], lambda phrases: VoicePrints(networks).of(sound, phrases)
        )
        assert len(set(diarized.voices)) == len(set(truth))
        assert share_right(list(zip(diarized.voices, truth, strict=True))) > 0.97

    def test_a_stretch_sounds_the_same_wherever_blocks_end_and_nothing_sounds_like_nothing(
        self, networks: Networks, sound: WorkingCopy, tmp_path: Path
    ) -> None:
        prints, shares = VoicePrints(networks), list[float]()
        (sound_later := tmp_path / "later.pcm").write_bytes(to_bytes(sound.read(5.0, sound.duration)))
        (alike,) = prints.of(WorkingCopy(sound_later), [(13.5, 16.5)])  # the second one, far from any block's end
        within, across, short, beyond = prints.of(
            sound, [(11.0, 14.0), (18.5, 21.5), (30.0, 30.05), (500.0, 503.0)], shares.append
        )
        assert np.linalg.norm(within) == pytest.approx(1, abs=1e-3)
        assert float(across @ alike) > 0.97 > 0.6 > float(across @ within)
        assert not short.any()
        assert not beyond.any()
        assert shares == [0.25, 0.5, 0.75, 1.0]
