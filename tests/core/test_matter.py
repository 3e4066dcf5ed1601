"""The matter of a line stands beside it where the line does not name it."""

import pytest

from nuntius.core.minutes.matter import matter_of


@pytest.mark.parametrize(
    ("kind", "text", "title", "matter"),
    [
        ("action", "Ask two yards.", "Slipway", "Slipway"),
        ("decision", "Drop the six-forty from the first of November.", "Winter timetable", "Winter timetable"),
        ("decision", "We repair the slipway in January.", "Slipway", ""),
        ("action", "Print the timetables.", "Winter timetable", ""),
        ("decision", "Next meeting: Tuesday 13 October, same time.", "School contract", ""),
        ("key_point", "The lower rail has moved 14 mm.", "Slipway", ""),
    ],
)
def test_a_title_is_told_beside_lines_to_act_on_that_do_not_name_it(
    kind: str, text: str, title: str, matter: str
) -> None:
    assert matter_of(kind, text, title, chapters=3) == matter


def test_the_only_chapter_is_not_told() -> None:
    assert matter_of("action", "Ask two yards.", "Slipway", chapters=1) == ""
