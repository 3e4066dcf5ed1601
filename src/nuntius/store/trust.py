"""How far the lines of each kind were right: what people ticked, changed and threw out."""

from collections import Counter
from dataclasses import dataclass, field

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.meetings import meetings_of
from nuntius.store.models import LineRow, MinutesRow, User


@dataclass
class Trust:
    """Counts of the lines of one kind: `reasons` for which lines were thrown out, with their numbers."""

    kind: str
    lines: int = 0
    confirmed: int = 0
    corrected: int = 0
    thrown_out: int = 0
    reasons: Counter[str] = field(default_factory=Counter)


def trust_of(session: Session, user: User) -> list[Trust]:
    """The counts of every kind over all meetings open to `user`, the kind with most lines first; notes aside."""
    meetings = [meeting.id for meeting in meetings_of(session, user)]
    query = (
        select(LineRow.kind, LineRow.person_text, LineRow.checked_by, LineRow.thrown_out)
        .join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
        .where(MinutesRow.meeting_id.in_(meetings), LineRow.kind != "note")
    )
    made: dict[str, Trust] = {}
    for kind, text, checked, reason in session.execute(query):
        each = made.setdefault(kind, Trust(kind))
        each.lines += 1
        if reason is not None:
            each.thrown_out += 1
            each.reasons[reason] += 1
        elif text is not None:
            each.corrected += 1
        elif checked is not None:
            each.confirmed += 1
    return sorted(made.values(), key=lambda each: (-each.lines, each.kind))
