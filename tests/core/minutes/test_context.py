"""The network that reads a sentence among the sentences around it."""

from itertools import pairwise
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from nuntius.core.errors import ModelMissing
from nuntius.core.minutes import context
from nuntius.core.minutes.context import (
    AFTER,
    BEFORE,
    CORE,
    KINDS,
    LEAST_ANSWERING,
    LED_UP,
    LONGEST_QUESTION,
    LONGEST_TURN,
    OF_SENTENCES,
    OPENS,
    Stretch,
    answering,
    in_context,
    led_up,
    pieces,
    referred,
    stretched,
)
from nuntius.core.minutes.scene import Scene
from tests.core.minutes.test_classifiers import scene_of

SIZES = (CORE, BEFORE, AFTER)


def test_the_same_words_are_classified_by_what_is_said_around_them() -> None:
    settled = scene_of(
        ("Maren Voss", "Do we take the blue one or the grey one?"),
        ("Tobias Pryce", "I'd take the blue one."),
        ("Maren Voss", "Me too. The blue one."),
        ("Tobias Pryce", "Agreed."),
    )
    told = scene_of(
        ("Maren Voss", "Which of the two boats did you see yesterday?"),
        ("Tobias Pryce", "I saw the blue one."),
        ("Maren Voss", "Right. The blue one."),
        ("Tobias Pryce", "It was leaking."),
    )

    def of(made: Scene) -> float:
        number = next(i for i, s in enumerate(made.sentences) if s.text == "The blue one.")
        return float(in_context(made)[number, OF_SENTENCES.index("decision")])

    assert of(settled) > of(told) + 1


def test_a_talk_is_read_the_same_however_it_is_read() -> None:
    rows = [("Maren Voss" if n % 2 else "Tobias Pryce", f"I'll look at slip number {n} on Friday.") for n in range(60)]
    whole = in_context(scene_of(*rows))
    begun = in_context(scene_of(*rows[:20]))
    assert whole.shape == (60, len(KINDS))
    assert np.allclose(whole[:10], begun[:10], atol=0.05)  # what came later bears on the last ones alone


def test_what_moves_on_to_another_subject_is_distinguished_from_what_goes_on_with_it() -> None:
    made = scene_of(
        ("Maren Voss", "So the ramp is done before the regatta, thank you all."),
        ("Tobias Pryce", "About time."),
        ("Maren Voss", "Next, the mooring fees. Ines, what did you find?"),
        ("Ines Okafor", "That we are ten pounds below everybody else on the river."),
        ("Maren Voss", "Ten pounds a month or a year?"),
        ("Ines Okafor", "A month."),
    )
    opens = in_context(made)[:, OPENS]
    assert made.sentences[int(np.argmax(opens))].turn == 2


def test_a_turn_without_end_is_read_in_parts() -> None:
    made = scene_of(("Maren Voss", " ".join(f"The crane lifts boat number {n} at noon." for n in range(80))))
    parts = pieces(made, named=False)
    assert len(parts) > 1
    assert all(len(part.tokens) <= LONGEST_TURN for part in parts)
    assert [number for part in parts for number, _, _ in part.sentences] == list(range(len(made.sentences)))


@settings(max_examples=60, deadline=None)
@given(st.lists(st.integers(3, 190), min_size=1, max_size=40), st.integers(0, 30))
def test_stretches_classify_every_sentence_once_and_none_is_too_long(lengths: list[int], asked: int) -> None:
    parts = [Stretch((7,) * n, ((number, 2, n),)) for number, n in enumerate(lengths)]
    made = list(stretched(parts, (9,) * asked, SIZES))
    classified = [number for stretch in made for number, _, _ in stretch.sentences]
    assert classified == list(range(len(lengths)))
    for stretch in made:
        assert len(stretch.tokens) <= max(CORE, max(lengths)) + BEFORE + AFTER + asked + 2
        assert all(0 < first < last < len(stretch.tokens) for _, first, last in stretch.sentences)
        assert all(a[2] <= b[1] for a, b in pairwise(stretch.sentences))


def test_what_answers_a_question_is_distinguished_from_what_only_shares_its_words() -> None:
    made = scene_of(
        ("Maren Voss", "The new pump came on Monday, at last."),
        ("Tobias Pryce", "What did the pump cost in the end?"),
        ("Maren Voss", "Four hundred and twenty, with the fitting."),
        ("Tobias Pryce", "And the old pump goes to the museum, they asked for it."),
    )
    found = answering(made, "How much was paid for the new pump?", range(4))
    assert int(np.argmax(found)) == 2


def test_only_what_is_looked_at_may_answer() -> None:
    rows = [
        ("Maren Voss" if n % 2 else "Tobias Pryce", f"Slip number {n} was cleared and swept on Friday.")
        for n in range(90)
    ]
    found = answering(scene_of(*rows), "When was slip number three swept?", [3])
    assert found.shape == (90,)
    assert found[3] > LEAST_ANSWERING
    assert (found[60:] == LEAST_ANSWERING).all()


def test_a_network_that_is_not_whole_is_reported(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "context.onnx").write_bytes(b"a part of it")
    monkeypatch.setattr(context, "files", lambda _: tmp_path)
    context._engine.cache_clear()
    with pytest.raises(ModelMissing, match=r"context\.onnx"):
        context._engine("context.onnx")
    context._engine.cache_clear()


def test_what_led_up_to_a_sentence_ends_right_before_it() -> None:
    rows = [("Maren Voss" if n % 2 else "Tobias Pryce", f"Slip number {n} is dry. We looked at it.") for n in range(60)]
    talk = scene_of(*rows)
    sentence = talk.sentences[-1]
    stretch = led_up(talk, sentence)
    numbers = [number for number, _, _ in stretch.sentences]
    assert numbers == list(range(numbers[0], len(talk.sentences) - 1))
    assert len(stretch.tokens) <= LED_UP + LONGEST_QUESTION + 3
    assert all(first < last <= len(stretch.tokens) for _, first, last in stretch.sentences)
    assert referred(talk, talk.sentences[0]) == {}


def test_what_a_sentence_refers_to_is_found_behind_what_stands_nearer() -> None:
    talk = scene_of(
        ("Maren Voss", "The bread knife in the galley is blunt."),
        ("Tobias Pryce", "I nearly lost a thumb on Tuesday."),
        ("Maren Voss", "I'll have it sharpened."),
    )
    logits = referred(talk, talk.sentences[-1])
    assert logits[0] > logits[1]
