"""The topic of a line stands beside it where the line does not name it."""

import pytest

from nuntius.core.minutes.topic_label import topic_label


@pytest.mark.parametrize(
    ("kind", "text", "title", "topic"),
    [
        ("action", "Ask two yards.", "Slipway", "Slipway"),
        ("decision", "Drop the six-forty from the first of November.", "Winter timetable", "Winter timetable"),
        ("decision", "We repair the slipway in January.", "Slipway", ""),
        ("action", "Print the timetables.", "Winter timetable", ""),
        ("decision", "Next meeting: Tuesday 13 October, same time.", "School contract", ""),
        ("key_point", "The lower rail has moved 14 mm.", "Slipway", ""),
    ],
)
def test_a_title_stands_beside_lines_to_act_on_that_do_not_name_it(
    kind: str, text: str, title: str, topic: str
) -> None:
    assert topic_label(kind, text, title, chapters=3) == topic


def test_the_only_chapter_is_not_named() -> None:
    assert topic_label("action", "Ask two yards.", "Slipway", chapters=1) == ""
