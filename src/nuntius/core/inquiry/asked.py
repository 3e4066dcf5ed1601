"""A question put to the record: its words, what kind of thing it wants, and whether a passage holds such a thing."""

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from rapidfuzz import fuzz

from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Token
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.scene import Scene

MATCH = 88  # rapidfuzz ratio (0 to 100) from which two words are one ("Achterburg", "Achterberg")
COMMON = frozenset(
    "say tell do be have get make go come thing meeting people person record anybody happen know much many long about "
    "take give use want need will would".split()
)
WANTS = {  # the first that fits says what kind of thing is asked for
    "name": r"\b(?:what (?:is|was|are) .*\b(?:names?|called)|which (?:firm|company|bank|shop|school|street|person|client|supplier|town|hotel)\w*|what .* called)\b",
    "count": r"\bhow (?:many|much|long|far|old|big|large|late|often|high|deep|tall|heavy|loud|likely|slow|fast)\b|\b(?:cost|price|fee|come to|amount|share)\b",
    "when": r"\b(?:when|until when|by when|since when|how soon|what (?:day|time|date)|which (?:day|month|week|date)|in which month|by what date)\b",
    "why": r"\bwhy\b|\bwhat .*\b(?:reason|made|cause)\b",
    "who": r"\b(?:who|whose|whom)\b",
    "where": r"\bwhere\b",
    "how": r"\bhow\b",
    "yes": r"^\W*(?:is|are|was|were|do|does|did|has|have|had|can|could|will|would|should|must)\b",
    "which": r"\b(?:which|what)\b",
}
KINDS = tuple(WANTS)
_TIME = re.compile(
    r"\b(?:\d|mon|tues|wednes|thurs|fri|satur|sun)|day\b|\b(?:month|week|year|tomorrow|tonight|o'clock|noon|morning|spring|summer|autumn|winter|"
    r"january|february|march|april|may|june|july|august|september|october|november|december|\w+teenth|\w+tieth|first of|\w+th of)\b",
    re.I,
)
_REASON = re.compile(
    r"\b(?:because|so|since|that's why|as|due to|the problem|it's the|thanks to|mostly|partly|largely)\b", re.I
)
_PLACE = re.compile(r"\b(?:at|in|on|by|under|behind|next to|near|between|outside|inside|upstairs|downstairs)\b", re.I)
_TAKES = re.compile(r"\b(?:i(?:'ll|'m| will| can| could| am)|me|mine|you)\b", re.I)


@dataclass(frozen=True, slots=True)
class Asked:
    """A question: its words with their weight, how near each sentence is to it, what it wants, whom it names."""

    text: str
    words: dict[str, float]
    near: NDArray[np.float32]
    vector: NDArray[np.float32]
    wants: str
    named: frozenset[str]

    def cover(self, there: frozenset[str]) -> float:
        """Share of the question's words, by weight, that are among the stems of a passage."""
        total = sum(self.words.values())
        return sum(weight for word, weight in self.words.items() if held(word, there)) / total if total else 0.0

    def fits(self, talk: Scene, text: str) -> bool:
        """Whether a passage holds the kind of thing asked for."""
        if self.wants == "count":
            return bool(figures_in(text)) or bool(re.search(r"\d", in_digits(text)))
        if self.wants == "when":
            return bool(_TIME.search(text))
        if self.wants == "why":
            return bool(_REASON.search(text))
        if self.wants == "who":
            return bool(_TAKES.search(text) or talk.roster.find(text))
        if self.wants == "where":
            return bool(_PLACE.search(text))
        if self.wants == "name":
            return bool(self._names(talk, text))
        return False

    def _names(self, talk: Scene, text: str) -> list[str]:
        """Capitalised words inside sentences that are neither in the question nor names of those present."""
        known = {part for person in talk.roster.people for part in person.split()}
        inside = re.findall(r"(?<=[a-z,;] )[A-Z][a-z]{2,}", text)
        return [
            word
            for word in inside
            if word not in known and word.lower() not in self.text.lower() and not _TIME.search(word)
        ]


def asked(talk: Scene, question: str, said: Sequence[frozenset[str]]) -> Asked:
    """Reads a question against a talk whose turns hold the stems `said`."""
    words = dict.fromkeys(_content(parse_text(question)))
    weights = {word: math.log(1 + len(said) / (1 + sum(held(word, stems) for stems in said))) for word in words}
    vector = vectors([question])[0]
    lower = question.lower()
    wants = next((kind for kind, pattern in WANTS.items() if re.search(pattern, lower)), "which")
    named = frozenset(name for name, _ in talk.roster.find(question))
    return Asked(question, weights, talk.vectors @ vector, vector, wants, named)


def stems(text: str) -> frozenset[str]:
    """Words of a passage as they are compared, numbers in digits."""
    return frozenset(re.findall(r"[a-z0-9]{3,}", in_digits(text).lower()))


def held(word: str, there: frozenset[str]) -> bool:
    """Whether a word, or one much like it, is there."""
    if word in there:
        return True
    root = word[: max(4, len(word) - 2)]
    return any((other.startswith(root) and len(word) > 4) or fuzz.ratio(word, other) >= MATCH for other in there)


def _content(tokens: tuple[Token, ...]) -> list[str]:
    return [
        t.lemma
        for t in tokens
        if t.pos in ("NOUN", "PROPN", "VERB", "ADJ", "NUM") and t.lemma not in COMMON and len(t.lemma) > 2
    ]
