"""Questions put to the record: an answer made from passages, or the word that there is none."""

import re
from dataclasses import dataclass

import numpy as np
from rapidfuzz import fuzz

from nuntius.core.language.en import cues
from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.en.parse import parse_text
from nuntius.core.language.sentence import Token
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes import wording
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.line import MeetingFacts, Passage
from nuntius.core.minutes.scene import Scene, scene
from nuntius.core.transcript.transcript import Transcript

ENOUGH = 0.60  # score of the best passage below which the record is said to hold nothing
CLOSE = 0.86  # share of the best score that a second passage needs
MOST = 3  # passages of an answer
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
class _Passage:
    """A turn or an exchange of question and answer that may hold the answer."""

    turns: tuple[int, ...]
    text: str


def inquire(transcript: Transcript, facts: MeetingFacts, question: str) -> Reply:
    """Answers `question` from the record; NOTHING where it does not hold one."""
    talk = scene(transcript, facts)
    passages = _passages(talk)
    if not passages or not question.strip():
        return NOTHING
    asked = parse_text(question)
    near = vectors([p.text for p in passages]) @ vectors([question])[0]
    scores = np.array([_score(talk, asked, question, p, float(v)) for p, v in zip(passages, near, strict=True)])
    order = np.argsort(-scores, kind="stable")
    best = float(scores[order[0]])
    if best < ENOUGH:
        return NOTHING
    turns: list[int] = []
    for at in order[:MOST]:
        if scores[at] >= CLOSE * best:
            turns += [t for t in passages[at].turns if t not in turns]
    turns = sorted(turns)[:6]
    text = " ".join(wording.clean(talk.text(t)) for t in turns if not all(s.is_question for s in talk.by_turn[t]))
    return Reply(True, text or talk.text(turns[0]), tuple(talk.whole(t) for t in turns))


def _passages(talk: Scene) -> list[_Passage]:
    """Every turn that says something; one that answers a question carries the question with it."""
    made = []
    for number, turn in enumerate(talk.transcript.turns):
        if talk.backchannel[number] and not _answers(talk, number):
            continue
        if _answers(talk, number):
            made.append(_Passage((number - 1, number), f"{talk.by_turn[number - 1][-1].text} {turn.text}"))
        else:
            made.append(_Passage((number,), turn.text))
    return made


def _answers(talk: Scene, number: int) -> bool:
    if not number or not talk.by_turn[number - 1] or not talk.by_turn[number - 1][-1].is_question:
        return False
    return talk.speaker(number - 1) != talk.speaker(number) and not cues.UNKNOWN.search(talk.text(number))


def _score(talk: Scene, asked: tuple[Token, ...], question: str, passage: _Passage, near: float) -> float:
    """Meaning, shared words and the kind of answer that the question wants."""
    words = _content(asked)
    said = _stems(" ".join([passage.text, *(talk.speaker(t) for t in passage.turns)]))
    around = said | _stems(
        " ".join(
            talk.text(t)
            for t in range(max(0, passage.turns[0] - 2), min(len(talk.transcript.turns), passage.turns[-1] + 2))
        )
    )
    share = sum(_held(w, said) for w in words) / max(1, len(words))
    wide = sum(_held(w, around) for w in words) / max(1, len(words))
    missing = sum(not _held(w, around) for w in words) / max(1, len(words))
    return near + 0.35 * share + 0.25 * wide + 0.12 * _fits(talk, question, passage) - 0.30 * missing


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


def _fits(talk: Scene, question: str, passage: _Passage) -> bool:
    """Whether the passage holds the kind of thing asked for: a number, a time, a person, a reason."""
    lower = question.lower()
    text = " ".join(talk.text(t) for t in passage.turns)
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
