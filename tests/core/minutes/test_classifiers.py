"""The trained classifiers, and the annotated talk that they are made from."""

import sys
from datetime import date
from pathlib import Path

import numpy as np
import pytest

from nuntius.core.minutes.chapters import BOUNDARY_FEATURES, boundary_features
from nuntius.core.minutes.classifiers import (
    KINDS,
    classifiers,
    inputs,
    likelihoods,
    segmentation_classifier,
    segmentation_likelihoods,
)
from nuntius.core.minutes.features import ALL, features, is_imperative
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.scene import Scene, scene
from tests.help import ROOT, talk

TRAINING = ROOT / "training"
sys.path.append(str(TRAINING))

import annotated  # noqa: E402

ROWS = (
    ("Maren Voss", "Right, the slipway. Who rings the yard?"),
    ("Tobias Pryce", "I'll ring them tomorrow and send you the price by Friday."),
    ("Maren Voss", "Good. Lovely weather, isn't it?"),
    ("Tobias Pryce", "It is."),
    ("Maren Voss", "So we take the cheaper of the two, then."),
    ("Tobias Pryce", "Agreed, the cheaper one."),
)


def scene_of(*rows: tuple[str, str]) -> Scene:
    transcript = talk(*rows)
    return scene(transcript, MeetingFacts(date(2026, 5, 6), transcript.speakers))


def test_every_sentence_gets_a_likelihood_of_each_kind() -> None:
    made = scene_of(*ROWS)
    found = likelihoods(made)
    assert set(found) == set(KINDS)
    for kind in KINDS:
        assert found[kind].shape == (len(made.sentences),)
        assert 0 <= float(found[kind].min()) <= float(found[kind].max()) <= 1
    boundaries = segmentation_likelihoods(made)
    assert boundaries.shape == (len(ROWS),)
    assert 0 <= float(boundaries.min()) <= float(boundaries.max()) <= 1


def test_a_promise_is_more_likely_an_action_than_talk_of_the_weather() -> None:
    made = scene_of(*ROWS)
    likely = {s.text: float(p) for s, p in zip(made.sentences, likelihoods(made)["action"], strict=True)}
    assert likely["I'll ring them tomorrow and send you the price by Friday."] > 0.5
    assert likely["Lovely weather, isn't it?"] < 0.1


def test_what_is_settled_between_two_is_more_likely_a_decision_than_a_question() -> None:
    made = scene_of(*ROWS)
    likely = {s.text: float(p) for s, p in zip(made.sentences, likelihoods(made)["decision"], strict=True)}
    assert likely["So we take the cheaper of the two, then."] > 2 * likely["Who rings the yard?"]


def test_the_same_talk_is_classified_the_same() -> None:
    first = scene_of(*ROWS)
    scene.cache_clear()
    second = scene_of(*ROWS)
    assert first is not second
    assert np.array_equal(inputs(first), inputs(second))


def test_features_lie_between_nought_and_one() -> None:
    made = scene_of(*ROWS)
    for found, names in ((features(made), ALL), (boundary_features(made), BOUNDARY_FEATURES)):
        assert found.shape[1] == len(names)
        assert -1e-6 <= float(found.min()) <= float(found.max()) <= 2  # novelty may pass 1 a little


def test_the_weights_are_those_of_the_features() -> None:
    assert max(int(tree.sign.max()) for tree in segmentation_classifier().trees) < len(BOUNDARY_FEATURES)
    assert len(classifiers()["action"].weights) == len(ALL) + 384


@pytest.mark.parametrize(
    ("said", "imperative"),
    [
        ("Tobias, get a sketch to them today.", True),
        ("Send it on, please.", True),
        ("I get a sketch every day.", False),
        ("Could you send it on?", False),
        ("The sketch is with them.", False),
    ],
)
def test_imperatives_are_recognised(said: str, imperative: bool) -> None:
    assert is_imperative(scene_of(("Maren Voss", said)).sentences[0]) is imperative


class TestAnnotated:
    def test_all_meetings_can_be_read_and_have_what_is_scored(self) -> None:
        for meeting in annotated.meetings():
            made = annotated.gold(meeting)
            numbers = range(1, len(meeting.utterances) + 1)
            assert made["chapters"][0]["cue"] == 1
            for kind in ("actions", "decisions", "key_points"):
                assert all(each["cues"] and set(each["cues"]) <= set(numbers) for each in made[kind]), meeting.name
            owners = {name for each in made["actions"] for name in each["owner"] or ()}
            assert owners <= set(meeting.people), meeting.name

    def test_a_key_without_an_explanation_is_an_error(self, tmp_path: Path) -> None:
        path = tmp_path / "torn.txt"
        path.write_text("title: T\npeople: A B\ndate: 2026-01-02\n---\n== One\nA B: I'll do it. {a1}\n---\n")
        with pytest.raises(ValueError, match="a1"):
            annotated.read(path)

    def test_captions_number_the_utterances(self) -> None:
        meeting = annotated.meetings()[0]
        rows = annotated.captions(meeting).splitlines()
        assert rows[0] == "WEBVTT"
        assert str(len(meeting.utterances)) in rows
