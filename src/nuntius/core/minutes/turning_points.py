"""Turning points: where the meeting's direction changed."""

from collections.abc import Sequence

from nuntius.core.language.en import cues, kinds
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import figures
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.scene import Scene, passage

STUCK_WITHIN = 10  # turns in which an objection shows its effect
SURPRISED_WITHIN = 2  # turns in which a figure surprises somebody else
APART = 4  # turns between two turning points of a kind


def find_turning_points(scene: Scene, firm: Sequence[Line]) -> list[Line]:
    """The first agreement, objections that stuck, figures that surprised, decisions that were reversed."""
    decisions = sorted((line for line in firm if line.kind == LineKind.DECISION), key=lambda line: min(line.evidence))
    made = [_line("Reversed", line.text, line) for line in decisions if line.state == LineState.SUPERSEDED]
    first = next((line for line in decisions if line.state == LineState.SETTLED), None)
    if first is not None:
        made.append(_line("The first agreement", first.text, first))
    made += [_at("An objection stuck", s) for s in _apart([s for s in scene.sentences if _stuck(scene, s, decisions)])]
    made += [_at("A figure surprised", s) for s in _apart([s for s in scene.sentences if _surprised(scene, s)])]
    return made


def _line(what: str, text: str, line: Line) -> Line:
    return Line(LineKind.TURNING_POINT, f"{what}: {text}", line.evidence, state=LineState.SETTLED, why=what.lower())


def _at(what: str, sentence: Sentence) -> Line:
    return Line(
        LineKind.TURNING_POINT,
        f"{what}: {quoted(sentence)}",
        (passage(sentence),),
        state=LineState.SETTLED,
        why=what.lower(),
    )


def _apart(found: list[Sentence]) -> list[Sentence]:
    kept: list[Sentence] = []
    for sentence in found:
        if not kept or sentence.turn - kept[-1].turn > APART:
            kept.append(sentence)
    return kept


def _stuck(scene: Scene, sentence: Sentence, decisions: list[Line]) -> bool:
    """An objection behind a proposal, and behind it a decision that puts off or reverses."""
    if not kinds.AGAINST.search(sentence.lower) or sentence.is_question or len(sentence.text.split()) < 6:
        return False
    before = (s for turn in scene.preceding(sentence.turn, 3) for s in scene.by_turn[turn])
    if not any(cues.PROPOSAL.search(s.lower) and s.speaker != sentence.speaker for s in before):
        return False
    end = sentence.turn + STUCK_WITHIN
    return any(
        line.state in (LineState.OPEN, LineState.SUPERSEDED) and sentence.turn <= max(line.turns) <= end
        for line in decisions
    )


def _surprised(scene: Scene, sentence: Sentence) -> bool:
    if sentence.is_question or not figures.count(sentence.text):
        return False
    return any(
        said.speaker != sentence.speaker and kinds.SURPRISE.search(said.lower)
        for turn in scene.following(sentence.turn, SURPRISED_WITHIN)
        for said in scene.by_turn[turn]
    )
