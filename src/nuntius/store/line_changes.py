"""How a change of a line as a whole, or of some of its columns, is carried out."""

from collections.abc import Iterable
from typing import cast

from sqlalchemy.orm import Session

from nuntius.store.errors import Conflict
from nuntius.store.line_rows import LineValues, anchor, put_values, value_of
from nuntius.store.models import LineRow, MinutesRow
from nuntius.store.transcripts import load_transcript
from nuntius.store.undoable import Field, FieldSet, Step

BESIDE = ("set_by_person", "number")  # what may be otherwise by now and stands in nobody's way
GONE = "This line is not in the minutes any more, so this change can no longer be taken back."


def set_line(session: Session, step: FieldSet) -> None:
    """Puts what stands after a change in place: columns of a line, a whole line, or none. Raises Conflict."""
    line = session.get(LineRow, step.target)
    after = cast("LineValues | None", step.after)
    if step.field == Field.LINE_ROW and after is not None:
        _add(session, step.target, after, line)
    elif line is None:
        raise Conflict(GONE)
    elif after is None:
        session.delete(line)
        session.flush()
        session.expire(session.get_one(MinutesRow, line.minutes_id), ["lines"])
    else:
        put_values(line, {**after, **_marks(line, step)})
        session.flush()
        if "number" in after:
            session.expire(session.get_one(MinutesRow, line.minutes_id), ["lines"])


def _marks(line: LineRow, step: FieldSet) -> LineValues:
    """What of a line a person set, with what this change adds to that or takes away: others may have set more since."""
    before, after = cast("LineValues", step.before), cast("LineValues", step.after)
    if "set_by_person" not in after:
        return {}
    was, now = set(before["set_by_person"]), set(after["set_by_person"])
    return {"set_by_person": sorted(set(line.set_by_person) - (was - now) | (now - was))}


def stands(session: Session, step: FieldSet) -> bool:
    """Whether what a change begins from stands there."""
    line = session.get(LineRow, step.target)
    if step.field == Field.LINE_ROW or line is None:
        return (line is None) == (step.before is None)
    before = cast("LineValues", step.before)
    return all(value_of(line, name) == value for name, value in before.items() if name not in BESIDE)


def _add(session: Session, line_id: int, values: LineValues, there: LineRow | None) -> None:
    minutes = session.get(MinutesRow, values["minutes_id"])
    if there is not None or minutes is None:
        raise Conflict("Somebody has changed these lines meanwhile. Load the page again.")
    line = LineRow(id=line_id, minutes_id=minutes.id)
    put_values(line, {name: value for name, value in values.items() if name != "minutes_id"})
    line.place = min(line.place, max(0, len(minutes.sections) - 1))
    session.add(line)
    session.flush()
    session.expire(minutes, ["lines"])


def anchor_lines(session: Session, steps: Iterable[Step]) -> None:
    """Lets the evidence that some steps put in place name the turns and words of now.

    Turns may have been split, joined or heard again since. The transcript is read once, and only where it is needed.
    """
    put = [step for step in steps if isinstance(step, FieldSet) and isinstance(step.after, dict)]
    targets = [
        s.target
        for s in put
        if s.field in (Field.LINE_SET, Field.LINE_ROW) and "evidence" in cast("LineValues", s.after)
    ]
    lines = [line for line in (session.get(LineRow, target) for target in targets) if line is not None]
    if not lines:
        return
    transcript = load_transcript(session, session.get_one(MinutesRow, lines[0].minutes_id).meeting_id)
    for line in lines:
        anchor(line.evidence, transcript)
    session.flush()


def setting(line: LineRow, values: LineValues) -> FieldSet | None:
    """A change that sets columns of a line; None where all of them stand there already."""
    before = {name: value_of(line, name) for name in values}
    new = {name: value for name, value in values.items() if value != before[name]}
    if not new:
        return None
    return FieldSet(Field.LINE_SET, line.id, {name: before[name] for name in new}, new)
