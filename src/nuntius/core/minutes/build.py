"""Minutes of a transcript: every rule in turn, then order, chapters and coverage."""

from dataclasses import replace

from nuntius.core.errors import TranscriptEmpty
from nuntius.core.minutes.actions import find_actions
from nuntius.core.minutes.chapters import find_chapters
from nuntius.core.minutes.coverage import find_coverage
from nuntius.core.minutes.decisions import find_decisions
from nuntius.core.minutes.judges import judged, judged_borders
from nuntius.core.minutes.key_points import find_key_points
from nuntius.core.minutes.line import Chapter, Line, MeetingFacts, Minutes
from nuntius.core.minutes.notes import note_lines
from nuntius.core.minutes.questions import find_questions
from nuntius.core.minutes.scene import scene
from nuntius.core.transcript.transcript import Transcript


def make_minutes(transcript: Transcript, facts: MeetingFacts, length: str = "standard") -> Minutes:
    """Minutes of `transcript`; the same input gives the same minutes. Raises TranscriptEmpty."""
    if not transcript.word_count:
        raise TranscriptEmpty()
    talk = scene(transcript, facts)
    chapters = find_chapters(talk, judged_borders(talk))
    likely = judged(talk)
    firm = [
        *find_decisions(talk, likely["decision"]),
        *find_actions(talk, likely["action"]),
        *find_questions(talk, likely["question"]),
    ]
    held = frozenset((s.turn, s.first) for line in firm if line.kind != "question" for s in talk.inside(line.evidence))
    lines = [*note_lines(talk), *firm, *find_key_points(talk, chapters, held, length, likely["worth"])]
    placed = tuple(sorted((_placed(line, chapters) for line in lines), key=_order))
    return Minutes(placed, chapters, find_coverage(talk, placed, chapters))


def _placed(line: Line, chapters: tuple[Chapter, ...]) -> Line:
    """The line with the number of the chapter in which its last passage lies."""
    turn = max(line.turns)
    return replace(line, chapter=next(i for i, c in enumerate(chapters) if c.first <= turn <= c.last))


def _order(line: Line) -> tuple[int, int, str]:
    first = min(line.evidence)
    return first.turn, first.first, line.kind
