"""Which of the sentences around the heart of a decision states it: behind a bare `Agreed.` stands what was agreed. What the
words of a decision or of a task leave unsaid.

A forest of trees, by features, and a network that reads the talk around say of each how near it comes to what a secretary
would write. `training/train.py` and `training/stating.py` make them from the annotated talk of this repository, in which
every decision is written out.
"""

import re
from collections.abc import Collection, Mapping, Sequence
from functools import cache

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language.en import cues, rulings
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.language.vectors import Vectors
from nuntius.core.minutes import wording
from nuntius.core.minutes.context import stating, unsaid
from nuntius.core.minutes.coreference import is_explained, is_untold, telling, weighty
from nuntius.core.minutes.forest import Forest, shipped
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.settling import tells

AROUND = 3  # turns before and after the heart in which it may stand
MARGIN = 0.05  # cosine by which another sentence has to come nearer; fitted on talk that was not learnt from
A_LOGIT = 0.08  # cosine that a logit of the network stands for, as it was taught
SAYS_ENOUGH = 7  # words of a sentence that the trees choose, too, beside which no other is looked for
LEAST_READ = -6.0  # logit of a sentence that the network did not come to read
ADDS = 0.3  # logit from which the sentence stands beside a decision that tells what it leaves unsaid
ADDS_TO_FEW = 0.5  # the same beside a task of few words that name nothing
ADDS_TO_MANY = 2.0  # the same beside one that names something: in unseen talk 16 times nearer, 3 further
FEW = 4  # words that tell a task where they name something; beside more that name nothing what was added was wrong
LEAST_STATING = 2  # words
STATING_FEATURES = (
    "likelihood", "share of the highest", "heart", "turns apart", "before", "after", "same turn", "rests on", "same voice",
    "words", "few words", "many words", "tells", "untold", "like the heart", "like all", "pronoun", "I", "you", "we", "figure",
    "proposal", "rule for all", "nouns", "verb", "question", "words of the heart",
)  # fmt: skip
LEAST_ADDED = 2  # words that such a sentence has and the decision has not
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
    nearness = stating_classifier().of(stating_features(scene, heart, near, turns, likely))
    if near[int(np.argmax(nearness))] is chosen and len(chosen.text.split()) >= SAYS_ENOUGH:
        return None  # so that the network reads only where there is doubt
    read = stating(scene, heart, turns_around(scene, heart, turns))
    logits = [read.get(scene.index[s.turn, s.first], (LEAST_READ, 0.0))[0] for s in near]
    nearness = nearness + np.float32(A_LOGIT) * np.array(logits, np.float32)
    best = near[int(np.argmax(nearness))]
    nearer = float(nearness.max()) - nearness[near.index(chosen)] > MARGIN
    worded = len(wording.resolution(best.text).split()) >= LEAST_STATING and not _was(best)
    return best if nearer and worded and (best is heart or _names_something(scene, best)) else None


def left_unsaid(scene: Scene, heart: Sentence, turns: Collection[int], sentence: Sentence) -> Sentence | None:
    """What a decision told by `sentence` leaves unsaid: another sentence before it, where the network is sure of one."""
    read = stating(scene, heart, turns_around(scene, heart, turns))
    own = weighty(sentence)
    before = [s for s in telling(scene, sentence) if len(weighty(s) - own) >= LEAST_ADDED]
    return _likeliest(scene, before, {number: adds for number, (_, adds) in read.items()}, ADDS)


def left_unsaid_by_task(scene: Scene, sentence: Sentence, text: str) -> Sentence | None:
    """The same of a task whose words were made from a sentence."""
    untold, few = is_untold(scene, sentence, text), len(text.split()) <= FEW
    before = telling(scene, sentence) if untold == few and not is_explained(text) else []
    enough = ADDS_TO_FEW if few else ADDS_TO_MANY
    return _likeliest(scene, before, unsaid(scene, sentence), enough) if before else None


def _likeliest(
    scene: Scene, sentences: Sequence[Sentence], logits: Mapping[int, float], enough: float
) -> Sentence | None:
    """The one of which a network is surest, where that is enough; what it did not read is none."""
    rated = [(logits.get(scene.index[s.turn, s.first], LEAST_READ), s) for s in sentences]
    logit, best = max(rated, key=lambda pair: pair[0], default=(LEAST_READ, None))
    return best if logit > enough else None


def surely_adds(scene: Scene, sentence: Sentence, about: Sentence) -> bool:
    """Whether a sentence belongs beside the words of a task that name something themselves."""
    return unsaid(scene, sentence).get(scene.index[about.turn, about.first], LEAST_READ) > ADDS_TO_MANY


def _was(sentence: Sentence) -> bool:
    return any(t.dep == "ROOT" and t.tag == "VBD" for t in sentence.tokens)


def _names_something(scene: Scene, sentence: Sentence) -> bool:
    """A thing, a figure or a day."""
    named = any(t.pos in ("NOUN", "PROPN", "NUM") for t in sentence.tokens)
    return named or bool(said_dates(sentence.text, scene.facts.day))


def turns_around(scene: Scene, heart: Sentence, turns: Collection[int]) -> range:
    """The turns in which what states a decision may stand; `turns` are those that it rests on."""
    first = max(0, min(min(turns), heart.turn - AROUND))
    return range(first, min(len(scene.by_turn) - 1, max(max(turns), heart.turn + AROUND)) + 1)


def may_state(scene: Scene, heart: Sentence, turns: Collection[int]) -> list[Sentence]:
    """The heart of a decision, and the sentences around it that can be written down as what was decided."""
    near = (s for turn in turns_around(scene, heart, turns) for s in scene.by_turn[turn])
    return [s for s in near if s is heart or len(wording.resolution(s.text).split()) >= LEAST_STATING]


def stating_features(
    scene: Scene, heart: Sentence, near: Sequence[Sentence], turns: Collection[int], likely: NDArray[np.float32]
) -> NDArray[np.float32]:
    """One row of `STATING_FEATURES` for each sentence of `near`, shape (sentences, features)."""
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
    return np.array([[float(row[name]) for name in STATING_FEATURES] for row in rows], np.float32)


def _of_words(scene: Scene, sentence: Sentence) -> dict[str, float]:
    """Features that the words of a sentence give by themselves."""
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
def stating_classifier() -> Forest:
    """The forest that ships with the application."""
    return shipped("stating.json", STATING_FEATURES)
