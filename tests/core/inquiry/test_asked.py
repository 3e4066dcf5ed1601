"""What a question wants."""

import pytest

from nuntius.core.inquiry.asked import asked
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.scene import scene
from tests.core.language.en.samples import TUESDAY
from tests.help import talk


@pytest.mark.parametrize(
    ("question", "kind", "fits", "fails"),
    [
        (
            "How old is the kiln?",
            "age",
            "It's from nineteen seventy-four.",
            "It goes to thirteen hundred degrees and no more.",
        ),
        (
            "What does the second driver cost?",
            "cost",
            "Two hundred and ten pounds for the day.",
            "He drives nine hours.",
        ),
        ("How long does chicken wait?", "length", "Chicken waits half an hour.", "It takes four pounds off."),
    ],
)
def test_what_a_question_wants(question: str, kind: str, fits: str, fails: str) -> None:
    transcript = talk(("Ann Lowe", fits), ("Ben Hart", fails))
    put = asked(scene(transcript, MeetingFacts(TUESDAY)), question)
    assert put.wants == kind
    where = scene(transcript, MeetingFacts(TUESDAY))
    assert put.fits(where, fits)
    assert not put.fits(where, fails)
