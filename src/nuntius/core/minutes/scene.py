"""The talk laid out for the rules: sentences, who speaks, what surrounds them."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language import vectors
from nuntius.core.language.en import cues
from nuntius.core.language.en.names import Roster
from nuntius.core.language.en.parse import sentences
from nuntius.core.language.en.written_out import written_out
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import MeetingFacts, Passage
from nuntius.core.transcript.transcript import Transcript

CONTENT = ("NOUN", "PROPN", "VERB", "ADJ", "NUM", "ADV")  # parts of speech that carry meaning
KEPT = 2  # scenes kept for the next question or for minutes made again; one of four hours takes some 100 MB


@dataclass(frozen=True, eq=False)
class Scene:
    """A transcript with its sentences; everything a rule may look at. Two scenes are never equal.

    `texts` are the turns as said, with marks and capitals where they came without any.
    """

    transcript: Transcript
    facts: MeetingFacts
    roster: Roster
    texts: tuple[str, ...]
    sentences: tuple[Sentence, ...]

    @cached_property
    def by_turn(self) -> tuple[tuple[Sentence, ...], ...]:
        """The sentences of each turn."""
        turns: list[list[Sentence]] = [[] for _ in self.transcript.turns]
        for sentence in self.sentences:
            turns[sentence.turn].append(sentence)
        return tuple(tuple(turn) for turn in turns)

    @cached_property
    def backchannel(self) -> tuple[bool, ...]:
        """Which turns merely signal listening or assent."""
        return tuple(bool(cues.BACKCHANNEL.match(turn.text)) for turn in self.transcript.turns)

    @cached_property
    def index(self) -> dict[tuple[int, int], int]:
        """Number of the sentence that begins at (turn, first word)."""
        return {(s.turn, s.first): i for i, s in enumerate(self.sentences)}

    @cached_property
    def numbers(self) -> tuple[tuple[int, ...], ...]:
        """The numbers of the sentences of each turn."""
        return tuple(tuple(self.index[s.turn, s.first] for s in turn) for turn in self.by_turn)

    def highest(self, of_sentences: NDArray[np.float32], least: float = 0.0) -> list[float]:
        """For each turn the highest of its sentences; `least` where it has none."""
        return [max((float(of_sentences[number]) for number in turn), default=least) for turn in self.numbers]

    @cached_property
    def content(self) -> dict[tuple[int, int], frozenset[str]]:
        """Dictionary forms of the words that carry the meaning of the sentence that begins at (turn, first word)."""
        return {
            (s.turn, s.first): frozenset(t.lemma for t in s.tokens if t.pos in CONTENT and len(t.lemma) > 2)
            for s in self.sentences
        }

    @cached_property
    def turn_content(self) -> tuple[frozenset[str], ...]:
        """The same of whole turns."""
        return tuple(frozenset().union(*(self.content[s.turn, s.first] for s in turn)) for turn in self.by_turn)

    @cached_property
    def vectors(self) -> vectors.Vectors:
        """Unit vectors of all sentences."""
        return vectors.vectors([sentence.text for sentence in self.sentences])

    def alike(self, a: Sentence, b: Sentence) -> float:
        """Cosine of two sentences."""
        return float(self.vectors[self.index[a.turn, a.first]] @ self.vectors[self.index[b.turn, b.first]])

    def inside(self, passages: Iterable[Passage]) -> Iterator[Sentence]:
        """The sentences that begin within passages."""
        for each in passages:
            yield from (s for s in self.by_turn[each.turn] if each.first <= s.first <= each.last)

    def highest_inside(self, of_sentences: NDArray[np.float32], passages: Iterable[Passage]) -> float:
        """The highest of the sentences that begin within passages, 0 where none does."""
        return max((float(of_sentences[self.index[s.turn, s.first]]) for s in self.inside(passages)), default=0.0)

    def speaker(self, turn: int) -> str:
        return self.transcript.turns[turn].speaker

    def text(self, turn: int) -> str:
        return self.texts[turn]

    def whole(self, turn: int) -> Passage:
        """The passage that is a whole turn."""
        return Passage(turn, 0, len(self.transcript.turns[turn].words) - 1)

    def following(self, turn: int, most: int) -> range:
        """Up to `most` turns after `turn`."""
        return range(turn + 1, min(turn + 1 + most, len(self.transcript.turns)))

    def preceding(self, turn: int, most: int) -> range:
        """Up to `most` turns before `turn`, the nearest first."""
        return range(turn - 1, max(-1, turn - 1 - most), -1)


def passage(sentence: Sentence) -> Passage:
    """Where a sentence stands."""
    return Passage(sentence.turn, sentence.first, sentence.last)


@lru_cache(maxsize=KEPT)
def scene(transcript: Transcript, facts: MeetingFacts) -> Scene:
    """Parses a transcript; the last ones are kept."""
    roster = Roster.of(facts.people, transcript.speakers)
    names = roster.words
    texts = tuple(written_out(turn.text, names) for turn in transcript.turns)
    return Scene(transcript, facts, roster, texts, sentences(transcript, texts))
