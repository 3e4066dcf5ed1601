"""What people changed on a record: who, when, and what stood there before and after."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.accounts import account_names
from nuntius.store.models import Change, LineRow, Meeting, Person, Speaker, TurnRow
from nuntius.store.undoable import OF_LINE, Edit, Field, FieldSet, Together, TurnsReplaced, edit_of

MOST = 500  # changes shown, the newest first
SHOWN = 300  # characters of a text that are shown


@dataclass(frozen=True, slots=True)
class HistoryEntry:
    """One change in words; `start` is the second of the recording that it is about, where there is one."""

    id: int
    who: str
    at: datetime
    what: str
    before: str
    after: str
    start: float | None
    undone: bool


def history_of(session: Session, meeting: Meeting) -> list[HistoryEntry]:
    """The changes of a meeting, the newest first."""
    names = account_names(session)
    people = dict(session.execute(select(Person.id, Person.label)).tuples().all())
    query = select(Change).where(Change.meeting_id == meeting.id).order_by(Change.id.desc()).limit(MOST)
    return [
        HistoryEntry(
            c.id, names.get(c.user_id, "Somebody"), c.at, *_described(session, edit_of(c), people), undone=c.undone
        )
        for c in session.scalars(query)
    ]


def _described(session: Session, edit: Edit, people: dict[int, str]) -> tuple[str, str, str, float | None]:
    """What was done, the texts before and after, and where."""
    if isinstance(edit, Together):
        named = next((s for s in edit.steps if isinstance(s, FieldSet) and s.field == Field.VOICE), None)
        return _described_together(session, edit) if named is None else _described(session, named, people)
    before, after = edit.before, edit.after
    match edit.field:
        case Field.VOICE:
            voice = session.get(Speaker, edit.target)
            label = voice.label if voice else "a voice"
            return f"Said who {label} is", _person(before, people, "nobody yet"), _person(after, people, "nobody"), None
        case Field.TURN:
            turn = session.get(TurnRow, edit.target)
            heard = _text(turn.words) if turn else ""
            return "Corrected what was said", _text(before) or heard, _text(after) or heard, _begin(after or before)
        case Field.LIVE:
            return "Corrected what was being said", str(before or ""), str(after or ""), None
    if edit.field in (Field.LINE_SET, Field.LINE_ROW):
        return _described_line(session, [edit])
    line = session.get(LineRow, edit.target)
    start = min((e.start for e in line.evidence), default=None) if line else None
    written = (line.person_text or line.text) if line else ""
    match edit.field:
        case Field.LINE:
            return "Reworded a line", str(before or (line.text if line else "")), str(after or ""), start
        case Field.TICK:
            return ("Ticked a line" if after else "Took a tick away"), "", written, start
        case Field.THROW:
            return (f"Threw a line out ({after})" if after else "Took a line back in"), "", written, start
    return "Changed the record", "", "", None


def _described_together(session: Session, edit: Together) -> tuple[str, str, str, float | None]:
    replaced = next((step for step in edit.steps if isinstance(step, TurnsReplaced)), None)
    if replaced is not None:
        said = replaced.before[0].person_words or replaced.before[0].words
        return _what(replaced), "", _short(_text(said)), _begin(said)
    steps = [step for step in edit.steps if isinstance(step, FieldSet)]
    if steps and all(step.field in OF_LINE for step in steps):
        return _described_line(session, steps)
    if any(step.field == Field.TURN_VOICE for step in steps):
        return "Made two voices one", "", "", None
    turns = [step for step in steps if step.field == Field.TURN]
    if not turns:
        return "Put words in place of others", "", "", None
    old, new = turns[0].before, turns[0].after
    more = f" in {len(turns)} turns" if len(turns) > 1 else ""
    return f"Put words in place of others{more}", _text(old), _text(new), _begin(new or old)


SAID_OF = {  # a column of a line, and what was done where a person set it
    "person_text": "Reworded a line",
    "kind": "Changed what a line is",
    "place": "Moved a line to another section",
    "number": "Moved a line",
    "owner": "Changed who does it",
    "due": "Changed by when",
    "due_said": "Changed by when",
    "remark": "Remarked on a line",
    "evidence": "Changed what a line rests on",
    "answer": "Changed an answer",
    "thrown_out": "Took lines back in or out",
}
TWO_LINES = 2  # a line and what it was joined with or split from
PROGRESS = {"open": "Said that a task is open", "done": "Said that a task is done", "dropped": "Dropped a task"}


def _described_line(session: Session, steps: list[FieldSet]) -> tuple[str, str, str, float | None]:
    """What was done to lines as a whole, or to columns of one."""
    first = steps[0]
    line = session.get(LineRow, first.target)
    values = {**_values(first.before), **_values(first.after)}
    written = str(values.get("person_text") or values.get("text") or (line and (line.person_text or line.text)) or "")
    evidence = values.get("evidence") or ([{"start": e.start} for e in line.evidence] if line else [])
    start = min((each["start"] for each in evidence), default=None)
    rows = [step for step in steps if step.field == Field.LINE_ROW]
    if len(steps) > TWO_LINES:
        return "Took earlier minutes back", "", "", None
    if rows and len(steps) > 1:
        return ("Joined two lines" if rows[0].after is None else "Split a line"), "", written, start
    if rows:
        return ("Added a line" if rows[0].after is not None else "Removed a line"), "", written, start
    before, after = _values(first.before), _values(first.after)
    if "progress" in after:
        return PROGRESS.get(after["progress"], ""), "", written, start
    column = next((name for name in SAID_OF if name in after), "person_text")
    shown = written if column in ("number", "place", "evidence", "kind", "thrown_out") else None
    return SAID_OF[column], "" if shown else _value(before.get(column)), shown or _value(after.get(column)), start


def _values(state: object) -> dict[str, Any]:
    return cast("dict[str, Any]", state) if isinstance(state, dict) else {}


def _value(value: Any) -> str:
    """A value of a line as it reads; "" for none."""
    return _short(", ".join(map(str, value)) if isinstance(value, list) else str(value or ""))


def _what(replaced: TurnsReplaced) -> str:
    """What was done to turns that were put in place of others."""
    if len(replaced.before) > 2:
        return "Had the voices told apart again"
    if len(replaced.after) < len(replaced.before):
        return "Joined turns"
    voices = [{piece.speaker_id for piece in pieces} for pieces in (replaced.before, replaced.after)]
    return "Split a turn" if voices[0] == voices[1] else "Gave words to another voice"


def _person(value: object, people: dict[int, str], nobody: str) -> str:
    return people.get(value, nobody) if isinstance(value, int) else nobody


def _text(words: object) -> str:
    """Words as the database keeps them, as text; "" for none."""
    return _short(" ".join(str(word[0]) for word in words)) if isinstance(words, list) else ""


def _short(text: str) -> str:
    return text if len(text) <= SHOWN else f"{text[:SHOWN].rsplit(' ', 1)[0]} …"


def _begin(words: object) -> float | None:
    """The second at which words begin."""
    return float(words[0][1]) if isinstance(words, list) and words else None
