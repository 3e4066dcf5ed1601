import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.floor import floor_of
from nuntius.core.floor_report import floor_report
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread


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


NOBODY = Transcript((), 0.0)


class TestReport:
    SPANS = [
        (0.0, 10.0, "A"),
        (8.0, 12.0, "B"),
        (15.0, 18.0, "A"),
        (19.0, 21.0, "A"),
        (20.0, 20.5, "B"),
        (21.5, 30.0, "A"),
    ]

    def test_turns_go_on_over_short_pauses_in_which_nobody_else_begins(self) -> None:
        voices = {each.voice: each for each in floor_report(self.SPANS, NOBODY, 40).voices}
        assert (voices["A"].turns, voices["A"].longest) == (2, 15)
        assert (voices["A"].seconds, voices["B"].seconds) == (23.5, 4.5)

    def test_who_began_over_whom(self) -> None:
        report = floor_report(self.SPANS, NOBODY, 40)
        voices = {each.voice: each for each in report.voices}
        assert (voices["B"].overlaps, voices["B"].overlapped) == (2, 2.5)
        assert voices["A"].overlaps == 0 and report.overlap == 2.5

    def test_silences_are_those_of_two_seconds_and_more(self) -> None:
        report = floor_report(self.SPANS, NOBODY, 40)
        assert report.silences == ((12, 15), (30, 40))
        assert report.silence == 14.5

    def test_pace_and_questions_come_from_the_words(self) -> None:
        talk = in_order([Turn("A", spread("Shall we? I think so.", 0, 10)), Turn("B", spread("Why", 10, 11))])
        report = floor_report([(0, 10, "A"), (10, 11, "B")], talk, 11)
        assert [(v.voice, v.words, v.questions, round(v.pace, 3)) for v in report.voices] == [
            ("A", 5, 1, 30),
            ("B", 1, 0, 60),
        ]

    @pytest.mark.parametrize(
        ("spans", "even"),
        [([(0, 5, "A"), (5, 10, "B")], 1.0), ([(0, 10, "A")], 1.0), ([], 1.0), ([(0, 9, "A"), (9, 10, "B")], 0.4690)],
    )
    def test_evenness(self, spans: list[tuple[float, float, str]], even: float) -> None:
        """Pielou 1966: entropy over its greatest value; the last value is H(0.9, 0.1) in bits, from the textbook table."""
        assert floor_report(spans, NOBODY, 10).evenness == pytest.approx(even, abs=1e-4)

    def test_parts_of_the_meeting(self) -> None:
        report = floor_report(self.SPANS, NOBODY, 40, [("Start", 0, 20), ("End", 20, 40)])
        assert [part.seconds for part in report.chapters] == [{"A": 14, "B": 4}, {"A": 9.5, "B": 0.5}]
        assert len(report.over_time) == 10
        assert sum(sum(part.seconds.values()) for part in report.over_time) == pytest.approx(28)

    def test_what_lies_outside_the_recording_does_not_count(self) -> None:
        assert floor_report([(-5, 5, "A"), (35, 99, "A"), (50, 60, "B")], NOBODY, 40).voices[0].seconds == 10
