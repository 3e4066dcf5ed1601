"""A question put to the record: its words, where the talk holds them, and whether a passage holds what is wanted."""

import math
import re
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from rapidfuzz import fuzz

from nuntius.core.language.en import wants
from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Token
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.scene import Scene

MATCH = 88  # rapidfuzz ratio (0 to 100) from which two words are one ("Achterburg", "Achterberg")


@dataclass(frozen=True, slots=True)
class Asked:
    """A question: its words with their weight, which of them each turn holds, how near each sentence is to it.

    `wants` is the kind of thing asked for, `named` are people of the roster that it names.
    """

    text: str
    words: dict[str, float]
    held: tuple[frozenset[str], ...]
    near: NDArray[np.float32]
    vector: NDArray[np.float32]
    wants: str
    named: frozenset[str]

    def cover(self, turns: Iterable[int]) -> float:
        """Share of the question's words, by weight, that stand in any of the turns."""
        total = sum(self.words.values())
        there = frozenset().union(*(self.held[turn] for turn in turns))
        return sum(self.words[word] for word in there) / total if total else 0.0

    @property
    def seldom(self) -> str:
        """The word of the question that the talk holds least often; empty where it has none that counts."""
        return max(self.words, key=lambda word: self.words[word], default="")

    @property
    def names_something(self) -> bool:
        """Whether a name or another capitalised word stands inside the question."""
        return bool(re.search(r"\s[A-Z]", self.text))

    def is_said(self, word: str) -> bool:
        """Whether any turn holds this word of the question."""
        return any(word in there for there in self.held)

    def fits(self, talk: Scene, text: str) -> bool:
        """Whether a passage holds the kind of thing asked for."""
        if self.wants == "count":
            return bool(figures_in(text)) or bool(re.search(r"\d", in_digits(text)))
        if (amount := wants.AMOUNTS.get(self.wants)) is not None:
            digits = in_digits(text)
            bare = len(text.split()) <= wants.MOST_BARE and bool(re.search(r"\d", digits))
            return bare or bool(amount.search(digits))
        if self.wants == "who":
            return bool(wants.TAKES.search(text) or talk.roster.find(text))
        if self.wants == "name":
            return bool(self._names(talk, text))
        pattern = {"when": wants.TIME, "why": wants.REASON, "where": wants.PLACE}.get(self.wants)
        return pattern is not None and bool(pattern.search(text))

    def _names(self, talk: Scene, text: str) -> list[str]:
        """Capitalised words inside sentences that are neither in the question nor names of those present."""
        known = {part for person in talk.roster.people for part in person.split()}
        inside = re.findall(r"(?<=[a-z,;] )[A-Z][a-z]{2,}", text)
        new = [word for word in inside if word not in known and word.lower() not in self.text.lower()]
        return [word for word in new if not wants.TIME.search(word)]


def asked(talk: Scene, question: str) -> Asked:
    """Reads a question against a talk. A word that the talk holds seldom weighs more (inverse document frequency)."""
    words = dict.fromkeys(_content(parse_text(in_digits(question))))
    said = [_stems(f"{turn.speaker} {turn.text}") for turn in talk.transcript.turns]
    held = tuple(frozenset(word for word in words if _held(word, stems)) for stems in said)
    weights = {word: math.log(1 + len(held) / (1 + sum(word in there for there in held))) for word in words}
    vector = vectors([question])[0]
    named = frozenset(name for name, _ in talk.roster.find(question))
    return Asked(question, weights, held, talk.vectors @ vector, vector, wants.wanted(question), named)


def _stems(text: str) -> frozenset[str]:
    return frozenset(re.findall(r"[a-z0-9]{3,}|\d+", in_digits(text).lower()))


def _held(word: str, said: frozenset[str]) -> bool:
    if word in said:
        return True
    root = word[: max(4, len(word) - 2)]
    return any((other.startswith(root) and len(word) > 4) or fuzz.ratio(word, other) >= MATCH for other in said)


def _content(tokens: tuple[Token, ...]) -> list[str]:
    return [
        t.lemma
        for t in tokens
        if t.pos in ("NOUN", "PROPN", "VERB", "ADJ", "NUM")
        and t.lemma not in wants.COMMON
        and (len(t.lemma) > 2 or t.lemma.isdigit())
    ]
