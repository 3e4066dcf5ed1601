"""Who holds the floor."""

import pytest

from nuntius.core.live.floor import live_floor
from tests.core.live.samples import LINES


class TestFloor:
    def test_it_says_who_holds_the_floor_since_when(self) -> None:
        floor = live_floor(LINES[:2], 6.0)
        assert (floor.holder, floor.held) == ("Voice A", 6.0)
        assert floor.seconds == {"Voice A": pytest.approx(4.8)}

    def test_nobody_holds_it_after_a_silence(self) -> None:
        assert live_floor(LINES, 30.0).holder is None
        assert live_floor(LINES, 30.0, speaking=True).holder == "Voice B"

    def test_the_longest_stretch_is_unbroken_speech_not_all_of_it(self) -> None:
        floor = live_floor(LINES, 15.0)
        assert floor.longest == {"Voice A": 5.0, "Voice B": 2.0}
        assert floor.last_heard["Voice B"] == 14.0

    def test_an_empty_floor(self) -> None:
        assert live_floor([], 5.0).holder is None
