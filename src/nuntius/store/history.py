"""What people changed on a record: who, when, and what stood there before and after."""

from dataclasses import dataclass
from datetime import datetime

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.accounts import account_names
from nuntius.store.models import Change, LineRow, Meeting, Person, Speaker, TurnRow
from nuntius.store.undoable import Edit, Field, FieldSet, Together, TurnsReplaced, edit_of

MOST = 500  # changes shown, the newest first
SHOWN = 300  # characters of a text that are shown


@dataclass(frozen=True, slots=True)
class HistoryEntry:
    """One change in words; `start` is the second of the recording that it is about, where there is one."""

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
        HistoryEntry(names.get(c.user_id, "Somebody"), c.at, *_described(session, edit_of(c), people), undone=c.undone)
        for c in session.scalars(query)
    ]


def _described(session: Session, edit: Edit, people: dict[int, str]) -> tuple[str, str, str, float | None]:
    """What was done, the texts before and after, and where."""
    if isinstance(edit, Together):
        return _described_together(edit)
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


def _described_together(edit: Together) -> tuple[str, str, str, float | None]:
    replaced = next((step for step in edit.steps if isinstance(step, TurnsReplaced)), None)
    if replaced is not None:
        said = replaced.before[0].person_words or replaced.before[0].words
        return _what(replaced), "", _short(_text(said)), _begin(said)
    steps = [step for step in edit.steps if isinstance(step, FieldSet)]
    if any(step.field == Field.TURN_VOICE for step in steps):
        return "Made two voices one", "", "", None
    turns = [step for step in steps if step.field == Field.TURN]
    if not turns:
        return "Put words in place of others", "", "", None
    old, new = turns[0].before, turns[0].after
    more = f" in {len(turns)} turns" if len(turns) > 1 else ""
    return f"Put words in place of others{more}", _text(old), _text(new), _begin(new or old)


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
