"""Notes and marks that people make while a meeting runs, or on its record."""

from collections.abc import Sequence

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.live.turns import turn_start
from nuntius.core.minutes.line import LineKind, MeetingFacts, Note
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.live import live_lines
from nuntius.store.models import AgendaRow, LineRow, MarkRow, Meeting, MinutesRow, NoteRow, Person, User
from nuntius.store.transcripts import turns_of

CHAT = "Chat"  # label of the marks that chat lines become; nobody pointed anything out by them
LONGEST_NOTE = 4000  # characters
MOST_NOTES = 2000  # paragraphs of one person on one meeting


def notes_of(session: Session, user: User, meeting_id: str) -> list[NoteRow]:
    """One's own notes in the order of the pad."""
    return notes_of_all(session, [user.id], meeting_id)[user.id]


def notes_of_all(session: Session, user_ids: Sequence[int], meeting_id: str) -> dict[int, list[NoteRow]]:
    """The own notes of each of the accounts in the order of the pad."""
    query = select(NoteRow).where(NoteRow.meeting_id == meeting_id, NoteRow.user_id.in_(user_ids))
    notes: dict[int, list[NoteRow]] = {user_id: [] for user_id in user_ids}
    for row in session.scalars(query.order_by(NoteRow.position, NoteRow.at, NoteRow.id)):
        notes[row.user_id].append(row)
    return notes


def put_note(
    session: Session, user: User, meeting: Meeting, note_id: str, text: str, at: float, position: float, private: bool
) -> NoteRow:
    """Writes a paragraph of one's own notes, new or again. Raises NotFound for another's, Conflict when too long."""
    if len(text) > LONGEST_NOTE:
        raise Conflict(f"A paragraph holds at most {LONGEST_NOTE:,} characters. Begin a new one with Enter.")
    note = session.get(NoteRow, note_id)
    if note is None:
        if len(notes_of(session, user, meeting.id)) >= MOST_NOTES:
            raise Conflict(f"There are {MOST_NOTES:,} paragraphs on this pad already.")
        note = NoteRow(id=note_id, meeting_id=meeting.id, user_id=user.id, at=max(0.0, at))
        session.add(note)
    elif note.user_id != user.id or note.meeting_id != meeting.id:
        raise NotFound()
    note.text, note.position, note.private = text, position, private
    session.flush()
    return note


def remove_note(session: Session, user: User, meeting: Meeting, note_id: str) -> None:
    """Takes a paragraph off one's own pad; none there is fine."""
    note = session.get(NoteRow, note_id)
    if note is not None and note.user_id == user.id and note.meeting_id == meeting.id:
        session.delete(note)


def marks_of(session: Session, meeting_id: str) -> list[MarkRow]:
    """Marks by their place."""
    return list(session.scalars(select(MarkRow).where(MarkRow.meeting_id == meeting_id).order_by(MarkRow.start)))


def put_mark(
    session: Session, user: User, meeting: Meeting, mark_id: str, label: str, start: float, end: float, text: str
) -> MarkRow:
    """A mark whose stretch begins with the turn being spoken at `start`; an existing one gets its label and text."""
    mark = session.get(MarkRow, mark_id)
    if mark is None:
        begun = _turn_begun(session, meeting.id, start)
        mark = MarkRow(id=mark_id, meeting_id=meeting.id, user_id=user.id, start=min(begun, start), end=max(start, end))
        session.add(mark)
    elif mark.user_id != user.id or mark.meeting_id != meeting.id:
        raise NotFound()
    mark.label, mark.text = label, text
    session.flush()
    return mark


def _turn_begun(session: Session, meeting_id: str, at: float) -> float:
    """Start in seconds of the turn being spoken at `at`, else of the last one before it; `at` where nobody spoke."""
    turns = turns_of(session, meeting_id)
    if not turns:
        return turn_start(live_lines(session, meeting_id), at)
    starts = [(row.person_words or row.words)[0][1] for row in turns if row.words]
    return max((start for start in starts if start <= at), default=at)


def remove_mark(session: Session, user: User, meeting: Meeting, mark_id: str) -> None:
    """Takes one's own mark away; none there is fine."""
    mark = session.get(MarkRow, mark_id)
    if mark is not None and mark.user_id == user.id and mark.meeting_id == meeting.id:
        session.delete(mark)


def facts_of(session: Session, meeting: Meeting) -> MeetingFacts:
    """What is known of a meeting beside its talk: day, people, agenda, notes for the minutes, marks."""
    notes = session.execute(
        select(NoteRow, Person.label)
        .join(Person, Person.user_id == NoteRow.user_id)
        .where(NoteRow.meeting_id == meeting.id, NoteRow.private.is_(False), NoteRow.text != "")
        .order_by(NoteRow.at, NoteRow.position)
    ).all()
    agenda = select(AgendaRow.title).where(AgendaRow.meeting_id == meeting.id).order_by(AgendaRow.number)
    return MeetingFacts(
        meeting.begun.date(),
        tuple(person.label for person in meeting.people),
        tuple(session.scalars(agenda)),
        tuple(Note(note.text, note.at, name) for note, name in notes),
        tuple((mark.start, mark.end) for mark in marks_of(session, meeting.id) if mark.label != CHAT),
        _unwanted(session, meeting),
        meeting.begun.time(),
    )


def _unwanted(session: Session, meeting: Meeting) -> tuple[tuple[str, str], ...]:
    """Kind and text of what was thrown out of the other meetings of the series, notes aside."""
    query = (
        select(LineRow.kind, LineRow.text)
        .join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
        .join(Meeting, Meeting.id == MinutesRow.meeting_id)
        .where(
            Meeting.workspace_id == meeting.workspace_id,
            Meeting.id != meeting.id,
            Meeting.series == meeting.series,
            LineRow.thrown_out.is_not(None),
            LineRow.kind != LineKind.NOTE,
        )
        .order_by(LineRow.id)
    )
    return tuple(session.execute(query).tuples()) if meeting.series else ()
