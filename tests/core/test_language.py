"""English: numbers, dates, names."""

from datetime import date

import pytest

from nuntius.core.inquiry.asked import asked
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.names import Roster, is_label
from nuntius.core.language.en.numbers import in_digits, ordinal
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.scene import scene
from tests.help import talk

TUESDAY = date(2026, 9, 15)


@pytest.mark.parametrize(
    ("said", "day"),
    [
        ("by Friday", "2026-09-18"),
        ("by, er, Friday week", "2026-09-25"),
        ("next Tuesday at the outside", "2026-09-22"),
        ("by Tuesday", "2026-09-22"),
        ("tomorrow morning", "2026-09-16"),
        ("this afternoon", "2026-09-15"),
        ("the day after tomorrow", "2026-09-17"),
        ("by the end of the week", "2026-09-18"),
        ("by the middle of next week", "2026-09-23"),
        ("by the end of the month", "2026-09-30"),
        ("the twenty-eighth", "2026-09-28"),
        ("on the 3rd", "2026-10-03"),
        ("Second of October", "2026-10-02"),
        ("October 2nd", "2026-10-02"),
        ("Wednesday the twenty-third", "2026-09-23"),
        ("in two weeks", "2026-09-29"),
        ("Give me a fortnight", "2026-09-29"),
        ("this time next week", "2026-09-22"),
        ("same time next week", "2026-09-22"),
        ("within the hour", "2026-09-15"),
        ("by the end of January", "2027-01-31"),
        ("in the second week of October", "2026-10-09"),
        ("the week after next", "2026-10-02"),
        ("Thursday next week", "2026-09-24"),
        ("next week, on Thursday", "2026-09-24"),
        ("at the beginning of October", "2026-10-02"),
        ("within the month", "2026-09-30"),
        ("on your way home", "2026-09-15"),
        ("I'll ring them first thing.", "2026-09-16"),
    ],
)
def test_days_are_resolved_against_the_meeting(said: str, day: str) -> None:
    assert [str(found.day) for found in said_dates(said, TUESDAY)] == [day]


@pytest.mark.parametrize(
    "said",
    [
        "last Thursday",
        "two weeks ago",
        "for a second",
        "first of all",
        "since Monday",
        "1886",
        "half past ten",
        "the first thing.",
    ],
)
def test_past_and_other_words_are_no_due_dates(said: str) -> None:
    assert not said_dates(said, TUESDAY)


def test_the_words_as_said_are_kept() -> None:
    (found,) = said_dates("You will have it on Friday afternoon, I think.", TUESDAY)
    assert found.said == "Friday afternoon"


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("a hundred and forty are in", "140 are in"),
        ("seventy-two to go", "72 to go"),
        ("six thousand eight hundred extra", "6800 extra"),
        ("forty two thousand pounds", "42,000 pounds"),
        ("two of my lads", "two of my lads"),
        ("ten forty", "ten forty"),
        ("four and a half thousand", "four and a half thousand"),
    ],
)
def test_number_words_become_digits(said: str, written: str) -> None:
    assert in_digits(said) == written


def test_ordinals() -> None:
    assert [ordinal(text) for text in ("twenty-eighth", "2nd", "thirtieth", "two", "")] == [28, 2, 30, None, None]


def test_who_is_spoken_to() -> None:
    roster = Roster.of(("Maren Tull", "Tobias Pryce", "Ines Carvell"), ("Voice A",))
    assert roster.addressee("Tobias, could you send them over?") == "Tobias Pryce"
    assert roster.addressee("Okay, Ines. Boats.") == "Ines Carvell"
    assert roster.addressee("Could you do that, Maren?") == "Maren Tull"
    assert roster.addressee("I saw Tobias on the pier.") is None
    assert is_label("Voice A")
    assert is_label("Speaker 12")
    assert not is_label("Maren Tull")


@pytest.mark.parametrize(
    ("said", "called"),
    [
        ("Okay, quame, your steam.", "Kwame Adjei"),
        ("Yes, I see that. Okay, quame your steam.", None),  # the second sentence is asked by itself
        ("Quame your steam.", "Kwame Adjei"),
        ("Jeyulia, would you join us?", "Giulia Ferri"),
        ("Could you come along, jeyulia?", "Giulia Ferri"),
        ("The quame is late.", None),
        ("Come, as you have the cup.", None),
    ],
)
def test_who_is_called_by_a_name_that_the_recogniser_did_not_know(said: str, called: str | None) -> None:
    assert Roster.of(("Kwame Adjei", "Giulia Ferri", "Colm Hanratty"), ()).addressee(said) == called


def test_a_first_name_of_two_people_stands_for_neither() -> None:
    assert Roster.of(("Ann Berg", "Ann Lund"), ()).find("Ask Ann about it") == []


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("Costs are up by seven point four per cent.", "Costs are up by 7.4 per cent."),
        ("It weighs twelve point five kilos.", "It weighs 12.5 kilos."),
        ("We charge two pounds fifty a head.", "We charge 2.50 pounds a head."),
        ("That's one point against it.", "That's one point against it."),
        ("Ten pounds twenty times over.", "10 pounds 20 times over."),
    ],
)
def test_numbers_with_a_point(said: str, written: str) -> None:
    assert in_digits(said) == written


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
