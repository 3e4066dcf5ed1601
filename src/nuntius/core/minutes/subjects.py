"""What talk is about: nouns that say so, and those of the agenda."""

import re

from nuntius.core.language.en.nouns import DULL
from nuntius.core.language.en.numbers import TENS, UNITS, ordinal
from nuntius.core.language.en.subject_named import subject_named
from nuntius.core.language.sentence import Token
from nuntius.core.minutes.scene import Scene

OPENING_SENTENCES = (
    6  # of a turn, in which it may still come to a subject ("All right. Anything else? No? Good. The hedge.")
)
HEADS_LIST = frozenset(
    "problems questions points news business matters issues items updates follow-ups worries".split()
)


def agenda_words(scene: Scene) -> frozenset[str]:
    """Nouns of the agenda: given, or read out as a list in the first turns."""
    given = {word.lower() for item in scene.facts.agenda for word in re.findall(r"[A-Za-z]{4,}", item)}
    for sentence in scene.sentences:
        if sentence.turn > 15:
            break
        if sentence.text.count(",") >= 2 and re.search(
            r"\b(?:agenda|got|cover|start|items?|then|today|list|first)\b", sentence.lower
        ):
            given |= {t.lemma for t in sentence.tokens if t.pos in ("NOUN", "PROPN") and len(t.lemma) > 3}
    return frozenset(given - DULL)


def subject_of(scene: Scene, turn: int) -> str:
    """The subject that a turn names at its beginning, before anything is said of it; empty where it does not."""
    people = frozenset(part.lower() for person in scene.roster.people for part in person.split())
    named = [subject_named(sentence, people) for sentence in scene.by_turn[turn][:OPENING_SENTENCES]]
    first = next((i for i, subject in enumerate(named) if subject), None)
    if first is None:
        return ""
    behind = next(iter(named[first + 1 : first + 2]), "")
    return behind if behind and named[first].lower() in HEADS_LIST else named[first]  # `Problems. The drain.`


def names_subject(token: Token) -> bool:
    """Whether a token is a noun that says what the talk is about."""
    if token.pos not in ("NOUN", "PROPN") or not token.text.isalpha() or len(token.lemma) <= 2 or token.lemma in DULL:
        return False
    word = token.text.lower()
    return word not in UNITS and word not in TENS and ordinal(word) is None
