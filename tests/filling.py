"""Many meetings at once, straight into the database: for tests of lists and for measuring."""

from datetime import timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.models import (
    EvidenceRow,
    Excerpt,
    Job,
    LineRow,
    Meeting,
    MinutesRow,
    Person,
    Recording,
    Speaker,
    TurnRow,
    User,
    now,
)

PEOPLE, THERE = 12, 6  # people in all, and of each meeting
TURN = 40  # words of a turn


def fill(session: Session, user: User, first: int, count: int, words: int = 40, lines: int = 1) -> None:
    """Meetings `first` to `first + count` run by `user`, each with `words` words, minutes, a job and an excerpt.

    The job of every third one waits, the others are done.
    """
    people = _people(session, user)
    for number in range(first, first + count):
        meeting = Meeting(
            workspace_id=user.workspace_id,
            title=f"Boat affairs {number}",
            kind="committee",
            time_zone="UTC",
            starts_at=now() - timedelta(hours=number),
            runner_id=user.id,
            people=[people[(number + n) % PEOPLE] for n in range(THERE)],
        )
        session.add(meeting)
        session.flush()
        speaker = Speaker(meeting_id=meeting.id, label="Voice A", person_id=people[number % PEOPLE].id)
        minutes = MinutesRow(meeting_id=meeting.id, sections=[], detailed=[], coverage=1.0, gaps=[], chapters=[])
        session.add_all([speaker, minutes])
        session.add(Recording(meeting_id=meeting.id, name="a.wav", digest="0" * 64, duration=3600.0))
        session.add(Job(meeting_id=meeting.id, state="done" if number % 3 else "waiting"))
        session.add(
            Excerpt(meeting_id=meeting.id, user_id=user.id, title="T", speakers=["Voice A"], start=0, end=1, quote="Q")
        )
        session.flush()
        session.add_all(_turn(speaker, n) for n in range(max(1, words // TURN)))
        session.add_all(_line(minutes, n) for n in range(lines))


def _people(session: Session, user: User) -> list[Person]:
    found = list(session.scalars(select(Person).where(Person.name_key.like("person %")).order_by(Person.id)))
    if not found:
        made = [(f"Person {n}", f"person {n}") for n in range(PEOPLE)]
        found = [Person(workspace_id=user.workspace_id, name=name, name_key=key) for name, key in made]
        session.add_all(found)
        session.flush()
    return found


def _turn(speaker: Speaker, number: int) -> TurnRow:
    at = number * TURN / 2
    said = [[f"word{n}", at + n / 2, at + n / 2 + 0.4, 0.9] for n in range(TURN)]
    return TurnRow(meeting_id=speaker.meeting_id, number=number, speaker_id=speaker.id, cue="", words=said)


def _line(minutes: MinutesRow, number: int) -> LineRow:
    evidence = EvidenceRow(turn=number, first=0, last=9, start=0.0, end=5.0, quote="Paint it.")
    return LineRow(
        minutes_id=minutes.id,
        number=number,
        kind="action" if number < 5 else "key_point",
        chapter=0,
        text=f"Paint boat {number}.",
        owner=["Voice A"],
        state="",
        why="",
        evidence=[evidence],
    )
