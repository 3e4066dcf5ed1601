"""Questions of one meeting that are put to another, which comes near them and cannot answer them.

What a question asks for is in its nouns: a talk that never says one of them does not hold the answer, however near it
comes in meaning. Such questions are hard to tell from those that it does answer (hard negatives, as in `context.py`).
"""

from collections.abc import Sequence

import numpy as np

from nuntius.core.language.en.dates import DAYS
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.scene import Scene

EACH = 4  # questions put to a talk
USED_LESS = 0.03  # taken off a question's cosine for each talk that it was already put to
NEAR = 0.45  # cosine from which it is near enough even if the talk has none of its nouns
STEM = 4  # letters by which a noun is looked for inside the words of a talk (`insurance`, `insured`)
SAYS_LITTLE = frozenset(  # nouns that a talk may answer without saying them
    "time day week month year thing people person one way kind sort part end meeting anybody somebody everybody money side "
    "word talk discussion conversation question answer problem point idea place number amount cost show mind date hour name "
    "price rest total past sum value turn hand come hold cover list difference minute second half morning evening afternoon "
    "today tomorrow demand reason need want help work job change man lady woman lot plan rule case fact length size group team "
    "visit complaint deadline decision beginning start moment state position order last use opinion condition mean limit "
    "voice".split()
) | {form for day in DAYS for form in (day, f"{day}s")}


def borrowed(talks: Sequence[Scene], questions: Sequence[Sequence[str]]) -> list[list[str]]:
    """For each talk the questions of the others, one list of `questions` for each, that it comes near and cannot answer."""
    asked = [(number, question) for number, of_talk in enumerate(questions) for question in of_talk]
    meant = vectors([question for _, question in asked])
    nouns = [_nouns(question) for _, question in asked]
    used = np.zeros(len(asked), np.float32)
    made = []
    for number, talk in enumerate(talks):
        words = {form.lower() for sentence in talk.sentences for t in sentence.tokens for form in (t.text, t.lemma)}
        near = (talk.vectors @ meant.T).max(0) - USED_LESS * used
        chosen: list[str] = []
        for place in np.argsort(-near, kind="stable"):
            owner, question = asked[place]
            if owner == number or question in chosen or not _unanswered(nouns[place], words, float(near[place])):
                continue
            chosen.append(question)
            used[place] += 1
            if len(chosen) == EACH:
                break
        made.append(chosen)
    return made


def _nouns(question: str) -> list[str]:
    nouns = (t.lemma.lower() for t in parse_text(question) if t.pos in ("NOUN", "PROPN"))
    return [noun for noun in nouns if noun not in SAYS_LITTLE]


def _unanswered(nouns: Sequence[str], words: set[str], near: float) -> bool:
    """Whether a talk of these words lacks what a question asks for, and speaks of something else of it or comes near."""
    lacks = any(noun not in words and not any(noun[:STEM] in word for word in words) for noun in nouns)
    return lacks and (near >= NEAR or any(noun in words for noun in nouns))
