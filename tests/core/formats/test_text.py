"""Plain text."""

from nuntius.core.formats.text import read_text, write_minutes_text, write_text
from tests.core.formats.samples import MINUTES


def test_minutes_as_plain_text() -> None:
    text = "".join(write_minutes_text(MINUTES))
    assert "* Have the rail measured -- Douglas, by Fri 6 Nov 2026 [0:05]" in text
    assert "* Ask the bakery -- nobody took this on, no date named" in text
    assert "\nActions\n-------\n" in text


def test_plain_text_with_and_without_times() -> None:
    bare = read_text("Maren: Good morning.\nand welcome\n\nInes: Hello: you")
    assert [(t.speaker, t.text) for t in bare.turns] == [("Maren", "Good morning. and welcome"), ("Ines", "Hello: you")]
    assert bare.turns[1].start >= bare.turns[0].end
    timed = read_text("[0:05] Maren: One.\nInes (1:02:03): Two.\n0:30\nTobias: Three.")
    assert [(t.speaker, round(t.start)) for t in timed.turns] == [("Maren", 5), ("Tobias", 30), ("Ines", 3723)]
    assert [t.speaker for t in read_text("".join(write_text(timed))).turns] == ["Maren", "Tobias", "Ines"]
