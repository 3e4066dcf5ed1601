"""Sentences of a transcript with what a parser says about their words."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Token:
    """One parsed token: its dictionary form, part of speech (Universal Dependencies), relation and head.

    `start` is the character in the sentence, `head` the index of the governing token in the sentence.
    """

    text: str
    lemma: str
    pos: str
    tag: str
    dep: str
    head: int
    start: int


@dataclass(frozen=True, slots=True)
class Sentence:
    """Words `first` to `last` (inclusive) of turn number `turn`, as said."""

    turn: int
    first: int
    last: int
    speaker: str
    text: str
    tokens: tuple[Token, ...]

    @property
    def is_question(self) -> bool:
        return self.text.rstrip("\"'” ").endswith("?")

    @property
    def lower(self) -> str:
        return self.text.lower().replace("’", "'")
