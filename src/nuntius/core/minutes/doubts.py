"""What in a line is worth a look before the minutes go out: where what wrote it was least sure.

The limits are set where, on annotated talk that nothing was learnt from, the share of lines that want a change is some
three times that of the others (`bench/minutes.py` prints both).
"""

import re
from collections.abc import Iterator, Mapping
from dataclasses import replace

from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.numbers import value_of
from nuntius.core.minutes import wording
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.coreference import SURELY_MEANT, UNTOLD, shortened, sureness
from nuntius.core.minutes.decisions import FIRM
from nuntius.core.minutes.line import (
    Line,
    LineDoubt,
    LineKind,
    LineState,
)
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.stating import FEW, surely_adds

LEAST_LIKELY = {LineKind.ACTION: 0.8, LineKind.DECISION: 0.75}  # likelihood, of the likeliest sentence a line rests on
DOUBTED = {LineKind.ACTION: LineDoubt.NO_TASK, LineKind.DECISION: LineDoubt.NOT_SETTLED}
BESIDE = 1  # turns before and behind a task in which a day that is named may be its day
SURELY_HEARD = 0.45  # confidence of a word, below which the transcript underlines it
BRACKETS = re.compile(r"\[([^\]]+)\]")
NAMES_OR_FIGURES = ("PROPN", "NUM")
MARKS = ".,;:?!\"'()“”’£$€"  # around a word


def doubted(scene: Scene, line: Line, likely: Mapping[str, Likely]) -> Line:
    """The line with its doubts; `likely` says of each sentence how likely it is the heart of a line of a kind."""
    if line.kind in (LineKind.NOTE, LineKind.NAMED):  # a person's own, and what only counts
        return line
    return replace(line, doubts=tuple(_doubts(scene, line, likely)))


def _doubts(scene: Scene, line: Line, likely: Mapping[str, Likely]) -> Iterator[LineDoubt]:
    holds = line.kind in DOUBTED and line.why not in FIRM and line.state in (LineState.OPEN, LineState.SETTLED)
    if holds and scene.highest_inside(likely[line.kind], line.evidence) < LEAST_LIKELY[line.kind]:
        yield DOUBTED[line.kind]
    if (
        line.kind == LineKind.ACTION
        and line.owner
        and line.due is None
        and line.state == LineState.OPEN
        and _day_beside(scene, line)
    ):
        yield LineDoubt.HAS_A_DAY
    if any(_unsurely_meant(scene, line, told) for told in BRACKETS.findall(line.text)):
        yield LineDoubt.MEANS_OTHER
    if any(_unsurely_heard(scene, line)):
        yield LineDoubt.HEARD_UNSURELY


def _day_beside(scene: Scene, line: Line) -> bool:
    """Whether a day from the meeting's on is named in what a line rests on, or right before or behind that."""
    turns = {turn for at in line.turns for turn in range(at - BESIDE, at + BESIDE + 1)}
    near = (s for turn in turns if 0 <= turn < len(scene.by_turn) for s in scene.by_turn[turn])
    return any(day.day >= scene.facts.day for s in near for day in said_dates(s.text, scene.facts.day))


def _unsurely_meant(scene: Scene, line: Line, told: str) -> bool:
    """Whether a sentence in square brackets is hardly likelier than another to be what the line refers to."""
    said = sorted(scene.inside(line.evidence), key=lambda s: (s.turn, s.first))
    about = next((s for s in said if shortened(wording.statement(s.text)) == told), None)
    if about is None:
        return False
    behind = [s for s in said if (s.turn, s.first) > (about.turn, about.first)]
    behind.sort(key=lambda s: not UNTOLD.search(s.text))  # those that say `it` first: they have been read already
    if not behind or any(sureness(scene, s, about) >= SURELY_MEANT for s in behind):
        return False
    names_a_thing = line.kind == LineKind.ACTION and len(BRACKETS.sub("", line.text).split()) > FEW
    return not (names_a_thing and any(surely_adds(scene, s, about) for s in behind))


def _unsurely_heard(scene: Scene, line: Line) -> Iterator[bool]:
    """For each name and figure of a line whether the recogniser was unsure of it."""
    written = set(re.findall(r"[\w'-]+", line.text))
    figures = any(word[0].isdigit() for word in written)
    for sentence in scene.inside(line.evidence):
        told = {t.text for t in sentence.tokens if t.pos in NAMES_OR_FIGURES}
        for word in scene.transcript.turns[sentence.turn].words[sentence.first : sentence.last + 1]:
            bare = word.text.strip(MARKS)
            of_figure = figures and value_of(bare) > 0  # `forty`, of which the line makes 40 or a part of 45
            if of_figure or (bare in written and (bare in told or bare[:1].isdigit())):
                yield word.confidence < SURELY_HEARD
