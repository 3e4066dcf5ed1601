"""Numbers as people say them."""

import pytest

from nuntius.core.language.en.numbers import in_digits, ordinal


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("a hundred and forty are in", "140 are in"),
        ("seventy-two to go", "72 to go"),
        ("six thousand eight hundred extra", "6800 extra"),
        ("forty two thousand pounds", "42,000 pounds"),
        ("two of my lads", "two of my lads"),
        ("ten forty", "ten forty"),
        ("four and a half thousand", "four and a half thousand"),
    ],
)
def test_number_words_become_digits(said: str, written: str) -> None:
    assert in_digits(said) == written


def test_ordinals() -> None:
    assert [ordinal(text) for text in ("twenty-eighth", "2nd", "thirtieth", "two", "")] == [28, 2, 30, None, None]


@pytest.mark.parametrize(
    ("said", "written"),
    [
        ("Costs are up by seven point four per cent.", "Costs are up by 7.4 per cent."),
        ("It weighs twelve point five kilos.", "It weighs 12.5 kilos."),
        ("We charge two pounds fifty a head.", "We charge 2.50 pounds a head."),
        ("That's one point against it.", "That's one point against it."),
        ("Ten pounds twenty times over.", "10 pounds 20 times over."),
    ],
)
def test_numbers_with_a_point(said: str, written: str) -> None:
    assert in_digits(said) == written
