"""What the classifiers look at: features of each sentence, of its turn and of the turns beside it."""

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language.cache import Kept
from nuntius.core.language.en import errands
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.features import WORDS
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import figures
from nuntius.core.minutes.chapters import chair
from nuntius.core.minutes.scene import Scene

_kept: Kept[str, tuple[float, ...]] = Kept(12_000)  # sentences, some 10 MB; a meeting of four hours has 4,000
BESIDE = (  # features that are looked for in the turns beside a sentence, too
    "question", "request", "untaken", "intent", "decided", "proposal", "call", "assent", "refusal", "dismissed",
    "backchannel", "light", "vote", "promise", "taking", "unknown", "figure",
)  # fmt: skip
NAMES = (
    *WORDS, "question", "date", "figure", "figures", "nouns", "named", "addressed", "past tense", "imperative",
    "length", "short", "long", "first", "last", "only", "backchannel", "chair", "gerund", "verbless", "echoes", "echoed",
    "answers", "brief after",
)  # fmt: skip
ALL = (*NAMES, *(f"{where} {name}" for where in ("turn", "before", "after", "later") for name in BESIDE))


def _read(texts: list[str]) -> list[tuple[float, ...]]:
    """What the words alone of each text tell: the patterns of `WORDS`, then how many figures it names."""
    lowered = [text.lower().replace("’", "'") for text in texts]
    return [
        (*(float(bool(p.search(lower))) for p in WORDS.values()), float(figures.count(text)))
        for text, lower in zip(texts, lowered, strict=True)
    ]


def own(scene: Scene, sentence: Sentence, leader: str, read: tuple[float, ...]) -> dict[str, float]:
    """Features of one sentence by itself, between 0 and 1; `read` is what its words alone tell."""
    words = sentence.text.split()
    turn = scene.by_turn[sentence.turn]
    tags = [token.tag for token in sentence.tokens]
    roots = [token for token in sentence.tokens if token.dep == "ROOT"]
    found = read[-1]
    made = dict(zip(WORDS, read[:-1], strict=True))
    return (
        made
        | {
            "question": float(sentence.is_question),
            "date": float(bool(said_dates(sentence.text, scene.facts.day))),
            "figure": float(found > 0),
            "figures": found / 3,
            "nouns": min(5, sum(t.pos in ("NOUN", "PROPN") for t in sentence.tokens)) / 5,
            "named": float(bool(scene.roster.find(sentence.text))),
            "addressed": float(scene.roster.addressee(sentence.text) is not None),
            "past tense": float(any(t.tag == "VBD" for t in roots) or tags.count("VBD") > 1),
            "imperative": float(is_imperative(sentence)),
            "gerund": float("VBG" in tags),
            "length": min(1.0, len(words) / 30),
            "short": float(len(words) <= 3),
            "long": float(len(words) >= 12),
            "first": float(sentence is turn[0]),
            "last": float(sentence is turn[-1]),
            "only": float(len(turn) == 1),
            "backchannel": float(scene.backchannel[sentence.turn]),
            "chair": float(sentence.speaker == leader),
            "verbless": float(not any(t.pos in ("VERB", "AUX") for t in sentence.tokens) and len(words) > 1),
        }
        | _between(scene, sentence)
    )


def _between(scene: Scene, sentence: Sentence) -> dict[str, float]:
    """Features of how other voices' words beside a sentence bear on it."""
    said = scene.content[sentence.turn, sentence.first]
    before = [t for t in scene.preceding(sentence.turn, 3) if scene.speaker(t) != sentence.speaker]
    after = [t for t in scene.following(sentence.turn, 3) if scene.speaker(t) != sentence.speaker]
    first = after[0] if after else None
    brief = first is not None and len(scene.transcript.turns[first].words) <= 4
    asked = next(iter(scene.preceding(sentence.turn, 1)), None)
    return {
        "echoes": _shared(said, scene.turn_content, before),
        "echoed": _shared(said, scene.turn_content, after),
        "answers": float(asked is not None and any(s.is_question for s in scene.by_turn[asked])),
        "brief after": float(brief and first is not None and not any(s.is_question for s in scene.by_turn[first])),
    }


def _shared(said: frozenset[str], turns: tuple[frozenset[str], ...], where: list[int]) -> float:
    """The largest share of a sentence's content words that one of the turns holds."""
    return max((len(said & turns[t]) / len(said) for t in where), default=0.0) if said else 0.0


SAME_IN_PAST = frozenset("put cut set let shut spread read hit split".split())


def is_imperative(sentence: Sentence) -> bool:
    """Whether a sentence tells somebody to do something: a bare verb at its head, behind a name at most."""
    root = next((i for i, t in enumerate(sentence.tokens) if t.dep == "ROOT"), None)
    if root is None or sentence.is_question:
        return False
    called = {i for i, t in enumerate(sentence.tokens[:-1]) if t.pos == "PROPN" and sentence.tokens[i + 1].text == ","}
    skipped = ("PUNCT", "INTJ", "PROPN", "CCONJ", "ADV", "SPACE")
    before = [t for t in sentence.tokens[:root] if t.pos not in skipped]
    governed = {t.dep for i, t in enumerate(sentence.tokens) if t.head == root and i not in called}
    verb = sentence.tokens[root]
    past = called or verb.text.lower() in SAME_IN_PAST  # for which a parser takes them behind a name
    bare = ("VB", "VBP", "VBD") if past else ("VB",)
    return (
        verb.tag in bare
        and verb.lemma == verb.text.lower()
        and not before
        and not governed & {"nsubj", "nsubjpass", "aux", "expl"}
    )


def tells_to(sentence: Sentence) -> bool:
    """`is_imperative`, or what a parser may miss of it: `Order one.`"""
    return is_imperative(sentence) or bool(errands.TELLS.match(sentence.lower))


def features(scene: Scene) -> NDArray[np.float32]:
    """One row of `ALL` for each sentence, shape (sentences, features)."""
    leader = chair(scene)
    read = _kept([sentence.text for sentence in scene.sentences], _read)
    alone = [own(scene, s, leader, r) for s, r in zip(scene.sentences, read, strict=True)]
    rows: list[list[dict[str, float]]] = [[] for _ in scene.by_turn]
    for sentence, found in zip(scene.sentences, alone, strict=True):
        rows[sentence.turn].append(found)
    turns = [{name: max((row[name] for row in turn), default=0.0) for name in BESIDE} for turn in rows]
    made = np.zeros((len(alone), len(ALL)), np.float32)
    nothing = dict.fromkeys(BESIDE, 0.0)
    for number, (sentence, found) in enumerate(zip(scene.sentences, alone, strict=True)):
        beside = [
            turns[sentence.turn],
            *(turns[t] if 0 <= t < len(turns) else nothing for t in (sentence.turn + step for step in (-1, 1, 2))),
        ]
        made[number, : len(NAMES)] = [found[name] for name in NAMES]
        made[number, len(NAMES) :] = [where[name] for where in beside for name in BESIDE]
    return made
