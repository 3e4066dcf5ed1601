"""Items of the agenda and the time they have left."""

from nuntius.core.live.agenda import AgendaItem, suggested, time_left
from tests.core.live.samples import said


class TestAgenda:
    ITEMS = (AgendaItem("Winter timetable", 600, 0.0), AgendaItem("Slipway repair", 900), AgendaItem("School contract"))

    def test_time_left_runs_below_zero(self) -> None:
        assert time_left(self.ITEMS[0], 700.0) == -100.0
        assert time_left(self.ITEMS[1], 700.0) is None
        assert time_left(AgendaItem("X", 60, 10.0, 40.0), 700.0) == 30.0

    def test_the_item_that_is_talked_of_is_suggested(self) -> None:
        lines = said((600, 604, "A", "Next, the slipway. The repair has to wait."))
        assert suggested(self.ITEMS, 0, lines, 605.0) == 1
        assert suggested(self.ITEMS, 1, lines, 605.0) is None
        assert suggested(self.ITEMS, 0, lines, 900.0) is None

    def test_reading_the_agenda_out_suggests_nothing(self) -> None:
        lines = said(
            (1, 5, "A", "Three things: the timetable, the slipway repair and the school contract."),
            (6, 8, "B", "Fine."),
        )
        assert suggested(self.ITEMS, 0, lines, 9.0) is None

    def test_nothing_is_suggested_between_two_that_fit_alike(self) -> None:
        lines = said((1, 2, "A", "The school contract and the slipway repair."))
        assert suggested(self.ITEMS, 0, lines, 3.0) is None
