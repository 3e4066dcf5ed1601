"""Talk that came without punctuation."""

from datetime import date

import pytest

from nuntius.core.formats.reading import read_transcript
from nuntius.core.language.en.written_out import written_out
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.naming import renamed, sure_names

NAMES = frozenset({"joanna", "deepak", "clegg", "will"})


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("and what did you tell them", "And what did you tell them?"),
        ("how long did the repair take", "How long did the repair take?"),
        ("is there no alarm", "Is there no alarm?"),
        ("who reads the address from now on", "Who reads the address from now on?"),
        ("it was quiet for you", "It was quiet for you."),
        ("what i need is a second trolley", "What I need is a second trolley."),
        ("we did i did", "We did I did."),
        ("i'll do it by friday", "I'll do it by friday."),
        ("that's three point five on the third", "That's three point five on the third."),
        ("it costs 3.50 i think", "It costs 3.50 I think."),
        ("thanks joanna clegg", "Thanks Joanna Clegg."),
        ("that will do", "That will do."),
        ("it's about saturday joanna you had the phones", "It's about saturday. Joanna, you had the phones."),
        ("a day off the week after would that work", "A day off the week after. Would that work?"),
        ("i told joanna what happened", "I told Joanna what happened."),
        ("okay deepak what happened", "Okay Deepak, what happened?"),
        ("i'd do it by number", "I'd do it by number."),
        ("mm", "Mm."),
    ],
)
def test_marks_and_capitals_are_put_in(said: str, written: str) -> None:
    assert written_out(said, NAMES) == written


@pytest.mark.parametrize("said", ["", "   ", "Yes, I did.", "joanna, you had the phones", "really?"])
def test_what_has_marks_stays_as_it_is(said: str) -> None:
    assert written_out(said, NAMES) == said


@pytest.mark.parametrize(
    "said", ["and what did you tell them", "so you take turns would that work", "okay deepak what happened"]
)
def test_no_word_is_added_or_lost(said: str) -> None:
    assert len(written_out(said, NAMES).split()) == len(said.split())


def test_bare_talk_has_names_questions_and_owners() -> None:
    talk = (
        ("Speaker 1", "okay joanna you had the phones on saturday what did people say"),
        ("Speaker 2", "they'd paid and had no ticket we had sixty-three calls till noon"),
        ("Speaker 1", "deepak how long did the repair take"),
        ("Speaker 3", "twelve minutes once i had a laptop"),
        ("Speaker 1", "good can you make a list of the addresses that nobody reads"),
        ("Speaker 3", "i'll have the list of addresses by friday"),
    )
    rows = [f"{n}\n00:00:{n:02}.000 --> 00:00:{n + 1:02}.000\n<v {who}>{said}" for n, (who, said) in enumerate(talk, 1)]
    transcript = read_transcript("\n\n".join(["WEBVTT", *rows]).encode())
    people = ("Marit Solberg", "Joanna Clegg", "Deepak Nair")
    names = sure_names(transcript, people)
    assert names == {"Speaker 1": "Marit Solberg", "Speaker 2": "Joanna Clegg", "Speaker 3": "Deepak Nair"}
    lines = make_minutes(renamed(transcript, names), MeetingFacts(date(2026, 3, 9), people)).lines
    assert "How long did the repair take?" in [
        line.text.removeprefix("Deepak, ").capitalize() for line in lines if line.kind == "question"
    ]
    action = next(line for line in lines if line.kind == "action")
    assert action.owner == ("Deepak Nair",)
    assert str(action.due) == "2026-03-13"
