"""Who is called by name."""

import pytest

from nuntius.core.language.en.names import Roster, is_label


def test_who_is_spoken_to() -> None:
    roster = Roster.of(("Maren Tull", "Tobias Pryce", "Ines Carvell"), ("Voice A",))
    assert roster.addressee("Tobias, could you send them over?") == "Tobias Pryce"
    assert roster.addressee("Okay, Ines. Boats.") == "Ines Carvell"
    assert roster.addressee("Could you do that, Maren?") == "Maren Tull"
    assert roster.addressee("I saw Tobias on the pier.") is None
    assert is_label("Voice A")
    assert is_label("Speaker 12")
    assert not is_label("Maren Tull")


@pytest.mark.parametrize(
    ("said", "called"),
    [
        ("Okay, quame, your steam.", "Kwame Adjei"),
        ("Yes, I see that. Okay, quame your steam.", None),  # the second sentence is asked by itself
        ("Quame your steam.", "Kwame Adjei"),
        ("Jeyulia, would you join us?", "Giulia Ferri"),
        ("Could you come along, jeyulia?", "Giulia Ferri"),
        ("The quame is late.", None),
        ("Come, as you have the cup.", None),
    ],
)
def test_who_is_called_by_a_name_that_the_recogniser_did_not_know(said: str, called: str | None) -> None:
    assert Roster.of(("Kwame Adjei", "Giulia Ferri", "Colm Hanratty"), ()).addressee(said) == called


def test_a_first_name_of_two_people_stands_for_neither() -> None:
    assert Roster.of(("Ann Berg", "Ann Lund"), ()).find("Ask Ann about it") == []
