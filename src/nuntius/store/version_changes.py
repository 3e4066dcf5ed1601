"""Earlier minutes taken back: one line, or all of them; as a change that can itself be taken back."""

from typing import Any

from sqlalchemy.orm import Session

from nuntius.store.changes import change_together
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.line_changes import setting
from nuntius.store.line_rows import LineValues
from nuntius.store.lines import SET, removal
from nuntius.store.minutes import written_minutes
from nuntius.store.models import Change, LineRow, Meeting, MinutesRow, MinutesVersion, User
from nuntius.store.undoable import Field, FieldSet, Step
from nuntius.store.versions import version_of

READ = ("state", "answer", "thrown_out", "checked_by")  # what else of a line shows
SAME = "These minutes read the same now."


def take_line_back(session: Session, user: User, meeting: Meeting, version_id: int, line_id: int) -> Change:
    """Puts a line as it stood in earlier minutes back. Raises NotFound, Conflict where it stands like that already."""
    version, minutes = version_of(session, meeting, version_id), written_minutes(session, meeting)
    was = next((each for each in version.lines if each["id"] == line_id), None)
    if was is None:
        raise NotFound()
    now = next((line for line in minutes.lines if line.id == line_id), None)
    step = _taken_back(minutes, version, was, now, user.id)
    if step is None:
        raise Conflict(SAME)
    return change_together(session, user, meeting, [step])


def take_version_back(session: Session, user: User, meeting: Meeting, version_id: int) -> Change:
    """Puts all lines as they stood in earlier minutes back; those that are new since go. Raises NotFound, Conflict."""
    version, minutes = version_of(session, meeting, version_id), written_minutes(session, meeting)
    there = {line.id: line for line in minutes.lines}
    was = {each["id"]: each for each in version.lines}
    steps: list[Step] = [removal(line) for line in minutes.lines if line.id not in was]
    made = (_taken_back(minutes, version, each, there.get(key), user.id) for key, each in was.items())
    steps += [step for step in made if step is not None]
    if not steps:
        raise Conflict(SAME)
    return change_together(session, user, meeting, steps)


def differs(minutes: MinutesRow, version: MinutesVersion, was: LineValues, now: LineRow) -> bool:
    """Whether a line reads otherwise now than in earlier minutes, or stands in another of the same sections."""
    return _taken_back(minutes, version, was, now) is not None


def _taken_back(
    minutes: MinutesRow, version: MinutesVersion, was: LineValues, now: LineRow | None, user_id: int | None = None
) -> FieldSet | None:
    """A change that puts a line of a version back; None where it reads the same now."""
    values = {name: value for name, value in was.items() if name != "id"}
    values["place"] = _section(minutes, version, was, now)
    if now is None:
        values |= {"minutes_id": minutes.id, "made_by": was["made_by"] or user_id}
        return FieldSet(Field.LINE_ROW, was["id"], None, values)
    text = was["person_text"] or was["text"]
    taken: dict[str, Any] = {name: values[name] for name in (*SET, *READ)}
    if text != (now.person_text or now.text):
        taken["person_text"] = text
    step = setting(now, taken)
    if step is None:
        return None
    named = sorted({*now.set_by_person, *(name for name in (*SET, "state", "answer") if name in _named(step))})
    return setting(now, {**taken, "set_by_person": named})


def _named(step: FieldSet) -> LineValues:
    return step.after if isinstance(step.after, dict) else {}


def _section(minutes: MinutesRow, version: MinutesVersion, was: LineValues, now: LineRow | None) -> int:
    """The section of the same title; where there is none, the one it stands in, else one that holds lines of its kind."""
    titles = [title for title, _ in minutes.sections]
    title = version.sections[was["place"]][0] if was["place"] < len(version.sections) else ""
    if title in titles:
        return titles.index(title)
    alike = now or next((line for line in minutes.lines if line.kind == was["kind"]), None)
    return alike.place if alike else max(0, len(titles) - 1)
