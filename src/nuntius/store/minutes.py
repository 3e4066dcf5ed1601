"""Minutes: kept line by line, made again without losing what a person did."""

from bisect import bisect_right
from collections.abc import Iterable, Iterator
from dataclasses import replace

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import RULES, Answer, Line, Minutes, MinutesSource, Passage
from nuntius.core.templates.template import Template
from nuntius.core.transcript.transcript import Transcript
from nuntius.store.models import Change, EvidenceRow, LineRow, MinutesRow
from nuntius.store.transcripts import names_of, with_names
from nuntius.store.undoable import OF_LINE, OF_TURNS, Field, Step, Together, TurnsReplaced, edit_of, write_steps


def save_minutes(
    session: Session,
    meeting_id: str,
    transcript: Transcript,
    minutes: Minutes,
    template: Template,
    source: MinutesSource = MinutesSource.SETTLED,
) -> None:
    """Replaces the machine's minutes; lines that a person changed, ticked or threw out stay so.

    `template` is the one that they were made by; `source` says what they were written from: `live` text, or the `settled` transcript.
    """
    old = get_minutes(session, meeting_id)
    touched = [line for line in old.lines if _is_touched(line)] if old else []
    rows = [_row(transcript, number, line) for number, line in enumerate(minutes.shown)]
    starts = [transcript.turns[chapter.first].start for chapter in minutes.chapters]
    places = {line.id: _carried(line, rows, template, starts) for line in touched}
    if old:
        session.execute(delete(MinutesRow).where(MinutesRow.id == old.id))
        session.expunge(old)
    session.add(
        MinutesRow(
            meeting_id=meeting_id,
            source=source,
            length=minutes.length,
            sections=list(minutes.sections),
            detailed=sorted(minutes.detailed),
            fine=minutes.fine,
            remark=minutes.remark,
            coverage=minutes.coverage.share,
            gaps=[list(gap) for gap in minutes.coverage.gaps],
            chapters=[
                {
                    "title": chapter.title,
                    "first": chapter.first,
                    "last": chapter.last,
                    "start": transcript.turns[chapter.first].start,
                    "end": max(t.end for t in transcript.turns[chapter.first : chapter.last + 1]),
                }
                for chapter in minutes.chapters
            ],
            lines=rows,
        )
    )
    session.flush()
    _move_changes(session, meeting_id, places)


def _move_changes(session: Session, meeting_id: str, places: dict[int, LineRow]) -> None:
    """Lets undo find the lines in their new places; changes of lines that are gone cannot be undone."""
    for change in session.scalars(select(Change).where(Change.meeting_id == meeting_id)):
        edit = edit_of(change)
        if isinstance(edit, Together):
            write_steps(change, Together(tuple(_moved(edit.steps, places))))
        elif edit.field in OF_LINE and edit.target in places:
            change.target = places[edit.target].id
        elif edit.field in OF_LINE:
            session.delete(change)


def _moved(steps: Iterable[Step], places: dict[int, LineRow]) -> Iterator[Step]:
    """The steps of a change that still have a place: the machine's own lines and titles are new."""
    for step in steps:
        if isinstance(step, TurnsReplaced) or step.field in OF_TURNS:
            yield step
        elif step.field == Field.LINE and step.target in places:
            yield replace(step, target=places[step.target].id)


def get_minutes(session: Session, meeting_id: str) -> MinutesRow | None:
    """The minutes of a meeting, or None before they are made."""
    return session.scalar(select(MinutesRow).where(MinutesRow.meeting_id == meeting_id))


def standing_lines(session: Session, meeting_id: str, transcript: Transcript) -> list[Line]:
    """The lines as they stand, a person's words in place of the machine's; none that was thrown out or whose words are gone."""
    row = get_minutes(session, meeting_id)
    rows = [line for line in row.lines if line.thrown_out is None] if row is not None else []
    names = names_of(session, meeting_id)
    return [line for line in (_standing(each, transcript, names) for each in rows) if line.evidence]


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
        state=row.state,
        answer=Answer(with_names(row.answer, names), answered) if row.answer else None,
        why=row.why if row.why in RULES else "",
    )


def _row(transcript: Transcript, number: int, line: Line) -> LineRow:
    evidence = [_evidence(transcript, p, False) for p in line.evidence]
    if line.answer:
        evidence += [_evidence(transcript, p, True) for p in line.answer.evidence]
    return LineRow(
        number=number,
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
        evidence=evidence,
    )


def _evidence(transcript: Transcript, passage: Passage, of_answer: bool) -> EvidenceRow:
    words = transcript.turns[passage.turn].words[passage.first : passage.last + 1]
    return EvidenceRow(
        of_answer=of_answer,
        turn=passage.turn,
        first=passage.first,
        last=passage.last,
        start=words[0].start,
        end=max(word.end for word in words),
        quote=" ".join(word.text for word in words),
    )


def _carried(old: LineRow, rows: list[LineRow], template: Template, starts: list[float]) -> LineRow:
    """Puts a person's text and tick onto the new line of the same kind and place, else adds the old line."""
    for row in rows:
        if row.kind == old.kind and not _is_touched(row) and _meets(old, row):
            row.person_text, row.checked_by, row.thrown_out = old.person_text, old.checked_by, old.thrown_out
            if old.checked_by and row.text != old.text and row.person_text is None:
                row.person_text = old.text
            return row
    kept = LineRow(
        **{
            name: getattr(old, name)
            for name in (
                "kind",
                "text",
                "person_text",
                "owner",
                "due",
                "due_said",
                "state",
                "answer",
                "why",
                "doubts",
                "checked_by",
                "thrown_out",
            )
        },
        number=len(rows),
        place=_place(old, template),
        chapter=_chapter(old, starts),
        evidence=[
            EvidenceRow(
                of_answer=e.of_answer, turn=e.turn, first=e.first, last=e.last, start=e.start, end=e.end, quote=e.quote
            )
            for e in old.evidence
        ],
    )
    rows.append(kept)
    return kept


def _chapter(row: LineRow, starts: list[float]) -> int:
    """The chapter in which a line's first passage lies now; `starts` are the seconds at which the chapters begin."""
    first = min((each.start for each in row.evidence), default=0.0)
    return max(0, bisect_right(starts, first + 0.01) - 1)


def _place(row: LineRow, template: Template) -> int:
    """The section of a line that a person touched; the last one where the template has none for its kind."""
    line = Line(row.kind, row.text, (), state=row.state)
    said = " ".join((row.text, *(e.quote for e in row.evidence))).lower()
    place = template.place(line, said, frozenset())
    return len(template.sections) if place is None else place


def _is_touched(line: LineRow) -> bool:
    """Whether a person changed, ticked or threw out a line."""
    return line.person_text is not None or line.checked_by is not None or line.thrown_out is not None


def _meets(a: LineRow, b: LineRow) -> bool:
    """Whether two lines rest on sound in common."""
    return any(
        x.start < y.end and y.start < x.end
        for x in a.evidence
        for y in b.evidence
        if not x.of_answer and not y.of_answer
    )
