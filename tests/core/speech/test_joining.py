"""Words joined to voices."""

from nuntius.core.speech.diarizer import Span
from nuntius.core.speech.joining import by_time, join
from nuntius.core.transcript.word import Word


def words(*rows: tuple[str, float, float]) -> tuple[Word, ...]:
    return tuple(Word(a, b, text) for text, a, b in rows)


def test_a_word_goes_to_the_voice_in_whose_span_its_middle_lies() -> None:
    said = words(("Shall", 0, 0.4), ("we?", 0.4, 0.9), ("Yes.", 1.0, 1.4))
    voices = by_time(said, [Span(0, 1, "A"), Span(1, 2, "B")])
    assert [(t.speaker, t.text) for t in join(said, voices, 2.0).turns] == [("A", "Shall we?"), ("B", "Yes.")]


def test_a_backchannel_inside_a_long_turn_is_not_swallowed() -> None:
    said = words(("We", 0, 0.5), ("repair", 0.5, 1), ("Mm-hm.", 1.1, 1.5), ("it", 1.6, 2), ("now.", 2, 2.5))
    assert by_time(said, [Span(0, 2.6, "A"), Span(1.05, 1.55, "B")]) == ["A", "A", "B", "A", "A"]


def test_a_word_in_a_gap_goes_to_the_nearest_voice_and_without_voices_to_one() -> None:
    said = words(("Hm.", 4.0, 4.2))
    assert by_time(said, [Span(0, 1, "A"), Span(5, 6, "B")]) == ["B"]
    assert by_time(said, []) == ["Voice A"]
    assert join((), (), 9).turns == ()


def test_a_long_pause_ends_a_turn_of_the_same_voice() -> None:
    made = join(words(("One.", 0, 0.5), ("Two.", 4, 4.5)), ["A", "A"], 5)
    assert len(made.turns) == 2
