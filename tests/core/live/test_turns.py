"""Live lines as turns, and the pieces of a line in which voices change."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.live.line import LiveLine, VoicedLine
from nuntius.core.live.matching import matched
from nuntius.core.live.turns import live_transcript, split_at_voices, turn_start, voice_of
from nuntius.core.speech.diarizer import Span, relabelled
from tests.core.live.samples import LINES, said


class TestTurns:
    def test_lines_of_one_voice_are_one_turn_until_it_pauses(self) -> None:
        made = live_transcript(LINES, 15.0)
        assert [(t.speaker, t.text) for t in made.turns] == [
            ("Voice A", "Good morning everybody. Three things today."),
            ("Voice B", "I brought biscuits."),
            ("Voice B", "And some tea."),
        ]

    def test_a_line_without_a_voice_yet_goes_to_the_voice_before_it(self) -> None:
        made = live_transcript(said((0, 2, "Voice B", "One."), (2.1, 3, None, "Two.")), 3.0)
        assert [t.text for t in made.turns] == ["One. Two."]

    def test_a_persons_words_stand_before_the_machines(self) -> None:
        line = VoicedLine(1, LiveLine(0.0, 2.0, "wrong"), None, "right words")
        assert live_transcript([line], 2.0).turns[0].text == "right words"

    def test_nothing_said_is_an_empty_transcript(self) -> None:
        assert live_transcript([], 3.0).turns == ()

    def test_a_mark_begins_with_the_turn_being_spoken(self) -> None:
        assert turn_start(LINES, 4.0) == 0.0
        assert turn_start(LINES, 6.0) == 5.2
        assert turn_start(LINES, 13.0) == 12.0
        assert turn_start([], 9.0) == 9.0
        untold = said((0, 2, None, "One."), (2.1, 4, None, "Two."))
        assert turn_start(untold, 3.0) == 2.1


class TestVoices:
    SPANS = [Span(0.0, 5.0, "Voice A"), Span(4.5, 9.0, "Voice B")]

    def test_a_line_belongs_to_the_voice_that_speaks_most_of_it(self) -> None:
        assert voice_of(LiveLine(4.0, 8.0, "x"), self.SPANS) == "Voice B"
        assert voice_of(LiveLine(9.5, 10.0, "x"), self.SPANS) == "Voice B"
        assert voice_of(LiveLine(20.0, 21.0, "x"), self.SPANS) is None

    def test_a_line_in_which_one_voice_answers_another_comes_in_pieces(self) -> None:
        line = LiveLine(0.0, 6.0, "And who may sign it? Is it Maren alone, or the board? I do not know.")
        spans = [Span(0.0, 4.6, "Voice A"), Span(4.7, 6.0, "Voice B")]
        made = split_at_voices(line, spans)
        assert [(piece.text, voice) for piece, voice in made] == [
            ("And who may sign it? Is it Maren alone, or the board?", "Voice A"),
            ("I do not know.", "Voice B"),
        ]
        assert made[0][0].start == 0.0 and made[1][0].end == pytest.approx(6.0)

    def test_a_short_sound_of_another_voice_makes_no_piece(self) -> None:
        line = LiveLine(0.0, 6.0, "one two three four five six")
        spans = [Span(0.0, 6.0, "Voice A"), Span(2.0, 2.4, "Voice B")]
        assert split_at_voices(line, spans) == [(line, "Voice A")]
        assert split_at_voices(line, []) == []
        assert split_at_voices(LiveLine(0.0, 3.0, "one"), [Span(0, 1.5, "A"), Span(1.5, 3, "B")]) != []

    @given(st.lists(st.tuples(st.floats(0, 9), st.floats(0.1, 5), st.sampled_from("AB")), max_size=6))
    def test_pieces_hold_every_word_in_order(self, rows: list[tuple[float, float, str]]) -> None:
        line = LiveLine(1.0, 8.0, "one two. three four, five six? seven eight nine ten")
        made = split_at_voices(line, [Span(a, a + b, v) for a, b, v in rows])
        assert not made or " ".join(piece.text for piece, _ in made) == line.text

    def test_voices_keep_their_names_by_the_time_in_which_both_speak(self) -> None:
        before = [Span(0, 10, "Voice A"), Span(10, 20, "Voice B")]
        after = [Span(0, 9.5, "Voice B"), Span(10.2, 20, "Voice A"), Span(30, 40, "Voice C")]
        names = matched(before, after)
        assert names == {"Voice B": "Voice A", "Voice A": "Voice B", "Voice C": "Voice C"}
        assert [s.voice for s in relabelled(after, names)] == ["Voice A", "Voice B", "Voice C"]

    def test_a_new_voice_takes_no_name_that_is_in_use(self) -> None:
        names = matched([Span(0, 5, "Voice C")], [Span(0, 5, "Voice A"), Span(6, 7, "Voice C")])
        assert names["Voice A"] == "Voice C"
        assert names["Voice C"] not in {"Voice C"}

    @given(st.lists(st.tuples(st.integers(0, 50), st.integers(1, 9), st.sampled_from("ABC")), max_size=12))
    def test_names_are_never_given_twice(self, rows: list[tuple[int, int, str]]) -> None:
        spans = [Span(float(a), float(a + b), f"Voice {v}") for a, b, v in sorted(rows)]
        names = matched(spans[::2], spans)
        assert len(set(names.values())) == len(names) == len({s.voice for s in spans})
