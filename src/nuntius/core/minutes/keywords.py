"""What a section of a person's own looks for: sentences that hold one of its words or phrases."""

import re

from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.templates.template import Section

MOST = 20  # lines of a section that names no number of its own


def find_by_keywords(scene: Scene, section: Section) -> list[Line]:
    """A line for each sentence with one of the section's phrases in any form, of its voices, the longest first if too many."""
    phrases = {phrase: _forms(phrase) for phrase in section.words}
    found = [
        (sentence, phrase)
        for sentence in scene.sentences
        if not section.voices or sentence.speaker in section.voices
        for phrase in [next((p for p, forms in phrases.items() if _holds(sentence, forms)), None)]
        if phrase
    ]
    kept = sorted(found, key=lambda pair: -len(pair[0].text))[: section.most or MOST]
    return [
        Line(LineKind.KEYWORD, quoted(s), (passage(s),), state=LineState.SETTLED, why=f"“{phrase}” was looked for"[:80])
        for s, phrase in found
        if (s, phrase) in kept
    ]


def _forms(phrase: str) -> tuple[str, ...]:
    """Dictionary forms of a phrase's words."""
    return tuple(t.lemma for t in parse_text(phrase.lower()) if re.search(r"\w", t.text))


def _holds(sentence: Sentence, forms: tuple[str, ...]) -> bool:
    """Whether the words stand side by side in the sentence, in any form."""
    lemmas = [t.lemma for t in sentence.tokens if re.search(r"\w", t.text)]
    size = len(forms)
    return bool(size) and any(tuple(lemmas[i : i + size]) == forms for i in range(len(lemmas) - size + 1))
