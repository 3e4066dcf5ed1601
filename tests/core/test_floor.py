import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.floor import floor_of


def test_shares_and_silence_stand_apart() -> None:
    floor = floor_of([(0, 6, "A"), (4, 8, "B")], 10)
    assert floor.shares == {"A": 0.6, "B": 0.4}
    assert floor.silence == 2
    assert floor_of([], 5).shares == {}


@given(st.lists(st.tuples(st.floats(0, 90), st.floats(0.1, 10), st.sampled_from("ABC")), min_size=1, max_size=12))
def test_shares_add_up_to_one(rows: list[tuple[float, float, str]]) -> None:
    floor = floor_of([(a, a + d, v) for a, d, v in rows], 100)
    assert sum(floor.shares.values()) == pytest.approx(1)
    assert 0 <= floor.silence <= 100
