"""Misheard names and terms: found by sound and spelling, left alone where they are other words."""

from dataclasses import replace

import pytest

from nuntius.core.transcript.transcript import Transcript
from nuntius.core.vocabulary import Mishearing, Term, mishearings, put_right, replaced
from tests.help import talk


def found(text: str, *terms: Term, confidence: float = 1.0) -> list[tuple[str, str, bool]]:
    spoken = talk(("A", text))
    turn = spoken.turns[0]
    doubtful = replace(turn, words=tuple(replace(word, confidence=confidence) for word in turn.words))
    return [(m.term, m.heard, m.known) for m in mishearings(Transcript((doubtful,), spoken.duration), terms)]


INES, MAREN, FERRY = Term("Ines"), Term("Maren"), Term("Saltmarsh")


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("I asked Inez about it.", [("Ines", "Inez", False)]),
        ("That is Marin's boat.", [("Maren", "Marin", False)]),
        ("The salt marsh ferry is late.", [("Saltmarsh", "salt marsh", False)]),
        ("Ines and Maren of the Saltmarsh ferry.", []),
        ("Maren is here, Ines I saw as well.", []),
        ("the saltmarsh in lower case is a matter of style", []),
        ("On Monday in March we saw the main marine harbour.", []),
    ],
)
def test_what_sounds_like_a_name_is_found_and_nothing_else(text: str, expected: list[tuple[str, str, bool]]) -> None:
    assert found(text, INES, MAREN, FERRY) == expected


def test_a_common_word_in_small_letters_counts_only_where_the_recogniser_was_unsure() -> None:
    assert found("we saw a marine there", MAREN) == []
    assert found("we saw a marine there", MAREN, confidence=0.4) == [("Maren", "marine", False)]


@pytest.mark.parametrize(
    ("text", "expected"),
    [
        ("Okay, quame, your steam.", [("Kwame", "quame", False)]),
        ("Jeyulia, would you join us?", [("Giulia", "Jeyulia", False)]),
        ("The rest is theirs. They said so when it rained, and I've seen it.", []),  # no Theo, no Wen, no Ife
        ("The quay is older than the quarry.", []),
    ],
)
def test_what_is_no_common_word_may_be_a_name_that_sounds_a_little_like_it(
    text: str, expected: list[tuple[str, str, bool]]
) -> None:
    assert found(text, *map(Term, ("Kwame", "Giulia", "Theo", "Wen", "Ife"))) == expected


def test_a_form_heard_before_is_known_and_a_refused_one_is_left_alone() -> None:
    assert found("Pete rang.", Term("Piet", heard=("pete",))) == [("Piet", "Pete", True)]
    assert found("Inez rang.", Term("Ines", refused=("Inez",))) == []


def test_capitals_are_style_for_names_of_people_and_matter_for_terms() -> None:
    assert found("the heron is out", Term("Heron")) == []
    assert found("the heron is out", Term("Heron", capitals=True)) == [("Heron", "heron", False)]


def test_all_places_of_a_form_are_shown_together() -> None:
    spoken = talk(("A", "Inez rang."), ("B", "Who, Inez?"), ("A", "Yes, Inez."))
    (each,) = mishearings(spoken, [INES])
    assert each == Mishearing("Ines", "Inez", False, each.places)
    assert [(place.turn, place.first) for place in each.places] == [(0, 0), (1, 1), (2, 1)]


def test_punctuation_around_a_term_stays() -> None:
    words = talk(("A", "So (salt marsh's) ferry, yes.")).turns[0].words
    assert put_right(words, 1, 2, "Saltmarsh") == "So (Saltmarsh's) ferry, yes."


def test_a_written_text_is_put_right_in_whole_words_only() -> None:
    assert replaced("Inez's note: ask Inez, not Inezia.", "Inez", "Ines") == "Ines's note: ask Ines, not Inezia."
    assert replaced("a\\1", "a", r"\g<0>") == r"\g<0>\1"


def test_hostile_terms_do_no_harm() -> None:
    assert found("So (what) is [this] *?", Term("(("), Term("*"), Term("")) == []
