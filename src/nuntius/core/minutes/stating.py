"""Which of the sentences around the heart of a decision states it: behind a bare `Agreed.` stands what was agreed.

A forest of trees says of each how near it comes to what a secretary would write. `training/train.py` makes it from the
annotated talk of this repository, in which every decision is written out.
"""

import re
from collections.abc import Collection, Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language.en import cues, rulings
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.language.vectors import Vectors
from nuntius.core.minutes import wording
from nuntius.core.minutes.clearer import is_untold
from nuntius.core.minutes.forest import Forest, shipped
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.settling import tells

AROUND = 3  # turns before and after the heart in which it may stand
MARGIN = 0.08  # cosine by which another sentence has to come nearer; fitted on talk that was not learnt from
MARGIN_OF_HEART = 0.1  # the same where the heart itself would be written down
LEAST_STATING = 2  # words
STATING_SIGNS = (
    "likelihood", "share of the highest", "heart", "turns apart", "before", "after", "same turn", "rests on", "same voice",
    "words", "few words", "many words", "tells", "untold", "like the heart", "like all", "pronoun", "I", "you", "we", "figure",
    "proposal", "rule for all", "nouns", "verb", "question", "words of the heart",
)  # fmt: skip
_PRONOUN = re.compile(r"\b(?:it|that|this|them|those|one)\b")
_VOICES = {
    "I": re.compile(r"\b(?:i|my|me)\b"),
    "you": re.compile(r"\byou\b"),
    "we": re.compile(r"\bwe\b"),
}


def better_stated(
    scene: Scene, heart: Sentence, chosen: Sentence, turns: Collection[int], likely: NDArray[np.float32]
) -> Sentence | None:
    """The sentence that states a decision much better than `chosen`; None where none does.

    `turns` are those that the decision rests on, `likely` how likely each sentence of the talk is the heart of one.
    """
    near = may_state(scene, heart, turns)
    if chosen not in near or len(near) < 2:
        return None
    nearness = stating_judge().of(stating_signs(scene, heart, near, turns, likely))
    best = near[int(np.argmax(nearness))]
    margin = MARGIN_OF_HEART if chosen is heart else MARGIN
    nearer = float(nearness.max()) - nearness[near.index(chosen)] > margin
    worded = len(wording.resolution(best.text).split()) >= LEAST_STATING and not _was(best)
    return best if nearer and worded and _on_its_matter(scene, heart, best) else None


def _was(sentence: Sentence) -> bool:
    return any(t.dep == "ROOT" and t.tag == "VBD" for t in sentence.tokens)


def _on_its_matter(scene: Scene, heart: Sentence, other: Sentence) -> bool:
    """Whether a sentence names something, and something that the heart names where that names anything."""
    named, own = _named(scene, other), _named(scene, heart)
    return other is heart or (bool(named) and (not own or bool(named & own)))


def _named(scene: Scene, sentence: Sentence) -> set[str]:
    """Things, figures and days."""
    days = {str(each.day) for each in said_dates(sentence.text, scene.facts.day)}
    return days | {t.lemma.lower() for t in sentence.tokens if t.pos in ("NOUN", "PROPN", "NUM")}


def may_state(scene: Scene, heart: Sentence, turns: Collection[int]) -> list[Sentence]:
    """The heart of a decision, and the sentences around it that can be written down as what was decided."""
    first = max(0, min(min(turns), heart.turn - AROUND))
    last = min(len(scene.by_turn) - 1, max(max(turns), heart.turn + AROUND))
    near = (s for turn in range(first, last + 1) for s in scene.by_turn[turn])
    return [s for s in near if s is heart or len(wording.resolution(s.text).split()) >= LEAST_STATING]


def stating_signs(
    scene: Scene, heart: Sentence, near: Sequence[Sentence], turns: Collection[int], likely: NDArray[np.float32]
) -> NDArray[np.float32]:
    """One row of `STATING_SIGNS` for each sentence of `near`, shape (sentences, signs)."""
    numbers = [scene.index[s.turn, s.first] for s in near]
    vectors: Vectors = scene.vectors[numbers]
    own = scene.vectors[scene.index[heart.turn, heart.first]]
    highest = max(float(likely[numbers].max()), 0.05)
    rows = [
        {
            "likelihood": likely[number],
            "share of the highest": likely[number] / highest,
            "heart": s is heart,
            "turns apart": (s.turn - heart.turn) / 6,
            "before": s.turn < heart.turn,
            "after": s.turn > heart.turn,
            "same turn": s.turn == heart.turn,
            "rests on": s.turn in turns,
            "same voice": s.speaker == heart.speaker,
            "like the heart": vector @ own,
            "like all": vector @ vectors.mean(axis=0),
            "words of the heart": len(heart.text.split()) / 10,
        }
        | _of_words(scene, s)
        for s, number, vector in zip(near, numbers, vectors, strict=True)
    ]
    return np.array([[float(row[name]) for name in STATING_SIGNS] for row in rows], np.float32)


def _of_words(scene: Scene, sentence: Sentence) -> dict[str, float]:
    """Signs that the words of a sentence give by themselves."""
    text = wording.resolution(sentence.text)
    words, lower = len(text.split()), text.lower()
    return {
        "words": min(30, words) / 30,
        "few words": words < 4,
        "many words": words > 18,
        "tells": tells(sentence),
        "untold": is_untold(scene, sentence, text),
        "pronoun": bool(_PRONOUN.search(lower)),
        **{name: bool(voice.search(lower)) for name, voice in _VOICES.items()},
        "figure": bool(re.search(r"\d", text)),
        "proposal": bool(cues.PROPOSAL.search(sentence.lower)),
        "rule for all": bool(rulings.NORM.search(sentence.lower)),
        "nouns": sum(t.pos in ("NOUN", "PROPN") for t in sentence.tokens) / 5,
        "verb": any(t.pos == "VERB" for t in sentence.tokens),
        "question": sentence.is_question,
    }


@cache
def stating_judge() -> Forest:
    """The forest that ships with the application."""
    return shipped("stating.json", STATING_SIGNS)
