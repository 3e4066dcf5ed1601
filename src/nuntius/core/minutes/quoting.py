"""A sentence as a line of the minutes, in its speaker's name where that is safe, and with the question that it answers."""

from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.scene import Scene

LONGEST_ASKED = 14  # words of a question that is put ahead of its bare answer


def quoted(sentence: Sentence) -> str:
    """The sentence cleaned and in the third person, falling back to what was said where a figure or negation would change."""
    text = wording.statement(sentence.text)
    named = attributed(text, sentence.speaker)
    return next((made for made in (named, text) if wording.faithful(made, sentence.text)), sentence.text)


def attributed(text: str, speaker: str) -> str:
    """In the third person, else what was said with its speaker ahead: `Ann: I owe them my keys.`"""
    name = speaker if is_label(speaker) else first_name(speaker)
    made = wording.third_person(text, name)
    return f"{name}: {made}" if wording.OWN.search(made) else made


def answered(scene: Scene, sentence: Sentence) -> Sentence | None:
    """The question, in the turn before, that the first words of a turn answer: without it they may say little."""
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    asked = [s for t in before for s in scene.by_turn[t][-1:] if s.is_question and len(s.text.split()) <= LONGEST_ASKED]
    return asked[0] if asked and sentence.first == 0 else None


def with_question(asked: Sentence | None, sentence: Sentence) -> str:
    """`What are they? 390 each.`"""
    return f"{wording.clean(asked.text)} {quoted(sentence)}" if asked else quoted(sentence)
