"""Chat lines beside a recording: times of the wall's clock or from the start."""

from datetime import time

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.chat import LONGEST, read_chat

HALF_PAST_NINE = time(9, 30)
HOUR = 3600.0


@pytest.mark.parametrize(
    ("line", "at"),
    [
        ("09:41 Tobias Pryce: the times are on the board", 660),
        ("9:41:07 Tobias Pryce: the times", 667),
        ("[09:41] Tobias Pryce: the times", 660),
        ("09:41:07\tTobias Pryce:\tthe times", 667),
        ("09:41:07 From Tobias Pryce : the times", 667),
        ("2026-10-06 09:41:07 Tobias Pryce: the times", 667),
        ("9:41 am Tobias Pryce: the times", 660),
        ("0:12 Tobias Pryce: the times", 12),
        ("1:02:03 Tobias Pryce: the times", 3600),  # behind the end of an hour: at its end
    ],
)
def test_lines_as_people_save_them(line: str, at: float) -> None:
    (found,) = read_chat(line, HALF_PAST_NINE, HOUR)
    assert (found.at, found.name) == (at, "Tobias Pryce")
    assert found.text.startswith("the times")


def test_an_afternoon_in_twelve_hours() -> None:
    assert [m.at for m in read_chat("2:05 PM Ines: hello\n2:10 pm Ines: again", time(14), HOUR)] == [300, 600]


def test_a_line_without_a_time_goes_on_with_the_one_before() -> None:
    (found,) = read_chat("0:12 Ines: the list\n- boats\n\n- rails", HALF_PAST_NINE, HOUR)
    assert found.text == "the list - boats - rails"


def test_one_time_out_of_the_meeting_makes_all_of_them_times_from_the_start() -> None:
    assert [m.at for m in read_chat("09:41 A: x\n59:00 B: y", HALF_PAST_NINE, HOUR)] == [581, 3540]


@pytest.mark.parametrize(
    "text", ["", "no line of it has a time", "0:12 no name and no colon", "77:88 Ines: what time is that"]
)
def test_what_is_no_chat_is_reported(text: str) -> None:
    with pytest.raises(TranscriptUnreadable):
        read_chat(text, HALF_PAST_NINE, HOUR)


@given(st.text(max_size=400), st.floats(1, 20_000))
def test_whatever_stands_in_it_stays_within_the_recording(text: str, duration: float) -> None:
    try:
        made = read_chat(f"0:00 Ines: {text}", HALF_PAST_NINE, duration)
    except TranscriptUnreadable:
        return
    assert all(0 <= m.at <= duration and len(m.text) <= LONGEST for m in made)
