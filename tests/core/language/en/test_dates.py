"""Days as people say them."""

import pytest

from nuntius.core.language.en.dates import said_dates
from tests.core.language.en.samples import TUESDAY


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
