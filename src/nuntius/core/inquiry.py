"""Questions put to the record: an answer made from passages, or the word that there is none."""

import math
import re
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from rapidfuzz import fuzz

from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes import wording
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.line import MeetingFacts, Passage
from nuntius.core.minutes.scene import Scene, scene
from nuntius.core.transcript.transcript import Transcript

# Weights and limits were chosen on four meetings with hand-written questions; the score is a sum of shares.
COVERED = 0.7  # weight of the question's words that a turn holds, rare ones counting more
AROUND = 0.3  # share of that weight for words that stand only in the turns beside it
FITTING = 0.12  # bonus for a turn that holds the kind of thing asked for
ENOUGH = 0.80  # score of the best turn below which the record is said to hold nothing
LEAST_COVERED = 0.40  # share of the question's words around the best turn below which nothing is an answer
CLOSE = 0.80  # share of the best score that a further turn needs
MOST = 3  # turns that an answer is built around
LONGEST = 6  # turns of all its passages
SENTENCES = 4  # of an answer
MATCH = 88  # rapidfuzz ratio (0 to 100) from which two words are one ("Achterburg", "Achterberg")
COMMON = frozenset(
    [
        "say",
        "tell",
        "do",
        "be",
        "have",
        "get",
        "make",
        "go",
        "come",
        "thing",
        "meeting",
        "people",
        "person",
        "record",
        "anybody",
        "happen",
        "know",
        "much",
        "many",
        "long",
        "about",
        "take",
        "give",
        "use",
        "want",
        "need",
    ]
)


@dataclass(frozen=True, slots=True)
class Reply:
    """`found` says whether the record holds an answer; `evidence` is what it was made from."""

    found: bool
    text: str
    evidence: tuple[Passage, ...]


NOTHING = Reply(False, "", ())


@dataclass(frozen=True, slots=True)
class _Asked:
    """A question: its words that matter with the weight of each, and how near each sentence of the talk is."""

    text: str
    words: dict[str, float]
    near: NDArray[np.float32]


def inquire(transcript: Transcript, facts: MeetingFacts, question: str) -> Reply:
    """Answers `question` from the record; NOTHING where it does not hold one."""
    talk = scene(transcript, facts)
    if not talk.sentences or not question.strip():
        return NOTHING
    said = [_stems(f"{turn.speaker} {turn.text}") for turn in transcript.turns]
    asked = _Asked(question, _weighted(parse_text(question), said), talk.vectors @ vectors([question])[0])
    held = [{word for word in asked.words if _held(word, stems)} for stems in said]
    scores = np.array([_score(talk, asked, held, turn) for turn in range(len(said))])
    order = np.argsort(-scores, kind="stable")
    best = int(order[0])
    if scores[best] < ENOUGH or _cover(asked, set().union(*held[max(0, best - 2) : best + 3])) < LEAST_COVERED:
        return NOTHING
    turns: list[int] = []
    for turn in order[:MOST]:
        if scores[turn] >= CLOSE * scores[best]:
            turns += [t for t in _exchange(talk, int(turn)) if t not in turns]
    turns = sorted(turns[:LONGEST])
    return Reply(True, _answer(talk, asked, turns), tuple(talk.whole(t) for t in turns))


def _score(talk: Scene, asked: _Asked, held: list[set[str]], turn: int) -> float:
    """Nearness in meaning, shared words, and whether the turn holds what the question wants."""
    if talk.backchannel[turn] or not talk.by_turn[turn]:
        return 0.0
    near = max(float(asked.near[talk.index[s.turn, s.first]]) for s in talk.by_turn[turn])
    beside = set().union(*held[max(0, turn - 1) : turn + 2])
    cover = (1 - AROUND) * _cover(asked, held[turn]) + AROUND * _cover(asked, beside)
    return near + COVERED * cover + FITTING * _fits(talk, asked.text, turn)


def _cover(asked: _Asked, there: set[str]) -> float:
    """Share of the question's words that are there, by weight."""
    return sum(asked.words[word] for word in there) / max(sum(asked.words.values()), 1e-9)


def _exchange(talk: Scene, turn: int) -> list[int]:
    """A turn with the question that it answers, or with the answer to it when it asks."""
    if talk.by_turn[turn][-1].is_question:
        return [turn, *(t for t in talk.following(turn, 2) if talk.speaker(t) != talk.speaker(turn))]
    before = [t for t in talk.preceding(turn, 1) if talk.by_turn[t] and talk.by_turn[t][-1].is_question]
    return [turn, *before]


def _weighted(tokens: tuple[Token, ...], said: list[frozenset[str]]) -> dict[str, float]:
    """The question's words with their inverse document frequency over the turns; one never said weighs most."""
    words = dict.fromkeys(_content(tokens))
    return {word: math.log(1 + len(said) / (1 + sum(_held(word, stems) for stems in said))) for word in words}


def _answer(talk: Scene, asked: _Asked, turns: list[int]) -> str:
    """The sentences of the passage that come nearest to the question, each voice named."""
    inside = [(number, s) for number, s in enumerate(talk.sentences) if s.turn in turns]
    told = [pair for pair in inside if not pair[1].is_question] or inside
    chosen = sorted(told, key=lambda pair: -float(asked.near[pair[0]]) - 0.1 * _tells(pair[1]))[:SENTENCES]
    parts: list[str] = []
    voice = ""
    for _, sentence in sorted(chosen):
        words = wording.clean(sentence.text)
        parts.append(words if sentence.speaker == voice else f"{sentence.speaker}: {words}")
        voice = sentence.speaker
    return " ".join(parts)


def _tells(sentence: Sentence) -> bool:
    return bool(figures_in(sentence.text)) or any(t.pos == "PROPN" for t in sentence.tokens)


def _content(tokens: tuple[Token, ...]) -> list[str]:
    return [
        t.lemma
        for t in tokens
        if t.pos in ("NOUN", "PROPN", "VERB", "ADJ", "NUM") and t.lemma not in COMMON and len(t.lemma) > 2
    ]


def _stems(text: str) -> frozenset[str]:
    return frozenset(re.findall(r"[a-z0-9]{3,}", in_digits(text).lower()))


def _held(word: str, said: frozenset[str]) -> bool:
    if word in said:
        return True
    root = word[: max(4, len(word) - 2)]
    return any((other.startswith(root) and len(word) > 4) or fuzz.ratio(word, other) >= MATCH for other in said)


def _fits(talk: Scene, question: str, turn: int) -> bool:
    """Whether the passage holds the kind of thing asked for: a number, a time, a person, a reason."""
    lower = question.lower()
    text = talk.text(turn)
    if re.search(
        r"\bhow (?:many|much|long|far|old|big|late|often)\b|\bwhat (?:does|did|will|is) .*(?:cost|price|fee)\b", lower
    ):
        return bool(figures_in(text))
    if re.search(r"\bwhen\b|\bwhat (?:day|time|date)\b", lower):
        return bool(
            re.search(
                r"\b(?:\d|mon|tues|wednes|thurs|fri|satur|sun)|day\b|month|week|tomorrow|o'clock|january|february|march|april|june|july|august|september|october|november|december",
                text.lower(),
            )
        )
    if re.search(r"\bwhy\b", lower):
        return bool(re.search(r"\b(?:because|so|since|that's why|as)\b", text.lower()))
    if re.search(r"\bwho\b", lower):
        return bool(re.search(r"\bi(?:'ll| will|'m| can)\b|\bme\b", text.lower()) or talk.roster.find(text))
    return False
