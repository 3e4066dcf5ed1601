"""Words found again by their time."""

from nuntius.core.minutes.evidence import located
from nuntius.core.minutes.line import Passage
from tests.help import talk

TALK = talk(("A", "we need two new ropes"), ("B", "I will ask the yard on Friday"), pace=1.0, gap=1.0)


def test_the_turn_that_holds_most_of_the_words() -> None:
    assert located(TALK, 1.0, 3.0) == Passage(0, 1, 2)
    assert located(TALK, 4.2, 9.0) == Passage(1, 0, 2)  # one word of the first turn, three of the second


def test_nothing_is_spoken_then() -> None:
    assert located(TALK, 5.0, 6.0) is None
    assert located(TALK, 100.0, 101.0) is None
