"""What a person changes on a record: voices, turns, lines, ticks; each can be taken back and done again."""

from collections.abc import Callable, Iterable

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import ThrowOutReason
from nuntius.core.transcript.edits import retimed, substituted
from nuntius.core.vocabulary import Place, core, put_right, replaced
from nuntius.store.errors import ChangedMeanwhile, Conflict, NotFound, NothingToUndo
from nuntius.store.line_changes import anchor_lines, set_line
from nuntius.store.line_changes import stands as line_stands
from nuntius.store.models import (
    Base,
    Change,
    LineRow,
    LiveLineRow,
    Meeting,
    MinutesRow,
    Person,
    Recording,
    Speaker,
    TurnRow,
    User,
)
from nuntius.store.people import named_person
from nuntius.store.rooms import room_of, touch
from nuntius.store.transcripts import packed, speaker_of, turns_of, unpacked
from nuntius.store.turn_pieces import pieces_at, replace_turns
from nuntius.store.undoable import Edit, Field, FieldSet, Step, Together, TurnsReplaced, edit_of, row_of

LONGEST_LINE = 4000  # characters
LONGEST_TURN = 20_000  # characters


def name_voice(session: Session, user: User, meeting: Meeting, speaker_id: int, name: str | None) -> Change:
    """Matches a voice to the person of this name (made if new), or to nobody.

    Whoever spoke took part: the person joins those who did. Where that opens the meeting to an account, only whoever
    runs it adds them.
    """
    speaker = speaker_of(session, meeting, speaker_id)
    person = named_person(session, meeting.workspace_id, name) if name and name.strip() else None
    named = FieldSet(Field.VOICE, speaker.id, speaker.person_id, person.id if person else None)
    if person is None or person in meeting.people or (person.user_id and meeting.runner_id != user.id):
        return _do(session, user, meeting, named)
    return change_together(session, user, meeting, [named, FieldSet(Field.THERE, person.id, None, meeting.id)])


def correct_turn(
    session: Session, user: User, meeting: Meeting, number: int, text: str, was: str | None = None
) -> Change:
    """Puts a person's text in place of a turn's words; their times are kept by alignment.

    `was` is the text that the person began from. Raises ChangedMeanwhile where another stands there by now.
    """
    query = select(TurnRow).where(TurnRow.meeting_id == meeting.id, TurnRow.number == number)
    turn = session.scalar(query)
    if turn is None:
        raise NotFound()
    if not text.strip() or len(text) > LONGEST_TURN:
        raise Conflict(f"A turn holds between one word and {LONGEST_TURN:,} characters.")
    current = turn.words if turn.person_words is None else turn.person_words
    _unchanged(session, meeting, Field.TURN, turn.id, was, " ".join(word[0] for word in current))
    return _do(
        session,
        user,
        meeting,
        FieldSet(Field.TURN, turn.id, turn.person_words, packed(retimed(unpacked(current), text))),
    )


def correct_live(session: Session, user: User, meeting: Meeting, number: int, text: str) -> Change:
    """Puts a person's text in place of a live line; the words of the better recogniser will take it over."""
    query = select(LiveLineRow).where(LiveLineRow.meeting_id == meeting.id, LiveLineRow.number == number)
    line = session.scalar(query)
    if line is None or not line.text:
        raise NotFound()
    text = " ".join(text.split())
    if not text or len(text) > LONGEST_LINE:
        raise Conflict(f"A line holds between one word and {LONGEST_LINE:,} characters.")
    return _do(session, user, meeting, FieldSet(Field.LIVE, line.id, line.person_text, text))


def _unchanged(session: Session, meeting: Meeting, field: Field, target: int, was: str | None, stands: str) -> None:
    """Raises ChangedMeanwhile unless what a person began from still stands there."""
    if was is None or was.split() == stands.split():
        return
    query = (
        select(Person.label)
        .join(Change, Change.user_id == Person.user_id)
        .where(Change.meeting_id == meeting.id, Change.undone.is_(False))
    )
    own = query.where(Change.kind == field, Change.target == target).order_by(Change.id.desc())
    raise ChangedMeanwhile(session.scalars(own).first() or "Somebody", stands)


def edit_line(
    session: Session, user: User, meeting: Meeting, line_id: int, text: str, was: str | None = None
) -> Change:
    """Puts a person's text in place of a line. Raises ChangedMeanwhile where another than `was` stands there by now."""
    line = line_of(session, meeting, line_id)
    _unchanged(session, meeting, Field.LINE, line.id, was, line.person_text or line.text)
    text = " ".join(text.split())
    if not text or len(text) > LONGEST_LINE:
        raise Conflict(f"A line holds between one word and {LONGEST_LINE:,} characters.")
    return _do(session, user, meeting, FieldSet(Field.LINE, line.id, line.person_text, text))


def tick_line(session: Session, user: User, meeting: Meeting, line_id: int, checked: bool) -> Change:
    """Marks a line as checked by this person, or takes the tick away."""
    line = line_of(session, meeting, line_id)
    return _do(session, user, meeting, FieldSet(Field.TICK, line.id, line.checked_by, user.id if checked else None))


def throw_out(session: Session, user: User, meeting: Meeting, line_id: int, reason: ThrowOutReason | None) -> Change:
    """Throws a line out of the minutes for a reason, or takes it back in."""
    line = line_of(session, meeting, line_id)
    return _do(session, user, meeting, FieldSet(Field.THROW, line.id, line.thrown_out, reason))


def put_term_right(
    session: Session, user: User, meeting: Meeting, term: str, heard: str, places: list[Place]
) -> Change:
    """Puts a term in place of a form that was heard for it: in the turns, the lines and the titles of chapters.

    Raises NotFound for a place that is not there, Conflict where the words there are others by now.
    """
    steps = [
        *_turns_put_right(session, meeting, term, heard, places),
        *_written_otherwise(session, meeting, lambda text: replaced(text, heard, term)),
    ]
    return change_together(session, user, meeting, steps)


def _turns_put_right(session: Session, meeting: Meeting, term: str, heard: str, places: list[Place]) -> list[FieldSet]:
    """Every turn in which a form stands, with the term in its place."""
    rows = {row.number: row for row in turns_of(session, meeting.id)}
    made: list[FieldSet] = []
    for number in sorted({place.turn for place in places}):
        row = rows.get(number)
        if row is None:
            raise NotFound()
        words = unpacked(row.words if row.person_words is None else row.person_words)
        for place in sorted((p for p in places if p.turn == number), reverse=True):
            if " ".join(core(word.text) for word in words[place.first : place.last + 1]) != heard:
                raise Conflict("Somebody has changed these words meanwhile. Look through the meeting again.")
            words = retimed(words, put_right(words, place.first, place.last, term))
        made.append(FieldSet(Field.TURN, row.id, row.person_words, packed(words)))
    return made


def _written_otherwise(session: Session, meeting: Meeting, put: Callable[[str], str]) -> list[FieldSet]:
    """The same of lines, their answers and the titles of chapters that `put` writes otherwise."""
    minutes = session.scalar(select(MinutesRow).where(MinutesRow.meeting_id == meeting.id))
    if minutes is None:
        return []
    made: list[FieldSet] = []
    for line in minutes.lines:
        for field, text in ((Field.HEARD, line.text), (Field.LINE, line.person_text), (Field.ANSWER, line.answer)):
            if text and (after := put(text)) != text and after.strip():
                made.append(FieldSet(field, line.id, text, after))
    chapters = [{**each, "title": put(each["title"]) or each["title"]} for each in minutes.chapters]
    if chapters != minutes.chapters:
        made.append(FieldSet(Field.CHAPTERS, minutes.id, minutes.chapters, chapters))
    return made


def replace_words(
    session: Session, user: User, meeting: Meeting, wanted: str, instead: str, exactly: bool
) -> tuple[Change | None, int]:
    """Puts `instead` in place of `wanted` wherever it stands as words of its own, and says how often it stood there.

    `exactly` minds capital letters. No change where it stands nowhere.
    """
    steps: list[FieldSet] = []
    count = 0
    for row in turns_of(session, meeting.id):
        words = unpacked(row.words if row.person_words is None else row.person_words)
        text, found = substituted(" ".join(word.text for word in words), wanted, instead, exactly)
        count += found
        if found:
            if not text.strip():
                raise Conflict("This would leave a turn without words. Remove the stretch from the record instead.")
            steps.append(FieldSet(Field.TURN, row.id, row.person_words, packed(retimed(words, text))))
    steps += _written_otherwise(session, meeting, lambda text: substituted(text, wanted, instead, exactly)[0])
    return (change_together(session, user, meeting, steps) if steps else None), count


def count_words(session: Session, meeting: Meeting, wanted: str, exactly: bool) -> int:
    """How often `wanted` stands in what was said."""
    rows = turns_of(session, meeting.id)
    read = (row.words if row.person_words is None else row.person_words for row in rows)
    return sum(substituted(" ".join(word[0] for word in words), wanted, "", exactly)[1] for words in read)


def change_together(session: Session, user: User, meeting: Meeting, steps: Iterable[Step]) -> Change:
    """Carries out several steps as one change that is taken back at once."""
    return _do(session, user, meeting, Together(tuple(steps)))


def undo(session: Session, user: User, meeting: Meeting) -> Change:
    """Takes back this person's newest change. Raises NothingToUndo."""
    change = _newest(session, user, meeting, undone=False)
    _apply(session, edit_of(change).reversed())
    change.undone = True
    return change


def redo(session: Session, user: User, meeting: Meeting) -> Change:
    """Does the change again that was taken back last. Raises NothingToUndo."""
    query = select(Change).where(Change.meeting_id == meeting.id, Change.user_id == user.id, Change.undone.is_(True))
    change = session.scalars(query.order_by(Change.id)).first()
    if change is None:
        raise NothingToUndo()
    _apply(session, edit_of(change))
    change.undone = False
    return change


def take_back(session: Session, user: User, meeting: Meeting, change_id: int) -> Change:
    """Puts back what stood before one change, whoever made it, as a change of `user`'s own.

    Raises NotFound, Conflict where something else stands there by now.
    """
    change = session.get(Change, change_id)
    if change is None or change.meeting_id != meeting.id:
        raise NotFound()
    edit = edit_of(change).reversed()
    steps = edit.steps if isinstance(edit, Together) else (edit,)
    if change.undone or not steps or not all(_stands(session, step) for step in steps):
        raise Conflict("This was changed again, or taken back, since. Take the later change back first.")
    return _do(session, user, meeting, edit)


def _stands(session: Session, step: Step) -> bool:
    """Whether what a step begins from stands there; what is written again in any case does not matter."""
    if isinstance(step, TurnsReplaced):
        return pieces_at(session, step) == step.before
    if step.field in (Field.LINE_SET, Field.LINE_ROW):
        return line_stands(session, step)
    if step.field == Field.THERE:
        return True
    table, column = _COLUMNS[step.field]
    row = session.get(table, step.target)
    return step.field in _REWRITTEN or (row is not None and getattr(row, column) == step.before)


def _newest(session: Session, user: User, meeting: Meeting, undone: bool) -> Change:
    query = select(Change).where(Change.meeting_id == meeting.id, Change.user_id == user.id, Change.undone.is_(undone))
    change = session.scalars(query.order_by(Change.id.desc())).first()
    if change is None:
        raise NothingToUndo()
    return change


def _do(session: Session, user: User, meeting: Meeting, edit: Edit) -> Change:
    """Carries out a change and remembers it; what had been taken back can no longer be done again."""
    gone = select(Change).where(Change.meeting_id == meeting.id, Change.user_id == user.id, Change.undone.is_(True))
    for old in session.scalars(gone):
        session.delete(old)
    _apply(session, edit)
    change = row_of(edit, meeting.id, user.id)
    session.add(change)
    session.flush()
    return change


_COLUMNS: dict[Field, tuple[type[Base], str]] = {
    Field.VOICE: (Speaker, "person_id"),
    Field.TURN: (TurnRow, "person_words"),
    Field.LINE: (LineRow, "person_text"),
    Field.TICK: (LineRow, "checked_by"),
    Field.THROW: (LineRow, "thrown_out"),
    Field.LIVE: (LiveLineRow, "person_text"),
    Field.HEARD: (LineRow, "text"),
    Field.ANSWER: (LineRow, "answer"),
    Field.CHAPTERS: (MinutesRow, "chapters"),
    Field.OWNER: (LineRow, "owner"),
    Field.TURN_VOICE: (TurnRow, "speaker_id"),
    Field.SPANS: (Recording, "spans"),
}
# What is written again from the turns in any case, so that a change goes on without it where the minutes are others by now.
_REWRITTEN = (Field.HEARD, Field.ANSWER, Field.CHAPTERS, Field.OWNER)
_FOLLOWS = (*_REWRITTEN, Field.LINE)


def _apply(session: Session, edit: Edit) -> None:
    """Puts what stands after a change in place. Raises Conflict where what it changes is not there any more."""
    if isinstance(edit, FieldSet):
        _set(session, edit)
        return
    for step in edit.steps:
        if isinstance(step, TurnsReplaced):
            replace_turns(session, step)
        elif step.field not in _FOLLOWS or session.get(_COLUMNS[step.field][0], step.target) is not None:
            _set(session, step)
    anchor_lines(session, edit.steps)


def _set(session: Session, step: FieldSet) -> None:
    if step.field in (Field.LINE_SET, Field.LINE_ROW):
        set_line(session, step)
        return
    if step.field == Field.THERE:
        _set_there(session, step)
        return
    table, column = _COLUMNS[step.field]
    row = session.get(table, step.target)
    if row is None:
        raise Conflict("The minutes were made again since, so this change can no longer be taken back.")
    setattr(row, column, step.after)
    _tell_room(session, row)
    session.flush()


def _set_there(session: Session, step: FieldSet) -> None:
    """Adds somebody to those who took part, or takes them off; where they are so already, nothing changes."""
    person, meeting = session.get_one(Person, step.target), session.get_one(Meeting, step.after or step.before)
    if step.after is not None and person not in meeting.people:
        meeting.people.append(person)
    elif step.after is None and person in meeting.people:
        meeting.people.remove(person)
    session.flush()


def _tell_room(session: Session, row: Base) -> None:
    """Lets those who watch a meeting that is being recorded see the change."""
    room = room_of(session, row.meeting_id) if isinstance(row, Speaker | LiveLineRow) else None
    if room is None:
        return
    version = touch(room)
    if isinstance(row, LiveLineRow):
        row.version = version


def line_of(session: Session, meeting: Meeting, line_id: int) -> LineRow:
    """One line of the minutes of a meeting. Raises NotFound."""
    query = select(LineRow).join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
    line = session.scalar(query.where(LineRow.id == line_id, MinutesRow.meeting_id == meeting.id))
    if line is None:
        raise NotFound()
    return line
