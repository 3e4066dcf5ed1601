"""Key points for stretches of the talk that no other line stands for."""

import numpy as np

from nuntius.core.minutes.key_points import LEAST_IN_GAP, _in_gaps, _may
from nuntius.core.minutes.line import Coverage, Line
from tests.core.minutes.test_classifiers import scene_of

TALK = scene_of(
    ("Maren Voss", "The ramp is done, and it cost four thousand and fifty."),
    ("Tobias Pryce", "Good, that was the last of the old planks."),
    ("Ines Okafor", "The school asked for sixty places on the twelfth of June."),
    ("Maren Voss", "Did they?"),
    ("Tobias Pryce", "And the harbour office wants the old permits back by the summer."),
    ("Maren Voss", "Right."),
)
SECOND_HALF = Coverage(0.5, ((TALK.transcript.turns[2].start, TALK.transcript.turns[4].end),))


def points(worth: float, room: float, held: frozenset[tuple[int, int]] = frozenset()) -> list[Line]:
    likely = np.full(len(TALK.sentences), worth, np.float32)
    return list(_in_gaps(TALK, SECOND_HALF, held, room, likely))


def test_a_stretch_without_a_line_gets_its_weightiest_sentence() -> None:
    (line,) = points(0.8, room=40)
    assert line.kind == "key_point"
    assert line.turns <= {2, 4}


def test_what_another_line_holds_is_not_said_again() -> None:
    (first,) = points(0.8, room=40)
    (other,) = points(0.8, room=40, held=frozenset((p.turn, p.first) for p in first.evidence))
    assert other.turns.isdisjoint(first.turns)


def test_nothing_is_added_without_room_or_without_worth() -> None:
    assert points(0.8, room=5) == []
    assert points(LEAST_IN_GAP - 0.05, room=40) == []


def test_what_was_cut_off_from_its_beginning_is_no_key_point() -> None:
    scene = scene_of(
        ("Douglas Hale", "January, yes, I can live with that, who's"),
        (
            "Maren Voss",
            "going to get prices for the steel, we want at least two yards to quote. The steel is 900 pounds.",
        ),
    )
    may = [s.text for s in scene.sentences if _may(scene, s)]
    assert "The steel is 900 pounds." in may
    assert not any(text.startswith("going") for text in may)
