"""What is worth a look before minutes go out: the lines of which the rules, the networks or the recogniser were least sure."""

from dataclasses import replace
from datetime import date, time

import numpy as np
import pytest

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.doubts import LEAST_LIKELY, doubted
from nuntius.core.minutes.line import (
    Line,
    LineDoubt,
    LineKind,
    LineState,
    MeetingFacts,
    Passage,
)
from nuntius.core.transcript.transcript import Transcript
from tests.core.minutes.test_classifiers import scene_of
from tests.help import talk

PEOPLE = ("Maren Tull", "Tobias Pryce", "Ines Carvell", "Douglas Hale")
MAREN, TOBIAS, INES, DOUGLAS = PEOPLE
FACTS = MeetingFacts(date(2026, 10, 6), PEOPLE, begun=time(9, 0))
LEAVES_IT_OPEN = (
    (MAREN, "The machine at the north pier is broken."),
    (DOUGLAS, "I'll mend it tomorrow."),
    (MAREN, "Good."),
)


def only(kind: str, transcript: Transcript) -> Line:
    (line,) = [line for line in make_minutes(transcript, FACTS).lines if line.kind == kind]
    return line


@pytest.mark.parametrize("kind", [LineKind.ACTION, LineKind.DECISION])
def test_a_line_that_is_hardly_likely_is_doubted_and_a_likely_one_is_not(kind: LineKind) -> None:
    scene = scene_of(*LEAVES_IT_OPEN)
    line = Line(kind, "Mend the machine.", (Passage(1, 0, 3),), owner=(DOUGLAS,), due=date(2026, 10, 7))
    doubt = {LineKind.ACTION: LineDoubt.NO_TASK, LineKind.DECISION: LineDoubt.NOT_SETTLED}[kind]
    for likelihood, doubts in ((LEAST_LIKELY[kind] - 0.05, (doubt,)), (LEAST_LIKELY[kind] + 0.05, ())):
        likely = {str(kind): np.full(len(scene.sentences), likelihood, np.float32)}
        assert doubted(scene, line, likely).doubts == doubts


def test_what_is_done_superseded_or_a_persons_own_is_not_doubted() -> None:
    scene = scene_of(*LEAVES_IT_OPEN)
    none = {str(kind): np.zeros(len(scene.sentences), np.float32) for kind in LEAST_LIKELY}
    rests = (Passage(1, 0, 3),)
    for line in (
        Line(LineKind.DECISION, "Mend the machine.", rests, state=LineState.SUPERSEDED),
        Line(LineKind.NOTE, "Mend the machine.", rests),
        Line(LineKind.QUESTION, "Is it broken?", rests),
    ):
        assert doubted(scene, line, none).doubts == ()


def test_a_task_without_a_day_is_doubted_where_a_day_is_named_beside_it() -> None:
    asked = (MAREN, "Tobias, could you send the harbour office the new times?")
    taken = (TOBIAS, "Sure, I'll send them the new times.")
    beside = only("action", talk(asked, taken, (INES, "The harbour office meets on Friday."), (MAREN, "Good.")))
    assert beside.due is None
    assert LineDoubt.HAS_A_DAY in beside.doubts
    gone = only("action", talk(asked, taken, (INES, "The harbour office met last Friday."), (MAREN, "Good.")))
    assert LineDoubt.HAS_A_DAY not in gone.doubts
    dated = only(
        "action",
        talk((MAREN, "Tobias, could you send the harbour office the new times by Friday?"), (TOBIAS, "Sure, I will.")),
    )
    assert dated.due == date(2026, 10, 9)
    assert LineDoubt.HAS_A_DAY not in dated.doubts


def test_what_it_stands_for_is_doubted_where_it_may_be_one_of_several_things() -> None:
    form = (TOBIAS, "The form on our site chokes on an apostrophe.")
    one = only("action", talk(form, (DOUGLAS, "I'll mend it tomorrow."), (MAREN, "Thank you.")))
    assert "[The form on our site chokes on an apostrophe]" in one.text
    assert LineDoubt.MEANS_OTHER not in one.doubts
    machine = (MAREN, "The ticket machine at the north pier is broken.")
    several = only(
        "action", talk(machine, form, (INES, "The ramp is slippery, too."), (DOUGLAS, "I'll mend it tomorrow."))
    )
    assert "[" in several.text
    assert LineDoubt.MEANS_OTHER in several.doubts


@pytest.mark.parametrize(
    ("faint", "doubts"),
    [("Saltmarsh", True), ("forty", True), ("40", True), ("need", False), ("", False)],
)
def test_a_name_or_figure_that_was_heard_unsurely_is_doubted(faint: str, doubts: bool) -> None:
    figure = faint if faint in ("forty", "40") else "40"
    said = talk(
        (DOUGLAS, f"We need {figure} padlocks for the lockers in Saltmarsh."),
        (MAREN, "Order them, Douglas."),
        (DOUGLAS, "I will."),
    )
    turn = said.turns[0]
    words = tuple(replace(w, confidence=0.2) if faint and w.text.startswith(faint) else w for w in turn.words)
    heard = replace(said, turns=(replace(turn, words=words), *said.turns[1:]))
    lines = [line for line in make_minutes(heard, FACTS).lines if "Saltmarsh" in line.text]
    assert lines
    assert all((LineDoubt.HEARD_UNSURELY in line.doubts) == doubts for line in lines)
