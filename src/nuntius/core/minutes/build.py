"""Minutes of a transcript: every rule in turn, then sections, order, chapters and coverage."""

from collections import Counter
from dataclasses import replace
from functools import lru_cache

import numpy as np

from nuntius.core.errors import TranscriptEmpty
from nuntius.core.language.which import is_english
from nuntius.core.minutes.actions import find_actions
from nuntius.core.minutes.chapters import find_chapters
from nuntius.core.minutes.classifiers import Likely, likelihoods, segmentation_likelihoods
from nuntius.core.minutes.coverage import find_coverage
from nuntius.core.minutes.decisions import find_decisions
from nuntius.core.minutes.doubts import doubted
from nuntius.core.minutes.figures import find_figures
from nuntius.core.minutes.key_points import find_key_points, is_marked
from nuntius.core.minutes.keywords import find_by_keywords
from nuntius.core.minutes.line import Chapter, Length, Line, LineKind, LineState, MeetingFacts, Minutes
from nuntius.core.minutes.named import find_named
from nuntius.core.minutes.needs import find_needs
from nuntius.core.minutes.notes import note_lines
from nuntius.core.minutes.plain import REMARK, plain_chapters, plain_key_points
from nuntius.core.minutes.questions import find_questions
from nuntius.core.minutes.scene import KEPT, Scene, scene
from nuntius.core.minutes.steps import find_steps
from nuntius.core.minutes.turning_points import find_turning_points
from nuntius.core.minutes.unwanted import without_unwanted
from nuntius.core.templates.shipped import shipped
from nuntius.core.templates.template import Template
from nuntius.core.transcript.transcript import Transcript

SCREEN = 12  # lines that a screen of 800 pixels shows
LEAST_BESIDE = 5  # lines of short minutes beside what was decided and promised
LISTS = (LineKind.FIGURE, LineKind.NAMED, LineKind.TURNING_POINT)  # kinds that tell again what other lines tell
WHOLE_IN_SHORT = (
    LineKind.DECISION,
    LineKind.ACTION,
    LineKind.NOTE,
    LineKind.NEED,
)  # kinds of which short minutes leave nothing out
FINDERS = {
    LineKind.FIGURE: find_figures,
    LineKind.STEP: find_steps,
    LineKind.NEED: find_needs,
    LineKind.NAMED: find_named,
}


def make_minutes(
    transcript: Transcript,
    facts: MeetingFacts,
    length: Length = Length.STANDARD,
    template: Template | None = None,
    detailed: frozenset[int] = frozenset(),
    fine: bool = False,
) -> Minutes:
    """Minutes of `transcript`; the same input gives the same minutes. Raises TranscriptEmpty.

    `template` says what they hold and in which sections (None: the general one); `detailed` are numbers of chapters
    that are wanted in more detail; `fine` asks for finer chapters.
    """
    if not transcript.word_count:
        raise TranscriptEmpty()
    template = template or shipped("general meeting")
    talk = scene(transcript, facts)
    known = is_english(transcript)
    if known:
        chapters = _chapters(talk, fine)
        found = _found(talk, chapters, template, length, detailed)
        worth = likelihoods(talk)["worth"]
    else:
        chapters = plain_chapters(talk, fine)
        found = [*note_lines(talk), *plain_key_points(talk, chapters, length, detailed)]
        worth = np.zeros(len(talk.sentences), np.float32)
    lines = without_unwanted(found, facts.unwanted)
    placed = _arranged(talk, template, [_in_chapter(line, chapters) for line in sorted(lines, key=_order)])
    placed = _on_one_screen(talk, placed, worth, detailed) if length == Length.SHORT else placed
    coverage, remark = find_coverage(talk, placed, chapters), "" if known else REMARK
    return Minutes(placed, chapters, coverage, template.titles, length, detailed, fine, remark)


def _found(
    talk: Scene, chapters: tuple[Chapter, ...], template: Template, length: Length, detailed: frozenset[int]
) -> list[Line]:
    """Lines of every kind that the template asks for."""
    likely, firm = likelihoods(talk), _firm(talk)
    told = [line for line in firm if line.kind != LineKind.QUESTION or LineKind.QUESTION in template.kinds]
    lines = [*note_lines(talk), *find_key_points(talk, chapters, told, length, likely["worth"], detailed)]
    for kind, find in FINDERS.items():
        if kind in template.kinds:
            lines += find(talk)
    if LineKind.TURNING_POINT in template.kinds:
        lines += find_turning_points(talk, firm)
    for number, section in enumerate(template.sections):
        if not section.kinds:
            lines += [replace(line, place=number) for line in find_by_keywords(talk, section)]
    return [*firm, *(doubted(talk, line, likely) for line in lines)]


@lru_cache(maxsize=2 * KEPT)
def _chapters(talk: Scene, fine: bool) -> tuple[Chapter, ...]:
    return find_chapters(talk, segmentation_likelihoods(talk), fine)


@lru_cache(maxsize=KEPT)
def _firm(talk: Scene) -> tuple[Line, ...]:
    """Decisions, actions and questions: no template and no length changes them, so those of the last talks are kept."""
    likely = likelihoods(talk)
    actions = find_actions(talk, likely["action"])
    decisions = find_decisions(talk, likely["decision"], actions)
    lines = (*decisions, *actions, *find_questions(talk, likely["question"]))
    return tuple(doubted(talk, line, likely) for line in lines)


def _arranged(talk: Scene, template: Template, lines: list[Line]) -> tuple[Line, ...]:
    """Each line in its section; those that no section takes, or that are more than one holds, are left out."""
    counts: Counter[int] = Counter()
    kept: list[Line] = []
    for line in lines:
        place = line.place if line.kind == LineKind.KEYWORD else _place_of(talk.transcript, template, line)
        if place is None:
            continue
        most = template.sections[place].most if place < len(template.sections) else None
        counts[place] += 1
        if most is None or counts[place] <= most:
            kept.append(replace(line, place=place))
    return tuple(kept)


def _on_one_screen(talk: Scene, lines: tuple[Line, ...], worth: Likely, detailed: frozenset[int]) -> tuple[Line, ...]:
    """Short minutes: all that was decided and promised, and what else there is room for, from as many chapters as may be.

    `worth` says of each sentence how likely it is worth knowing. Nothing is taken from the chapters that are `detailed`.
    """
    less = (line for line in lines if line.kind not in WHOLE_IN_SHORT and line.chapter not in detailed)
    others = sorted(less, key=lambda line: -_weight(talk, line, worth))
    chapters = [line.chapter for line in others]
    order = sorted(range(len(others)), key=lambda i: chapters[:i].count(chapters[i]))  # the first of each chapter first
    room = max(LEAST_BESIDE, SCREEN - (len(lines) - len(others)))
    left_out = {others[i] for i in order[room:]}
    return tuple(line for line in lines if line not in left_out)


def _weight(talk: Scene, line: Line, worth: Likely) -> float:
    """How likely a line is worth knowing; what stayed open, and what a person marked, weighs more, a mere list less."""
    is_open = line.kind == LineKind.QUESTION and line.state == LineState.OPEN
    marked = any(is_marked(talk, s) for s in talk.inside(line.evidence))
    return talk.highest_inside(worth, line.evidence) + is_open + 2 * marked - (line.kind in LISTS)


def _place_of(transcript: Transcript, template: Template, line: Line) -> int | None:
    """Number of the section of `template` that a line belongs to, None where none takes it."""
    turns = [transcript.turns[turn] for turn in sorted(line.turns)]
    said = " ".join((line.text, *(turn.text for turn in turns))).lower()
    return template.place(line, said, frozenset(turn.speaker for turn in turns))


def _in_chapter(line: Line, chapters: tuple[Chapter, ...]) -> Line:
    """The line with the number of the chapter in which its last passage lies."""
    turn = max(line.turns)
    return replace(line, chapter=next(i for i, c in enumerate(chapters) if c.first <= turn <= c.last))


def _order(line: Line) -> tuple[int, int, str]:
    first = min(line.evidence)
    return first.turn, first.first, line.kind
