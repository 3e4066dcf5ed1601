"""Minutes: kept line by line, made again without losing what a person did."""

from bisect import bisect_right
from collections.abc import Iterable, Iterator, Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import (
    RULES,
    Answer,
    Line,
    LineKind,
    LineState,
    Minutes,
    MinutesSource,
    Passage,
    Progress,
)
from nuntius.core.minutes.matching import Comparable, covered, matched
from nuntius.core.templates.template import Template
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.errors import Conflict
from nuntius.store.line_rows import anchor, evidence_row, number_lines, put_values, spans_of, value_of
from nuntius.store.models import Change, LineRow, Meeting, MinutesRow
from nuntius.store.models.base import now
from nuntius.store.transcripts import names_of, with_names
from nuntius.store.undoable import OF_LINE, OF_TURNS, Field, Step, Together, TurnsReplaced, edit_of, write_steps
from nuntius.store.versions import keep_version, standing

WRITTEN = (  # by the machine, where no person set it; where a line stands apart
    "text", "state", "answer", "why", "doubts", "kind", "owner", "due", "due_said", "progress", "evidence",
)  # fmt: skip
ABSORBED = 0.8  # share of what a line rests on that lies within a person's own line of its kind, which says it already


def save_minutes(
    session: Session,
    meeting_id: str,
    transcript: Transcript,
    minutes: Minutes,
    template: Template,
    source: MinutesSource = MinutesSource.SETTLED,
) -> None:
    """Replaces the machine's minutes; what a person changed, added, ticked or threw out stays, each line keeps its number.

    `template` is the one that they were made by; `source` says what they were written from: `live` text, or the `settled` transcript.
    """
    row = get_minutes(session, meeting_id)
    before = standing(row) if row else None
    fresh = [_row(transcript, line) for line in minutes.shown]
    starts = [transcript.turns[chapter.first].start for chapter in minutes.chapters]
    lines = _merged(row, fresh, minutes, template, transcript, starts) if row else fresh
    number_lines(lines)
    if row is None:
        row = MinutesRow(meeting_id=meeting_id)
        session.add(row)
    row.made_at, made_before = now(), row.made_at
    row.source, row.length, row.fine, row.remark = source, minutes.length, minutes.fine, minutes.remark
    row.sections, row.detailed = list(minutes.sections), sorted(minutes.detailed)
    row.coverage, row.gaps = minutes.coverage.share, list(minutes.coverage.gaps)
    row.chapters = [
        {
            "title": chapter.title,
            "first": chapter.first,
            "last": chapter.last,
            "start": transcript.turns[chapter.first].start,
            "end": max(t.end for t in transcript.turns[chapter.first : chapter.last + 1]),
        }
        for chapter in minutes.chapters
    ]
    row.lines = lines
    session.flush()
    if before is not None:
        keep_version(session, row, before, made_before)
    _drop_changes(session, meeting_id, {line.id for line in lines})


def _drop_changes(session: Session, meeting_id: str, there: set[int]) -> None:
    """Changes of lines that are gone can no longer be taken back."""
    for change in session.scalars(select(Change).where(Change.meeting_id == meeting_id)):
        edit = edit_of(change)
        if isinstance(edit, Together):
            lasting = tuple(_lasting(edit.steps, there))
            write_steps(change, Together(lasting))
            if not lasting:
                session.delete(change)
        elif edit.field in OF_LINE and edit.target not in there and not (edit.field == Field.LINE_ROW and edit.before):
            session.delete(change)


def _lasting(steps: Iterable[Step], there: set[int]) -> Iterator[Step]:
    """The steps of a change that can still be taken back: the machine's own lines and titles are new."""
    for step in steps:
        if (
            isinstance(step, TurnsReplaced)
            or step.field in (*OF_TURNS, Field.VOICE, Field.THERE)
            or step.field == Field.LINE_ROW
            or (step.field in OF_LINE and step.target in there)
        ):
            yield step


def get_minutes(session: Session, meeting_id: str) -> MinutesRow | None:
    """The minutes of a meeting, or None before they are made."""
    return session.scalar(select(MinutesRow).where(MinutesRow.meeting_id == meeting_id))


def written_minutes(session: Session, meeting: Meeting) -> MinutesRow:
    """The minutes of a meeting. Raises Conflict before there are any."""
    row = get_minutes(session, meeting.id)
    if row is None:
        raise Conflict("There are no minutes yet. Wait until the work on the recording is done.")
    return row


def standing_lines(session: Session, meeting_id: str, transcript: Transcript) -> list[Line]:
    """The lines as they stand, a person's words in place of the machine's; none that was thrown out or whose words are gone."""
    row = get_minutes(session, meeting_id)
    rows = [line for line in row.lines if line.thrown_out is None] if row is not None else []
    names = names_of(session, meeting_id)
    return [line for line in (_standing(each, transcript, names) for each in rows) if line.evidence]


def standing_state(row: LineRow) -> LineState:
    """How a line stands: what the talk says, and of a task what a person says of it."""
    if row.kind != LineKind.ACTION or row.state == LineState.SUPERSEDED:
        return row.state
    return {Progress.DROPPED: LineState.SUPERSEDED, Progress.DONE: LineState.SETTLED}.get(row.progress, LineState.OPEN)


def _standing(row: LineRow, transcript: Transcript, names: dict[str, str]) -> Line:
    proof, answered = (
        tuple(
            Passage(each.turn, each.first, min(each.last, len(transcript.turns[each.turn].words) - 1))
            for each in row.evidence
            if each.of_answer == of_answer
            and each.turn < len(transcript.turns)
            and each.first < len(transcript.turns[each.turn].words)
        )
        for of_answer in (False, True)
    )
    return Line(
        row.kind,
        row.person_text or with_names(row.text, names),
        proof,
        owner=tuple(names.get(owner, owner) for owner in row.owner),
        due=row.due,
        state=standing_state(row),
        answer=Answer(with_names(row.answer, names), answered) if row.answer else None,
        why=row.why if row.why in RULES else "",
    )


def _row(transcript: Transcript, line: Line) -> LineRow:
    evidence = [evidence_row(transcript, p, False) for p in line.evidence]
    if line.answer:
        evidence += [evidence_row(transcript, p, True) for p in line.answer.evidence]
    done = line.kind == LineKind.ACTION and line.state == LineState.SETTLED
    return LineRow(
        kind=line.kind,
        place=line.place,
        chapter=line.chapter,
        text=line.text,
        owner=list(line.owner),
        due=line.due,
        due_said=line.due_said,
        state=line.state,
        answer=line.answer.text if line.answer else None,
        why=line.why,
        doubts=list(line.doubts),
        progress=Progress.DONE if done else Progress.OPEN,
        remark="",
        set_by_person=[],
        joined=[],
        evidence=evidence,
    )


# --- lines before and after ---


def _merged(
    old: MinutesRow,
    fresh: list[LineRow],
    minutes: Minutes,
    template: Template,
    transcript: Transcript,
    starts: Sequence[float],
) -> list[LineRow]:
    """The new lines in their order: rows of before where a line is the same, and what a person did in its place."""
    before = list(old.lines)
    pairs = matched([_comparable(line) for line in before], [_comparable(line) for line in fresh])
    was = {j: before[i] for i, j in pairs.items()}
    own = [line for i, line in enumerate(before) if i not in pairs and is_touched(line)]
    shown = [was.get(j) or line for j, line in enumerate(fresh) if j in was or not _is_absorbed(line, before)]
    titles = [title for title, _ in minutes.sections]
    for i, j in pairs.items():
        _renew(before[i], fresh[j], _own_place(before[i], old, titles), transcript)
    for line in own:
        place = _own_place(line, old, titles)
        line.place = _place(line, template) if place is None else place
        line.chapter = _chapter(line, starts)
        anchor(line.evidence, transcript)
    ordered = [line for line in before if line in own or "number" in line.set_by_person]
    return _in_order(before, [line for line in shown if line not in ordered], ordered)


def _comparable(line: LineRow) -> Comparable:
    return Comparable(
        None if "kind" in (line.set_by_person or ()) else line.kind, line.text, spans_of(line), is_touched(line)
    )


def _is_absorbed(line: LineRow, before: Sequence[LineRow]) -> bool:
    """Whether a new line tells what a line that a person joined or wrote tells already."""
    own = [each for each in before if each.kind == line.kind and (each.made_by is not None or each.joined)]
    return any(covered(spans_of(line), spans_of(each)) >= ABSORBED for each in own)


def _renew(line: LineRow, fresh: LineRow, own_place: int | None, transcript: Transcript) -> None:
    """Puts what the machine wrote this time into the row that a line has had; what a person set, wrote or checked stays."""
    line.number, line.chapter = fresh.number, fresh.chapter
    line.place = fresh.place if own_place is None else own_place
    if line.checked_by is not None or line.made_by is not None:
        anchor(line.evidence, transcript)
        return
    put_values(line, {name: value_of(fresh, name) for name in WRITTEN if name not in line.set_by_person})
    if "evidence" in line.set_by_person:
        anchor(line.evidence, transcript)


def _own_place(line: LineRow, old: MinutesRow, titles: Sequence[str]) -> int | None:
    """The section that a person chose for a line, by its title; None where they chose none or it is not there now."""
    if "place" not in line.set_by_person and line.made_by is None:
        return None
    title = old.sections[line.place][0] if line.place < len(old.sections) else ""
    return titles.index(title) if title in titles else None


def _in_order(before: Sequence[LineRow], shown: list[LineRow], own: Iterable[LineRow]) -> list[LineRow]:
    """`shown` with a person's own lines behind the line that each has stood behind in its section."""
    lines = list(shown)
    for line in own:
        ahead = [each for each in before[: before.index(line)] if each in lines and each.place == line.place]
        rest = [each for each in lines if each.place == line.place]
        at = lines.index(ahead[-1]) + 1 if ahead else lines.index(rest[0]) if rest else len(lines)
        lines.insert(at, line)
    return lines


def _chapter(row: LineRow, starts: Sequence[float]) -> int:
    """The chapter in which a line's first passage lies now; `starts` are the seconds at which the chapters begin."""
    first = min((each.start for each in row.evidence), default=0.0)
    return max(0, bisect_right(starts, first + 0.01) - 1)


def _place(row: LineRow, template: Template) -> int:
    """The section of a line that a person touched; the last one where the template has none for its kind."""
    line = Line(row.kind, row.text, (), state=row.state)
    said = " ".join((row.text, *(e.quote for e in row.evidence))).lower()
    place = template.place(line, said, frozenset())
    return len(template.sections) if place is None else place


def is_touched(line: LineRow) -> bool:
    """Whether a person added, changed, ticked or threw out a line."""
    ways = (line.person_text, line.checked_by, line.thrown_out, line.made_by)
    return any(way is not None for way in ways) or bool(line.set_by_person) or bool(line.remark) or bool(line.joined)
