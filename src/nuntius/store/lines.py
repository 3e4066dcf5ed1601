"""Lines set right by hand: added, changed, moved, joined, split; each change can be taken back."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from nuntius.core.language.en.dates import said_dates
from nuntius.core.minutes.line import BY_HAND, LineKind, LineState, Passage, Progress
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.changes import LONGEST_LINE, change_together, line_of
from nuntius.store.errors import Conflict
from nuntius.store.line_changes import setting
from nuntius.store.line_rows import (
    EVIDENCE_COLUMNS,
    SPACING,
    LineValues,
    evidence_row,
    new_line_id,
    number_lines,
    value_of,
    values_of,
)
from nuntius.store.minutes import written_minutes
from nuntius.store.models import Change, LineRow, Meeting, MinutesRow, User
from nuntius.store.transcripts import load_transcript, names_of, with_names
from nuntius.store.undoable import Field, FieldSet, Step

MOST_LINES = 2000  # of one meeting
MOST_OWNERS = 30
LONGEST_NAME = 200  # characters
LONGEST_DAY = 120  # characters of a day as people say it
SET = ("kind", "place", "owner", "due", "due_said", "progress", "remark", "evidence")  # what `change_line` sets


@dataclass(frozen=True, slots=True)
class NewLine:
    """A line that a person adds; `after` is the line it stands behind, None for the end of its section.

    `due_said` without `due` is a day as people say it ("by Friday"), counted from the day of the meeting.
    """

    kind: LineKind
    text: str
    place: int
    chapter: int = 0
    after: int | None = None
    owner: tuple[str, ...] = ()
    due: date | None = None
    due_said: str | None = None
    progress: Progress = Progress.OPEN
    remark: str = ""
    evidence: tuple[Passage, ...] = ()


@dataclass(frozen=True, slots=True)
class LineChange:
    """Columns of a line that a person sets, by their names in `SET`; those not named stay as they are.

    `text` is put in place of how it reads. `after` or `before` is a line that it is to stand beside, in that line's section.
    """

    values: dict[str, Any] = field(default_factory=dict)
    text: str | None = None
    after: int | None = None
    before: int | None = None


def add_line(session: Session, user: User, meeting: Meeting, new: NewLine) -> Change:
    """Adds a line. Raises Conflict before there are minutes, NotFound for a line it is to stand behind."""
    minutes = written_minutes(session, meeting)
    if len(minutes.lines) >= MOST_LINES:
        raise Conflict(f"There are {MOST_LINES:,} lines in these minutes already.")
    transcript = load_transcript(session, meeting.id)
    due, said = _day(meeting, new.due, new.due_said)
    behind = line_of(session, meeting, new.after) if new.after is not None else _last(minutes, new.place)
    evidence = _evidence(transcript, new.evidence)
    line = LineRow(
        number=_number(minutes, behind),
        kind=new.kind,
        place=_section(minutes, new.place),
        chapter=_chapter_at(minutes, evidence, new.chapter),
        text=_text(new.text),
        person_text=None,
        owner=_owners(new.owner),
        due=due,
        due_said=said,
        state=LineState.OPEN,
        answer=None,
        why=BY_HAND,
        doubts=[],
        checked_by=None,
        thrown_out=None,
        progress=new.progress,
        remark=_remark(new.remark),
        set_by_person=[],
        made_by=user.id,
        joined=[],
    )
    values = {**values_of(line), "evidence": evidence, "minutes_id": minutes.id}
    step = FieldSet(Field.LINE_ROW, new_line_id(session), None, values)
    return change_together(session, user, meeting, [step])


def change_line(session: Session, user: User, meeting: Meeting, line_id: int, wanted: LineChange) -> Change | None:
    """Sets columns of a line, or puts it elsewhere; None where all of it stands like that already.

    Raises NotFound, Conflict for what does not fit.
    """
    line, minutes = line_of(session, meeting, line_id), written_minutes(session, meeting)
    values: LineValues = {name: _read(session, meeting, minutes, name, value) for name, value in wanted.values.items()}
    if "due" in values or "due_said" in values:
        due, said = _day(meeting, wanted.values.get("due"), wanted.values.get("due_said"))
        values |= {"due": due.isoformat() if due else None, "due_said": said}
    if "evidence" in values:  # what was answered stays where it was answered
        values["evidence"] += [each for each in value_of(line, "evidence") if each["of_answer"]]
    if wanted.text is not None and _text(wanted.text) != _read_text(line, names_of(session, meeting.id)):
        values["person_text"] = _text(wanted.text)
    values |= _moved(session, meeting, minutes, line, wanted, values.get("place", line.place))
    named = [name for name in (*SET, "number") if name in values and name != "remark"]
    values["set_by_person"] = sorted({*line.set_by_person, *named})
    step = setting(line, values)
    if step is None or set(_after(step)) == {"set_by_person"}:
        return None
    return change_together(session, user, meeting, [step])


def join_lines(session: Session, user: User, meeting: Meeting, line_id: int, other_id: int) -> Change:
    """Makes one line of two: that of the first, with the words, owners and evidence of both. Raises NotFound, Conflict."""
    one, other = line_of(session, meeting, line_id), line_of(session, meeting, other_id)
    if one.id == other.id:
        raise Conflict("Choose two different lines.")
    names = names_of(session, meeting.id)
    text = _text(f"{_ended(_read_text(one, names))} {_read_text(other, names)}")
    due = one if one.due else other
    values: LineValues = {
        "person_text": text,
        "owner": list(dict.fromkeys([*one.owner, *other.owner])),
        "due": value_of(due, "due"),
        "due_said": due.due_said,
        "progress": one.progress if one.progress == other.progress else Progress.OPEN,
        "answer": " ".join(each for each in (one.answer, other.answer) if each) or None,
        "remark": "\n".join(each for each in (one.remark, other.remark) if each),
        "evidence": _united(value_of(one, "evidence"), value_of(other, "evidence")),
        "checked_by": one.checked_by if other.checked_by else None,
        "joined": [*one.joined, *other.joined, other.id],
        "set_by_person": sorted({*one.set_by_person, "owner", "due", "due_said", "progress", "evidence", "answer"}),
    }
    steps: list[Step] = [step for step in (setting(one, values),) if step is not None]
    steps.append(removal(other))
    return change_together(session, user, meeting, steps)


def split_line(session: Session, user: User, meeting: Meeting, line_id: int, first: str, second: str) -> Change:
    """Makes two lines of one; both rest on the same words, and what was answered stays with the first. Raises NotFound, Conflict."""
    line, minutes = line_of(session, meeting, line_id), written_minutes(session, meeting)
    rest = {
        **values_of(line),
        "minutes_id": minutes.id,
        "text": _text(second),
        "person_text": None,
        "number": _number(minutes, line),
        "answer": None,
        "made_by": user.id,
        "joined": [],
        "evidence": [each for each in value_of(line, "evidence") if not each["of_answer"]],
    }
    kept = setting(line, {"person_text": _text(first)})
    steps: list[Step] = [kept] if kept is not None else []
    steps.append(FieldSet(Field.LINE_ROW, new_line_id(session), None, rest))
    return change_together(session, user, meeting, steps)


def removal(line: LineRow) -> FieldSet:
    """A change after which a line is not there any more."""
    return FieldSet(Field.LINE_ROW, line.id, {**values_of(line), "minutes_id": line.minutes_id}, None)


# --- what a person gives, read ---


def _read(session: Session, meeting: Meeting, minutes: MinutesRow, name: str, value: Any) -> Any:
    """A value as a line keeps it. Raises Conflict."""
    if name == "place":
        return _section(minutes, value)
    if name == "owner":
        return _owners(value)
    if name == "remark":
        return _remark(value)
    if name == "evidence":
        return _evidence(load_transcript(session, meeting.id), value)
    return value


def _text(text: str) -> str:
    text = " ".join(text.split())
    if not text or len(text) > LONGEST_LINE:
        raise Conflict(f"A line holds between one word and {LONGEST_LINE:,} characters.")
    return text


def _remark(text: str) -> str:
    if len(text) > LONGEST_LINE:
        raise Conflict(f"A remark holds at most {LONGEST_LINE:,} characters.")
    return text.strip()


def _owners(names: Sequence[str]) -> list[str]:
    read = list(dict.fromkeys(" ".join(name.split()) for name in names if name.strip()))
    if len(read) > MOST_OWNERS or any(len(name) > LONGEST_NAME for name in read):
        raise Conflict(
            f"A line has at most {MOST_OWNERS} owners, each with a name of at most {LONGEST_NAME} characters."
        )
    return read


def _section(minutes: MinutesRow, place: int) -> int:
    if not 0 <= place < max(1, len(minutes.sections)):
        raise Conflict("This section is not in the minutes any more. Load the page again.")
    return place


def _day(meeting: Meeting, due: date | None, said: str | None) -> tuple[date | None, str | None]:
    """A day picked, or read from how people say it. Raises Conflict where it names none."""
    said = " ".join((said or "").split())[:LONGEST_DAY]
    if due is not None or not said:
        return due, said or None
    found = said_dates(said, meeting.begun.date())
    if found:
        return found[-1].day, said
    try:
        return date.fromisoformat(said), None
    except ValueError:
        raise Conflict(
            f"“{said}” names no day that can be read. Pick the day, or write it as people say it: by Friday, on 14 October."
        ) from None


def _evidence(transcript: Transcript, passages: Sequence[Passage]) -> list[LineValues]:
    """Passages of the transcript as values. Raises Conflict for words that are not there."""
    rows = []
    for each in passages:
        words = transcript.turns[each.turn].words if each.turn < len(transcript.turns) else ()
        if not 0 <= each.first <= each.last < len(words):
            raise Conflict("These words are not in the transcript any more. Choose them again.")
        row = evidence_row(transcript, each, False)
        rows.append({name: getattr(row, name) for name in EVIDENCE_COLUMNS})
    return rows


def _united(one: list[LineValues], other: list[LineValues]) -> list[LineValues]:
    """The passages of two lines, each once, in the order of time."""
    found = {(each["start"], each["end"], each["of_answer"]): each for each in (*one, *other)}
    return sorted(found.values(), key=lambda each: (each["of_answer"], each["start"]))


# --- where a line stands ---


def _chapter_at(minutes: MinutesRow, evidence: list[LineValues], chapter: int) -> int:
    """The chapter of the first passage; without one, the chapter that a person chose."""
    if not evidence:
        return min(chapter, max(0, len(minutes.chapters) - 1))
    start = min(each["start"] for each in evidence)
    begun = [number for number, each in enumerate(minutes.chapters) if each["start"] <= start + 0.01]
    return begun[-1] if begun else 0


def _moved(
    session: Session, meeting: Meeting, minutes: MinutesRow, line: LineRow, wanted: LineChange, place: int
) -> LineValues:
    """Section and number of a line that is put beside another, or at the end of another section."""
    beside = wanted.after if wanted.after is not None else wanted.before
    if beside is None:
        return {} if place == line.place else {"number": _number(minutes, _last(minutes, place), line)}
    other = line_of(session, meeting, beside)
    if other.id == line.id:
        raise Conflict("A line cannot stand beside itself.")
    if wanted.after is not None:
        return {"place": other.place, "number": _number(minutes, other, line)}
    ahead = [each for each in minutes.lines[: minutes.lines.index(other)] if each is not line]
    if ahead:
        return {"place": other.place, "number": _number(minutes, ahead[-1], line)}
    if other.number < SPACING:
        number_lines(minutes.lines)
    return {"place": other.place, "number": other.number // 2}


def _last(minutes: MinutesRow, place: int) -> LineRow | None:
    return next((line for line in reversed(minutes.lines) if line.place == place), None)


def _number(minutes: MinutesRow, behind: LineRow | None, moving: LineRow | None = None) -> int:
    """A number behind that of a line and before that of the next; behind none, at the end.

    Where there is no room between the two, all are numbered again.
    """
    others = [line for line in minutes.lines if line is not moving]
    if behind is None or behind is others[-1]:
        return others[-1].number + SPACING if others else SPACING
    following = others[others.index(behind) + 1]
    if following.number - behind.number < 2:
        number_lines(minutes.lines)
    return (behind.number + following.number) // 2


def _after(step: FieldSet) -> LineValues:
    return step.after if isinstance(step.after, dict) else {}


def _read_text(line: LineRow, names: dict[str, str]) -> str:
    return line.person_text or with_names(line.text, names)


def _ended(text: str) -> str:
    return text if text.endswith((".", "!", "?", "…")) else f"{text}."
