"""Which of the sentences around the heart of a decision states it, and what it or a task leaves unsaid."""

from datetime import date

import numpy as np
import pytest

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.classifiers import likelihoods
from nuntius.core.minutes.context import AROUND_HEART, LONGEST_QUESTION, around, stating
from nuntius.core.minutes.line import Line, LineDoubt, MeetingFacts
from nuntius.core.minutes.scene import Scene, scene
from nuntius.core.minutes.stating import (
    AROUND,
    STATING_FEATURES,
    better_stated,
    may_state,
    stating_classifier,
    stating_features,
)
from tests.help import talk

PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell", "Douglas Hale")
MAREN, TOBIAS, INES, DOUGLAS = PEOPLE
FACTS = MeetingFacts(date(2026, 10, 6), PEOPLE)
ENTRY = (
    (MAREN, "Last thing, do we take money at the gate on the open day?"),
    (TOBIAS, "I had a thought about that in the night."),
    (TOBIAS, "Children go in free, and grown-ups pay three pounds."),
    (INES, "I like that."),
    (DOUGLAS, "So do I, agreed."),
    (MAREN, "Agreed, then. Now, the ropes."),
)
DEALER = ((MAREN, "There's a dealer in Peel who buys old ropes by the yard."), (INES, "Does he come here?"))


def scene_of(*rows: tuple[str, str]) -> Scene:
    return scene(talk(*rows), FACTS)


def lines(*rows: tuple[str, str], kind: str = "decision") -> list[Line]:
    return [line for line in make_minutes(talk(*rows), FACTS).lines if line.kind == kind]


def test_a_decision_is_worded_by_what_was_proposed_and_not_by_what_was_said_of_it() -> None:
    (line,) = lines(*ENTRY)
    assert line.text == "Children go in free, and grown-ups pay three pounds."
    assert 2 in line.turns


@pytest.mark.parametrize(
    "said",
    [
        "Nobody goes up the mast alone.",
        "We hire the oak gangway until Easter, then.",
        "The kiosk stays shut on Sundays.",
    ],
)
def test_what_says_it_fully_stays(said: str) -> None:
    (line,) = lines((MAREN, "Right."), (TOBIAS, said), (INES, "Agreed."), (DOUGLAS, "Yes."))
    assert line.text == said.replace(", then", "")


def test_features_are_one_row_for_each_sentence_and_finite() -> None:
    made = scene_of(*ENTRY)
    likely = likelihoods(made)["decision"]
    heart = made.by_turn[3][0]
    near = may_state(made, heart, {3})
    assert heart in near
    assert all(abs(s.turn - heart.turn) <= AROUND for s in near)
    assert not any(s.text.startswith("Last thing") for s in near)  # a mere question states nothing
    found = stating_features(made, heart, near, {3}, likely)
    assert found.shape == (len(near), len(STATING_FEATURES))
    assert np.isfinite(found).all()
    assert max(int(tree.sign.max()) for tree in stating_classifier().trees) < len(STATING_FEATURES)


def test_what_few_words_leave_unsaid_stands_beside_them_and_is_evidence() -> None:
    (line,) = lines(
        (MAREN, "Next, the rail. Should I order the oak or the pine?"),
        (TOBIAS, "How long has it got to last?"),
        (MAREN, "Ten years at least."),
        (TOBIAS, "Oak, then."),
        (INES, "Oak, yes."),
        (MAREN, "Okay, oak."),
    )
    assert "oak" in line.text.lower() and "or the pine" in line.text
    assert 0 in line.turns


def test_nothing_stands_beside_a_decision_that_says_the_same() -> None:
    (line,) = lines(
        (MAREN, "We could put a pencil in every till."),
        (TOBIAS, "Yes, good."),
        (MAREN, "A pencil in every till, then."),
        (INES, "Agreed."),
    )
    assert "[" not in line.text


def test_what_a_task_leaves_unsaid_stands_beside_it_and_is_evidence() -> None:
    (line,) = lines(
        *DEALER,
        (MAREN, "He would. Tobias, get him here before the fire inspection."),
        (TOBIAS, "Will do."),
        kind="action",
    )
    assert line.text == f"Get him here before the fire inspection [{DEALER[0][1].rstrip('.')}]."
    assert 0 in line.turns and line.owner == (TOBIAS,)
    assert LineDoubt.MEANS_OTHER not in line.doubts  # the sentence in brackets is the one that is sure


def test_nothing_stands_beside_a_task_that_names_its_subject() -> None:
    (line,) = lines(
        *DEALER,
        (MAREN, "He would."),
        (TOBIAS, "I'll ring the rope dealer in Peel and ask him what he pays for a yard."),
        kind="action",
    )
    assert "[" not in line.text


def test_what_is_read_around_a_heart_is_read_once_and_no_more_than_fits() -> None:
    made = scene_of(
        *ENTRY, *((TOBIAS, f"{'The ropes are old and the ropes are wet. ' * 6}Number {n}.") for n in range(20))
    )
    heart = made.by_turn[3][0]
    read = around(made, heart, range(0, len(made.by_turn)))
    numbers = [number for number, _, _ in read.sentences]
    assert numbers == sorted(set(numbers)) and made.index[heart.turn, heart.first] in numbers
    assert len(read.tokens) <= AROUND_HEART + LONGEST_QUESTION + 3
    assert set(stating(made, heart, range(2, 5))) == {
        made.index[s.turn, s.first] for t in (2, 3, 4) for s in made.by_turn[t]
    }


def test_a_talk_of_one_sentence_has_no_better_one() -> None:
    made = scene_of((MAREN, "We keep the old pier."))
    (only,) = made.sentences
    assert better_stated(made, only, only, {0}, likelihoods(made)["decision"]) is None
