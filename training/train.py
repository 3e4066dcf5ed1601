"""Makes the classifiers' weights from the annotated talk of this folder.

python training/train.py
"""

import json
import sys
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np
from numpy.typing import NDArray
from sklearn.ensemble import GradientBoostingRegressor, RandomForestClassifier
from sklearn.linear_model import LogisticRegression

import annotated
from annotated import MEETINGS, Annotated, captions, gold, meetings
from nuntius.core.formats.reading import read_transcript
from nuntius.core.inquiry.asked import Asked, asked
from nuntius.core.inquiry.passages import found_features, passage_features
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes import classifiers, wording
from nuntius.core.minutes.actions import find_actions
from nuntius.core.minutes.chapters import BOUNDARY_FEATURES, boundary_features
from nuntius.core.minutes.decisions import settled
from nuntius.core.minutes.features import ALL
from nuntius.core.minutes.forest import LEAF
from nuntius.core.minutes.line import MeetingFacts
from nuntius.core.minutes.scene import Scene, scene
from nuntius.core.minutes.settling import MEETS_AGAIN, Ruling
from nuntius.core.minutes.stating import STATING_FEATURES, may_state, stating_features
from nuntius.core.naming import renamed, sure_names

EXCHANGES = MEETINGS.parent / "exchanges.txt"
TARGET = Path(classifiers.__file__).with_name("classifiers.json")
SEGMENTATION = TARGET.with_name("segmentation.json")
STATING = TARGET.with_name("stating.json")
STRENGTH = {"action": 0.1, "decision": 0.1, "question": 0.1, "worth": 0.03}  # inverse of the regularisation
STATING_FORESTS, STATING_TREES, STATING_RATE = 4, 80, 0.08  # that say which sentence states a decision
TREES, LEAST_LEAF = 150, 4  # of the forest that classifiers boundaries; turns in each of its leaves
PASSAGE_STRENGTH = 0.3
FOUND_STRENGTH = 1.0
HEART = 3  # words from which a sentence may be the heart of a decision or an action
ROUNDS = 3  # times that the sentence which carries a passage is chosen again
CARRIES = 0.6  # share of the best sentence's likelihood that another of its turn needs to count as well
NAMES = {"A": "Ann Lowe", "B": "Ben Hart", "C": "Cleo Dunn", "D": "Joan Pike"}


@dataclass(frozen=True)
class Examples:
    """Sentences of one talk: what is looked at, which turn each is of, what is right for each kind (-1: left out)."""

    name: str
    inputs: NDArray[np.float32]
    turns: NDArray[np.int64]
    labels: dict[str, NDArray[np.int64]]
    talk: Scene
    cues: dict[str, list[int]] = field(default_factory=dict)  # the turns (cues) that are right of each kind
    decisions: tuple[tuple[str, frozenset[int]], ...] = ()  # what is written down of each, with its turns (cues)
    tasks: tuple[tuple[str, frozenset[int]], ...] = ()  # the same
    inquiries: tuple[tuple[str, list[int]], ...] = ()  # questions with the cues that answer them
    boundaries: tuple[NDArray[np.float32], NDArray[np.int64]] | None = (
        None  # of each turn: what is looked at, what is right
    )


@dataclass(frozen=True)
class Inquiry:
    """A question put to a talk: features of each turn, the turns (by cue) that answer it, and how it is looked at."""

    asked: Asked
    features: NDArray[np.float32]
    right: NDArray[np.int64]


def of_inquiries(each: Examples, made: dict[str, classifiers.Classifier]) -> list[Inquiry]:
    """The questions put to a talk as they are looked at by the classifiers of its sentences."""
    talk = each.talk
    likely = classifiers.weighed(talk, made)
    numbers = [int(turn.cue or 0) for turn in talk.transcript.turns]
    put = [(asked(talk, question), cues) for question, cues in each.inquiries]
    return [
        Inquiry(a, passage_features(talk, a, likely), np.isin(numbers, sorted(cues)).astype(int)) for a, cues in put
    ]


def of_meeting(meeting: Annotated) -> Examples:
    """An annotated meeting as examples."""
    facts = MeetingFacts(meeting.day, tuple(meeting.people))
    transcript = read_transcript(captions(meeting).encode())
    talk = scene(renamed(transcript, sure_names(transcript, facts.people)), facts)
    made = gold(meeting)
    cues = {
        kind: {cue for each in made[kind] for cue in each["cues"]} for kind in ("actions", "decisions", "key_points")
    }
    worth = cues["key_points"] | cues["actions"] | cues["decisions"] | {each["cue"] for each in made["figures"]}
    asked = {each["cue"] for each in made["questions"]}
    wanted = {"action": cues["actions"], "decision": cues["decisions"], "question": asked, "worth": worth}
    first = [cue for cue, _ in meeting.chapters if cue > 1]
    right = np.isin([int(turn.cue or 0) for turn in talk.transcript.turns], first).astype(int)
    put = tuple((each["ask"], each["cues"]) for each in made["inquiries"])
    examples = _examples(meeting.name, talk, wanted)
    fine = meeting.head.get("chapters") == "fine"  # finer than minutes want: nothing is learnt from where these begin
    decided = tuple((each["text"], frozenset(each["cues"])) for each in made["decisions"])
    tasks = tuple((each["task"], frozenset(each["cues"])) for each in made["actions"])
    boundaries = None if fine else (boundary_features(talk), right)
    return replace(examples, boundaries=boundaries, inquiries=put, decisions=decided, tasks=tasks)


def of_exchanges(together: int = 10) -> list[Examples]:
    """The short exchanges, `together` of them in a talk, as examples of actions and decisions."""
    blocks = [block.strip().splitlines() for block in EXCHANGES.read_text().split("--\n")]
    made = []
    for first in range(0, len(blocks), together):
        said = [annotated.utterance(row) for block in blocks[first : first + together] for row in block]
        named = tuple(replace(each, speaker=NAMES[each.speaker]) for each in said)
        meeting = Annotated(f"exchanges {first}", {}, named, (), {})
        wanted = {"action": set(meeting.cues("a")), "decision": set(meeting.cues("d"))}
        transcript = read_transcript(captions(meeting).encode())
        made.append(_examples(meeting.name, scene(transcript, MeetingFacts(date(2026, 5, 6))), wanted))
    return made


def _examples(name: str, talk: Scene, wanted: dict[str, set[int]]) -> Examples:
    cue = np.array([int(talk.transcript.turns[s.turn].cue or 0) for s in talk.sentences])
    labels = {}
    for kind, cues in wanted.items():
        right = np.isin(cue, sorted(cues)).astype(int)
        left_out = [
            not s.is_question if kind == "question" else kind != "worth" and right[i] and len(s.text.split()) < HEART
            for i, s in enumerate(talk.sentences)
        ]
        labels[kind] = np.where(left_out, -1, right)
    return Examples(
        name, classifiers.inputs(talk), cue, labels, talk, {kind: sorted(cues) for kind, cues in wanted.items()}
    )


def fit(examples: Sequence[Examples], kind: str) -> classifiers.Classifier:
    """A classifier of one kind. Of a turn that is right only the sentences that carry it count as right."""
    parts = [each for each in examples if kind in each.labels]
    looked_at = np.vstack([each.inputs for each in parts])
    labels = np.concatenate([each.labels[kind] for each in parts])
    turns = np.concatenate([each.turns + 10_000 * i for i, each in enumerate(parts)])
    looked_at, labels, turns = looked_at[labels >= 0], labels[labels >= 0], turns[labels >= 0]
    right = labels
    model = LogisticRegression(C=STRENGTH[kind], max_iter=3000)
    for _ in range(ROUNDS):
        model.fit(looked_at, right)
        likely = model.predict_proba(looked_at)[:, 1]
        best = {turn: likely[turns == turn].max() for turn in np.unique(turns)}
        right = labels * (likely >= CARRIES * np.array([best[turn] for turn in turns]))
    model.fit(looked_at, right)
    return classifiers.Classifier(float(model.intercept_[0]), model.coef_[0].astype(np.float32))


def fit_segmentation(examples: Sequence[Examples]) -> list[dict[str, Any]]:
    """The trees that classifier what opens a chapter, as they are kept."""
    parts = [each.boundaries for each in examples if each.boundaries is not None]
    model = RandomForestClassifier(TREES, min_samples_leaf=LEAST_LEAF, random_state=0)
    model.fit(np.vstack([features for features, _ in parts]), np.concatenate([right for _, right in parts]))
    return [
        _kept(each.tree_, [value[0][1] / value[0].sum() for value in each.tree_.value]) for each in model.estimators_
    ]


def _kept(tree: Any, leaves: Sequence[float]) -> dict[str, Any]:
    """A tree with these values at its nodes."""
    return {
        "sign": np.maximum(tree.feature, LEAF).tolist(),
        "most": [round(float(most), 4) for most in tree.threshold],
        "left": tree.children_left.tolist(),
        "right": tree.children_right.tolist(),
        "likely": [round(float(value), 3) for value in leaves],
    }


def of_decisions(
    each: Examples, made: dict[str, classifiers.Classifier]
) -> list[tuple[NDArray[np.float32], NDArray[np.float32]]]:
    """For each decision found that is a right one: features of the sentences that may state it, and how near each comes to
    what is written down of it (cosine, less their mean)."""
    talk, likely = each.talk, classifiers.weighed(each.talk, made)
    pairs = []
    for ruling, turns, text, _ in rightly_settled(each, likely):
        near = may_state(talk, ruling.sentence, turns)
        if len(near) > 1:
            alike = vectors([wording.resolution(s.text) or s.text for s in near]) @ vectors([text])[0]
            looked_at = stating_features(talk, ruling.sentence, near, turns, likely["decision"])
            pairs.append((looked_at, np.asarray(alike - alike.mean(), np.float32)))
    return pairs


def rightly_settled(
    each: Examples, likely: dict[str, classifiers.Likely]
) -> Iterator[tuple[Ruling, set[int], str, frozenset[int]]]:
    """Decisions found that are right ones: the ruling, the turns it rests on, what is written down, and its turns (cues).

    `likely` says of each sentence of the talk how likely it carries what kind.
    """
    talk = each.talk
    for ruling in settled(talk, likely["decision"], find_actions(talk, likely["action"])):
        turns = {passage.turn for passage in ruling.evidence}
        cues = {int(talk.transcript.turns[turn].cue or 0) for turn in turns}
        text, right = max(each.decisions, key=lambda pair: len(cues & pair[1]), default=("", frozenset()))
        if cues & right and ruling.why != MEETS_AGAIN:
            yield ruling, turns, text, right


def fit_stating(pairs: Sequence[tuple[NDArray[np.float32], NDArray[np.float32]]]) -> list[dict[str, Any]]:
    """The trees that say which sentence states a decision, as they are kept: their mean is what boosting adds up, and
    the mean of several forests, since one leans on the seed."""
    looked_at, near = np.vstack([features for features, _ in pairs]), np.concatenate([near for _, near in pairs])
    kept = []
    for seed in range(STATING_FORESTS):
        model = GradientBoostingRegressor(
            n_estimators=STATING_TREES,
            learning_rate=STATING_RATE,
            max_depth=4,
            min_samples_leaf=20,
            subsample=0.5,
            max_features=0.5,
            random_state=seed,
        ).fit(looked_at, near)
        scale = STATING_TREES * STATING_RATE
        kept += [
            _kept(each.tree_, [value[0][0] * scale for value in each.tree_.value]) for each in model.estimators_[:, 0]
        ]
    return kept


def fit_passages(inquiries: Sequence[Inquiry]) -> classifiers.Classifier:
    """The classifier of which turn answers a question, from the questions that the record can answer."""
    put = [each for each in inquiries if each.right.any()]
    model = LogisticRegression(C=PASSAGE_STRENGTH, max_iter=3000)
    model.fit(np.vstack([each.features for each in put]), np.concatenate([each.right for each in put]))
    return classifiers.Classifier(float(model.intercept_[0]), model.coef_[0].astype(np.float32))


def fit_found(put: Sequence[Inquiry], passage: classifiers.Classifier) -> classifiers.Classifier:
    """The classifier of whether the record answers a question at all, from what the passages' classifier makes of it."""
    looked_at = [found_features(each.asked, each.features, passage.of(each.features)) for each in put]
    model = LogisticRegression(C=FOUND_STRENGTH, class_weight="balanced", max_iter=3000)
    model.fit(np.vstack(looked_at), [int(each.right.any()) for each in put])
    return classifiers.Classifier(float(model.intercept_[0]), model.coef_[0].astype(np.float32))


def all_classifiers(examples: Sequence[Examples]) -> dict[str, classifiers.Classifier]:
    """The classifiers of every kind from these examples."""
    made = {kind: fit(examples, kind) for kind in classifiers.KINDS}
    inquiries = [inquiry for each in examples for inquiry in of_inquiries(each, made)]
    made["passage"] = fit_passages(inquiries)
    return made | {"found": fit_found(inquiries, made["passage"])}


def main() -> None:
    """Writes the weights of all kinds, rounded so that they are the same on every machine."""
    examples = [*map(of_meeting, meetings()), *of_exchanges()]
    kept: dict[str, Any] = {}
    made = all_classifiers(examples)
    for kind, classifier in made.items():
        kept[kind] = {"bias": round(classifier.bias, 3), "weights": [round(float(w), 3) for w in classifier.weights]}
    TARGET.write_text(json.dumps({"features": ALL, "classifiers": kept}) + "\n")
    SEGMENTATION.write_text(json.dumps({"features": BOUNDARY_FEATURES, "trees": fit_segmentation(examples)}) + "\n")
    stated = [pair for each in examples for pair in of_decisions(each, made)]
    STATING.write_text(json.dumps({"features": STATING_FEATURES, "trees": fit_stating(stated)}) + "\n")
    sys.stdout.write(f"{TARGET}: {sum(len(each.turns) for each in examples)} sentences\n")


if __name__ == "__main__":
    main()
