"""A sentence as a line of the minutes, in its speaker's name where that is safe."""

from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording


def quoted(sentence: Sentence) -> str:
    """The sentence cleaned and in the third person, falling back to what was said where a figure or negation would change."""
    text = wording.statement(sentence.text)
    name = sentence.speaker if is_label(sentence.speaker) else sentence.speaker.split()[0]
    named = wording.third_person(text, name)
    return next((made for made in (named, text) if wording.faithful(made, sentence.text)), sentence.text)
