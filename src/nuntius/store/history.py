"""What people changed on a record: who, when, and what stood there before and after."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.accounts import account_names
from nuntius.store.models import Change, LineRow, Meeting, Person, Speaker, TurnRow

MOST = 500  # changes told, the newest first
SHOWN = 300  # characters of a text that are shown


@dataclass(frozen=True, slots=True)
class Told:
    """One change in words; `start` is the second of the recording that it is about, where there is one."""

    who: str
    at: datetime
    what: str
    before: str
    after: str
    start: float | None
    undone: bool


def history_of(session: Session, meeting: Meeting) -> list[Told]:
    """The changes of a meeting, the newest first."""
    names = account_names(session)
    people = dict(session.execute(select(Person.id, Person.label)).tuples().all())
    query = select(Change).where(Change.meeting_id == meeting.id).order_by(Change.id.desc()).limit(MOST)
    return [
        Told(names.get(c.user_id, "Somebody"), c.at, *_told(session, c, people), undone=c.undone)
        for c in session.scalars(query)
    ]


def _told(session: Session, change: Change, people: dict[int, str]) -> tuple[str, str, str, float | None]:
    """What was done, the texts before and after, and where."""
    kind, target, before, after = change.kind, change.target, change.before, change.after
    if kind == "together":
        return _told_together(session, before, after)
    if kind == "voice":
        voice = session.get(Speaker, target)
        label = voice.label if voice else "a voice"
        return f"Said who {label} is", people.get(before, "nobody yet"), people.get(after, "nobody"), None
    if kind == "turn":
        turn = session.get(TurnRow, target)
        heard = _text(turn.words) if turn else ""
        return "Corrected what was said", _text(before) or heard, _text(after) or heard, _begin(after or before)
    if kind == "live":
        return "Corrected what was being said", before or "", after or "", None
    line = session.get(LineRow, target)
    start = min((e.start for e in line.evidence), default=None) if line else None
    written = (line.person_text or line.text) if line else ""
    if kind == "line":
        return "Reworded a line", before or (line.text if line else ""), after or "", start
    if kind == "tick":
        return ("Ticked a line" if after else "Took a tick away"), "", written, start
    if kind == "throw":
        return (f"Threw a line out ({after})" if after else "Took a line back in"), "", written, start
    return "Changed the record", "", "", None


def _told_together(session: Session, before: list[Any], after: list[Any]) -> tuple[str, str, str, float | None]:
    kinds = {step[0] for step in after}
    if "turns" in kinds:
        was, now = (next(step[2]["to"] for step in steps if step[0] == "turns") for steps in (before, after))
        voices = {piece["speaker_id"] for piece in was} != {piece["speaker_id"] for piece in now}
        if len(was) > 2:
            what = "Had voices told apart anew"
        elif len(now) < len(was):
            what = "Joined turns"
        else:
            what = "Gave words to another voice" if voices else "Split a turn"
        said = was[0]["person_words"] or was[0]["words"]
        return what, "", _short(_text(said)), _begin(said)
    if "turn voice" in kinds:
        return "Made two voices one", "", "", None
    turns = [(b[2], a[2]) for b, a in zip(before, after, strict=False) if a[0] == "turn"]
    if not turns:
        return "Put words in place of others", "", "", None
    old, new = turns[0]
    more = f" in {len(turns)} turns" if len(turns) > 1 else ""
    return f"Put words in place of others{more}", _text(old), _text(new), _begin(new or old)


def _text(words: Any) -> str:
    return _short(" ".join(word[0] for word in words)) if words else ""


def _short(text: str) -> str:
    return text if len(text) <= SHOWN else f"{text[:SHOWN].rsplit(' ', 1)[0]} …"


def _begin(words: Any) -> float | None:
    return float(words[0][1]) if words else None
