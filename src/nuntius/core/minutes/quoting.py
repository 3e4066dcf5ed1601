"""A sentence as a line of the minutes, in its speaker's name where that is safe."""

from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording


def quoted(sentence: Sentence) -> str:
    """The sentence cleaned and in the third person, falling back to what was said where a figure or negation would change."""
    text = wording.statement(sentence.text)
    named = attributed(text, sentence.speaker)
    return next((made for made in (named, text) if wording.faithful(made, sentence.text)), sentence.text)


def attributed(text: str, speaker: str) -> str:
    """Words in the third person, else as said with the first name (or label) of their speaker ahead."""
    return wording.attributed(text, speaker if is_label(speaker) else first_name(speaker))
