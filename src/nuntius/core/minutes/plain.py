"""Minutes of a talk in a language whose rules are not known: its subjects, and its most telling passages as they were said."""

import math
import re
from collections import Counter

import numpy as np

from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.chapters import novelty
from nuntius.core.minutes.key_points import REDUNDANT
from nuntius.core.minutes.line import Chapter, Length, Line, LineKind
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.segmentation import APART, APART_FINE

SHARE = {Length.SHORT: 0.08, Length.STANDARD: 0.20, Length.FULL: 0.30}  # words of key points per word of the talk
DETAIL = 0.45  # the same for a chapter that is wanted in more detail
REMARK = (
    "This talk does not seem to be in English. Its minutes hold the subjects and the most telling passages, word for word; "
    "decisions, actions and questions are not looked for."
)
MOST_CHAPTERS, MOST_FINE = 9, 18
STANDS_OUT = 0.5  # standard deviations above the mean from which a change of vocabulary opens a chapter
SHORTEST, LONGEST = 5, 45  # words of a passage
TITLE_LETTERS = 4  # of a word that may stand in a title


def plain_chapters(scene: Scene, fine: bool = False) -> tuple[Chapter, ...]:
    """Stretches between the strongest changes of what is spoken of; between more of them where finer ones are asked for."""
    changes = np.array(novelty(scene))
    count = len(changes)
    most, apart = (MOST_FINE, APART_FINE) if fine else (MOST_CHAPTERS, APART)
    stands_out = 0.0 if fine else STANDS_OUT * changes.std()
    apart = max(apart, count // most)
    chosen: list[int] = []
    for turn in np.argsort(-changes, kind="stable"):
        if changes[turn] < changes.mean() + stands_out or len(chosen) == most - 1:
            break
        if all(abs(int(turn) - other) >= apart for other in (0, count, *chosen)):
            chosen.append(int(turn))
    boundaries = [0, *sorted(chosen)]
    ends = [*(boundary - 1 for boundary in boundaries[1:]), count - 1]
    return tuple(map(Chapter, _titles(scene, boundaries, ends), boundaries, ends))


def plain_key_points(
    scene: Scene, chapters: tuple[Chapter, ...], length: Length, detailed: frozenset[int] = frozenset()
) -> list[Line]:
    """The sentences of each chapter that stand nearest to all that is said in it."""
    lines: list[Line] = []
    for number, chapter in enumerate(chapters):
        inside = [(i, s) for i, s in enumerate(scene.sentences) if chapter.first <= s.turn <= chapter.last and _may(s)]
        words = sum(len(scene.transcript.turns[t].words) for t in range(chapter.first, chapter.last + 1))
        budget = words * (DETAIL if number in detailed else SHARE[length])
        if inside:
            lines += _nearest(scene, inside, budget)
    return lines


def _nearest(scene: Scene, inside: list[tuple[int, Sentence]], budget: float) -> list[Line]:
    vectors = scene.vectors[[i for i, _ in inside]]
    order = np.argsort(-(vectors @ vectors.mean(0)), kind="stable")
    chosen: list[int] = []
    spent = 0
    for at in map(int, order):
        size = len(inside[at][1].text.split())
        if chosen and (spent + size > budget or any(float(vectors[at] @ vectors[o]) > REDUNDANT for o in chosen)):
            continue
        chosen.append(at)
        spent += size
    return [
        Line(LineKind.KEY_POINT, inside[at][1].text, (passage(inside[at][1]),), why="near the middle of its chapter")
        for at in sorted(chosen)
    ]


def _may(sentence: Sentence) -> bool:
    return not sentence.is_question and SHORTEST <= len(sentence.text.split()) <= LONGEST


def _titles(scene: Scene, boundaries: list[int], ends: list[int]) -> list[str]:
    """For each chapter the words that it uses often and the others do not, those in capitals before the rest."""
    bags = [_bag(scene, first, last) for first, last in zip(boundaries, ends, strict=True)]
    spread = Counter(word for bag in bags for word in {word.lower() for word in bag})
    titles = []
    for bag in bags:
        weights = {
            word: count * math.log(1 + len(bags) / spread[word.lower()]) * (2 if word[0].isupper() else 1)
            for word, count in bag.items()
        }
        ranked = sorted(weights, key=lambda word: (-weights[word], word))[:2]
        title = ", ".join(ranked) or "–"
        titles.append(title[0].upper() + title[1:])
    return titles


def _bag(scene: Scene, first: int, last: int) -> Counter[str]:
    """How often each longer word stands in a chapter, the first one of a sentence aside: its capital says nothing."""
    names = {part.lower() for name in (*scene.roster.people, *scene.transcript.speakers) for part in name.split()}
    words = (
        word
        for turn in range(first, last + 1)
        for sentence in scene.by_turn[turn]
        for word in re.findall(r"[^\W\d_]+", sentence.text)[1:]
    )
    return Counter(word for word in words if len(word) >= TITLE_LETTERS and word.lower() not in names)
