"""A person's live corrections in the words of the better recogniser."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.live.carrying import Correction, corrected_turns, merged
from nuntius.core.transcript.transcript import Transcript
from tests.help import talk


class TestCarrying:
    def test_the_persons_edit_is_made_in_the_better_recognisers_words(self) -> None:
        heard = "to buy us could you send them over".split()
        written = "Tobias could you send them over".split()
        settled = "Toby us, could you send them over please?".split()
        assert " ".join(merged(heard, written, settled)) == "Tobias could you send them over please?"

    def test_what_the_person_left_alone_comes_from_the_better_recogniser(self) -> None:
        heard, written = "the hair in ways eleven tons".split(), "the hair in weighs eleven tons".split()
        assert (
            " ".join(merged(heard, written, "the Heron ways eleven tonnes".split())) == "the Heron weighs eleven tonnes"
        )

    def test_words_taken_out_stay_out(self) -> None:
        assert merged("a b secret c".split(), "a b c".split(), "a b secret c d".split()) == ["a", "b", "c", "d"]

    @given(
        st.lists(st.sampled_from("a b c d".split()), max_size=8),
        st.lists(st.sampled_from("a b c x".split()), max_size=8),
    )
    def test_same_words_heard_twice_give_exactly_what_was_written(self, heard: list[str], written: list[str]) -> None:
        assert merged(heard, written, heard) == written

    def test_a_correction_finds_its_turn_by_time_and_leaves_the_others(self) -> None:
        transcript = talk(("A", "good morning to you all"), ("B", "the hair in is eleven tons"), ("A", "right"))
        start, end = transcript.turns[1].start, transcript.turns[1].end
        made = corrected_turns(
            transcript,
            [Correction(start - 0.2, end + 0.1, "the hair in is eleven tonnes", "the Heron is eleven tonnes")],
        )
        assert list(made) == [1]
        assert " ".join(word.text for word in made[1]) == "the Heron is eleven tons"
        assert made[1][0].start == pytest.approx(start)

    def test_a_correction_of_what_was_not_heard_again_is_left_out(self) -> None:
        assert corrected_turns(talk(("A", "one two")), [Correction(50, 52, "x", "y")]) == {}
        assert corrected_turns(Transcript((), 0.0), [Correction(0, 2, "x", "y")]) == {}
