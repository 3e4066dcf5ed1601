import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.errors import NameMissing
from nuntius.core.people import clean_name, label, name_key


@pytest.mark.parametrize(
    "other",
    ["ines carvell", "INES  CARVELL", "Ines\u200bCarvell".replace("\u200b", " \u200b"), "Ines\u200d Carvell", "Ｉｎｅｓ Carvell", "\ufeffInes\u00a0Carvell "],
)  # fmt: skip
def test_spellings_of_one_name(other: str) -> None:
    assert name_key(other) == name_key("Ines Carvell")


@pytest.mark.parametrize(("one", "other"), [("Strasse", "Straße"), ("ﬁn", "fin"), ("Zoe\u0308", "Zoë")])
def test_case_folding_and_composition(one: str, other: str) -> None:
    assert name_key(one) == name_key(other)


@pytest.mark.parametrize("nothing", ["", "  ", "\u200b\u200d", "\n\t"])
def test_a_name_that_cannot_be_seen_is_none(nothing: str) -> None:
    with pytest.raises(NameMissing):
        clean_name(nothing)


def test_a_name_is_kept_as_it_was_written() -> None:
    assert clean_name(" Zoe\u0308 \u202eO’Brien\n") == "Zoë O’Brien"


@given(st.text(max_size=60))
def test_cleaning_changes_no_key(text: str) -> None:
    try:
        cleaned = clean_name(text)
    except NameMissing:
        assert name_key(text) == ""
    else:
        assert name_key(cleaned) == name_key(text)
        assert clean_name(cleaned) == cleaned


def test_a_label_has_the_word_that_tells_apart() -> None:
    assert (label("Ann Lowe", ""), label("Ann Lowe", "yard")) == ("Ann Lowe", "Ann Lowe (yard)")
