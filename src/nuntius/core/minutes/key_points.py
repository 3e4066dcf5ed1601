"""Key points: what somebody who missed the meeting must know, spread over the chapters."""

import re
from bisect import bisect_left
from collections.abc import Iterator, Sequence

import numpy as np

from nuntius.core.language.en import cues
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import figures
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.coverage import find_coverage
from nuntius.core.minutes.line import Chapter, Coverage, Length, Line, LineKind
from nuntius.core.minutes.quoting import answered, with_question
from nuntius.core.minutes.scene import Scene, passage

WHOLE = {
    Length.SHORT: 0.16,
    Length.STANDARD: 0.32,
    Length.FULL: 0.45,
}  # words of the minutes, without questions, per word of the talk
LEAST_SHARE = 0.5  # of these that key points get, however much is told in other lines
DETAIL = 0.6  # the same for a chapter that is wanted in more detail
SHORTEST, LONGEST = 5, 45  # words of a sentence that may become a key point
REDUNDANT = 0.75  # cosine above which a sentence repeats a chosen one
WORTH = 4.0  # weight of the likelihood that a sentence is worth knowing
LEAST = 0.5  # likelihood below which it is left out, unless a person marked it
LEAST_IN_DETAIL = 0.15  # the same in a chapter that is wanted in more detail
LEAST_IN_GAP = 0.35  # the same in a stretch that no other line stands for
FOR_GAPS = 0.02  # words of the minutes per word of the talk that such stretches may add
MARKED = 6.0  # weight of a sentence that a person marked: more than what is likely to matter by itself


def find_key_points(
    scene: Scene,
    chapters: tuple[Chapter, ...],
    told: Sequence[Line],
    length: Length,
    likely: Likely,
    detailed: frozenset[int] = frozenset(),
) -> list[Line]:
    """Key points of every chapter, as many as the minutes have room for beside what is `told` in other lines.

    `likely` says for each sentence how likely it is worth knowing for somebody who was not there. `detailed` are
    the numbers of chapters that are wanted in more detail.
    """
    questions = [line for line in told if line.kind == LineKind.QUESTION]
    told = [line for line in told if line.kind != LineKind.QUESTION]
    held = frozenset((s.turn, s.first) for line in told for s in scene.inside(line.evidence))
    held |= {(s.turn, s.first) for line in questions for s in _bare_answers(scene, line)}
    lines: list[Line] = []
    for number, chapter in enumerate(chapters):
        words = sum(len(scene.transcript.turns[t].words) for t in range(chapter.first, chapter.last + 1))
        spent = sum(len(line.text.split()) for line in told if chapter.first <= max(line.turns) <= chapter.last)
        whole, least = (DETAIL, LEAST_IN_DETAIL) if number in detailed else (WHOLE[length], LEAST)
        budget = max(whole * words - spent, LEAST_SHARE * whole * words)
        lines += _of_chapter(scene, chapter, held, budget, likely, least)
    spent = sum(len(line.text.split()) for line in [*told, *lines])
    room = (WHOLE[length] + FOR_GAPS) * scene.transcript.word_count - spent
    return [*lines, *_in_gaps(scene, find_coverage(scene, (*told, *questions, *lines), chapters), held, room, likely)]


def _in_gaps(
    scene: Scene, coverage: Coverage, held: frozenset[tuple[int, int]], room: float, likely: Likely
) -> Iterator[Line]:
    """One key point from each stretch that no line stands for, the longest stretch first, as long as there is room."""
    starts = [turn.start for turn in scene.transcript.turns]
    for start, end in sorted(coverage.gaps, key=lambda gap: gap[0] - gap[1]):
        inside = [
            (WORTH * float(likely[i]) + _value(scene, s), -i)
            for turn in range(bisect_left(starts, start), bisect_left(starts, end))
            for i, s in zip(scene.numbers[turn], scene.by_turn[turn], strict=True)
            if likely[i] >= LEAST_IN_GAP and (s.turn, s.first) not in held and _may(scene, s)
        ]
        if inside and (size := len((best := scene.sentences[-max(inside)[1]]).text.split())) <= room:
            room -= size
            yield _line(scene, best)


def _bare_answers(scene: Scene, question: Line) -> Iterator[Sentence]:
    """The answers to a question that would only stand with it, as they do in its own line."""
    asked = {(s.turn, s.first) for s in scene.inside(question.evidence)}
    for sentence in scene.inside(question.answer.evidence) if question.answer else ():
        before = answered(scene, sentence) if _is_fragment(sentence) else None
        if before is not None and (before.turn, before.first) in asked:
            yield sentence


def _of_chapter(
    scene: Scene, chapter: Chapter, held: frozenset[tuple[int, int]], budget: float, likely: Likely, least: float
) -> list[Line]:
    inside = [
        (i, s)
        for i, s in enumerate(scene.sentences)
        if chapter.first <= s.turn <= chapter.last
        and (is_marked(scene, s) or (likely[i] >= least and (s.turn, s.first) not in held))
        and _may(scene, s)
    ]
    if not inside:
        return []
    vectors = scene.vectors[[i for i, _ in inside]]
    centre = vectors.mean(0)
    values = [
        WORTH * float(likely[i]) + _value(scene, s) + MARKED * is_marked(scene, s) + 1.2 * float(v @ centre)
        for (i, s), v in zip(inside, vectors, strict=True)
    ]
    chosen: list[int] = []
    spent = 0
    for at in np.argsort(-np.array(values), kind="stable"):
        size = len(inside[at][1].text.split())
        if chosen and spent + size > budget:
            continue
        if any(float(vectors[at] @ vectors[other]) > REDUNDANT for other in chosen):
            continue
        chosen.append(int(at))
        spent += size
        if spent >= budget:
            break
    return [_line(scene, inside[at][1]) for at in sorted(chosen)]


def _may(scene: Scene, sentence: Sentence) -> bool:
    size = len(sentence.text.split())
    if sentence.is_question or not SHORTEST <= size <= LONGEST * 2 or scene.backchannel[sentence.turn]:
        return False
    if sentence.text[:1].islower():  # the recogniser cut it off from what it begins with
        return False
    if cues.CONDITIONAL.search(sentence.lower) or (cues.LIGHT.search(sentence.lower) and size < 10):
        return False
    return any(t.pos in ("NOUN", "PROPN", "NUM") for t in sentence.tokens)


def _value(scene: Scene, sentence: Sentence) -> float:
    """What a sentence tells: figures, nouns, weighty words, and whether it answers a question."""
    words = sentence.text.split()
    nouns = sum(t.pos in ("NOUN", "PROPN") for t in sentence.tokens)
    value = (
        0.55 * figures.count(sentence.text)
        + 0.25 * min(nouns, 5)
        + 0.3 * min(3, len(cues.WEIGHTY.findall(sentence.text)))
    )
    value += 0.35 * _answers(scene, sentence) - 0.6 * bool(cues.LIGHT.search(sentence.lower)) - 0.5 * (len(words) < 7)
    value -= 0.03 * max(0, len(words) - 28)
    return value - 0.5 * bool(re.match(r"^\W*(?:i think|i don't know|i mean|it's like)\b", sentence.lower))


def is_marked(scene: Scene, sentence: Sentence) -> bool:
    words = scene.transcript.turns[sentence.turn].words[sentence.first : sentence.last + 1]
    return any(start <= word.middle <= end for start, end in scene.facts.marks for word in words)


def _answers(scene: Scene, sentence: Sentence) -> bool:
    before = next(iter(scene.preceding(sentence.turn, 1)), None)
    return before is not None and any(s.is_question for s in scene.by_turn[before])


def _line(scene: Scene, sentence: Sentence) -> Line:
    kind = LineKind.RISK if cues.RISK.search(sentence.text) else LineKind.KEY_POINT
    asked = answered(scene, sentence) if _is_fragment(sentence) else None
    evidence = tuple(map(passage, [asked, sentence] if asked else [sentence]))
    return Line(kind, with_question(asked, sentence), evidence, why="weight in its chapter")


def _is_fragment(sentence: Sentence) -> bool:
    """Whether a sentence has no verb that says something of somebody or something."""
    return not any(t.tag in ("VBD", "VBN", "VBP", "VBZ", "MD") for t in sentence.tokens)
