from itertools import pairwise

from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.transcript.edits import retimed
from nuntius.core.transcript.word import Word, spread

SAID = (
    Word(1.0, 1.4, "Send", 0.9),
    Word(1.5, 2.0, "Peter", 0.3),
    Word(2.1, 2.6, "the", 0.8),
    Word(2.7, 3.2, "times.", 0.9),
)


def test_words_left_alone_keep_time_and_confidence() -> None:
    made = retimed(SAID, "Send Petra the times.")
    assert [(w.text, w.start, w.confidence) for w in made] == [
        ("Send", 1.0, 0.9),
        ("Petra", 1.5, 1.0),
        ("the", 2.1, 0.8),
        ("times.", 2.7, 0.9),
    ]


def test_added_words_share_the_gap_between_their_neighbours() -> None:
    made = retimed(SAID, "Send Peter all the times.")
    assert made[2].text == "all"
    assert 2.0 <= made[2].start <= made[2].end <= 2.1


def test_everything_may_be_replaced_or_taken_away() -> None:
    made = retimed(SAID, "Nothing of that")
    assert (made[0].start, made[-1].end) == (1.0, 3.2)
    assert retimed(SAID, "") == ()


@given(
    st.lists(st.sampled_from("a b c d e".split()), max_size=8),
    st.lists(st.sampled_from("a b c d x".split()), min_size=1, max_size=8),
)
def test_times_stay_in_order_and_inside(before: list[str], after: list[str]) -> None:
    words = spread(" ".join(before), 2.0, 6.0)
    made = retimed(words, " ".join(after))
    assert [w.text for w in made] == after
    assert all(a.start <= b.start for a, b in pairwise(made))
    if words:
        assert all(2.0 <= w.start <= w.end <= 6.0 + 1e-9 for w in made)
