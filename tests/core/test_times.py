import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.times import clock, read_clock, short_clock


@given(st.integers(0, 359_999_999))
def test_a_written_time_reads_back_to_the_millisecond(thousandths: int) -> None:
    assert read_clock(clock(thousandths / 1000)) == pytest.approx(thousandths / 1000)


@pytest.mark.parametrize("wrong", ["", "5", "00:60:00.000", "00:00:61.000", "a:b", "1:2:3:4", "-1:00", "00:1.5:00"])
def test_what_is_no_time_is_refused(wrong: str) -> None:
    with pytest.raises(ValueError):
        read_clock(wrong)


def test_short_times_are_never_rounded_up() -> None:
    assert [short_clock(s) for s in (0, 59.99, 3599.9, 3600, -3)] == ["0:00", "0:59", "59:59", "1:00:00", "0:00"]
