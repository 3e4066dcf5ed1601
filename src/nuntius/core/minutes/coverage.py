"""Coverage: how much of the talk the minutes stand for."""

from nuntius.core.minutes.line import Chapter, Coverage, Line
from nuntius.core.minutes.scene import Scene

ALIKE = 0.40  # cosine of a sentence and one that a line rests on, above which the line stands for both


def find_coverage(scene: Scene, lines: tuple[Line, ...], chapters: tuple[Chapter, ...]) -> Coverage:
    """Share of the talk time, backchannels aside, that lines stand for, and the stretches left out.

    A turn counts when a line rests on it or on the turn right before or after it (the same exchange), or
    when it is alike in meaning to a sentence of the same chapter that a line rests on. 0 for no talk.
    """
    rested = {turn for line in lines for turn in line.turns}
    if any(line.answer for line in lines):
        rested |= {p.turn for line in lines if line.answer for p in line.answer.evidence}
    counted, total = 0.0, 0.0
    gaps: list[tuple[float, float]] = []
    for chapter in chapters:
        near = [i for t in range(chapter.first, chapter.last + 1) if t in rested for i in scene.numbers[t]]
        for number in range(chapter.first, chapter.last + 1):
            turn = scene.transcript.turns[number]
            if scene.backchannel[number]:
                continue
            length = turn.end - turn.start
            total += length
            if {number - 1, number, number + 1} & rested or _stands(scene, number, near):
                counted += length
            elif gaps and number and gaps[-1][1] >= scene.transcript.turns[number - 1].start:
                gaps[-1] = gaps[-1][0], turn.end
            else:
                gaps.append((turn.start, turn.end))
    return Coverage(counted / total if total else 0.0, tuple(gaps))


def _stands(scene: Scene, turn: int, near: list[int]) -> bool:
    """Whether a sentence of a turn is alike to one of those near it, which are given by number."""
    own = list(scene.numbers[turn])
    return bool(own and near) and float((scene.vectors[own] @ scene.vectors[near].T).max()) >= ALIKE
