"""Tasks that are told by what is to happen to a thing."""

from datetime import date

import pytest

from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.recast import recast
from nuntius.core.minutes.scene import scene
from tests.help import talk


def recast_of(text: str, said: str) -> str:
    made = scene(talk(("Maren Tull", said)), MeetingFacts(date(2026, 10, 6), ("Maren Tull",)))
    return recast(text, made.sentences[0])


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("The form has to be in.", "Have the form in."),
        ("The ropes need to be washed before the season.", "Wash the ropes before the season."),
        ("It's got to be ordered this week.", "Order it this week."),
        ("They must be painted.", "Paint them."),
        ("The accounts'll be with the auditor by then.", "Have the accounts with the auditor by then."),
        ("The order goes in this afternoon.", "Put the order in this afternoon."),
        ("The text goes out on the twelfth.", "Send the text out on the twelfth."),
        ("The sketch goes to the printer on Monday.", "Send the sketch to the printer on Monday."),
        ("We take the readings every morning.", "Take the readings every morning."),
    ],
)
def test_what_is_to_happen_to_a_thing_is_a_task_in_the_infinitive(said: str, written: str) -> None:
    assert recast_of(said, said) == written


@pytest.mark.parametrize(
    "text",
    [
        "Wash the ropes.",
        "Have the form in.",
        "The form is in.",
        "We took the readings.",
        "We need two more.",
        "If it rains we stay in.",
    ],
)
def test_other_words_stay_as_they_are(text: str) -> None:
    assert recast_of(text, text) == text
