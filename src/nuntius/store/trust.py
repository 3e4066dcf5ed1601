"""How far the lines of each kind were right: what people ticked, changed and threw out."""

from collections import Counter
from dataclasses import dataclass, field

from sqlalchemy import case, func, select
from sqlalchemy.orm import Session

from nuntius.core.minutes.line import LineKind
from nuntius.store.meetings import open_to
from nuntius.store.models import LineRow, Meeting, MinutesRow, User


@dataclass
class Trust:
    """Counts of the lines of one kind: `reasons` for which lines were thrown out, with their numbers."""

    kind: LineKind
    lines: int = 0
    confirmed: int = 0
    corrected: int = 0
    thrown_out: int = 0
    reasons: Counter[str] = field(default_factory=Counter)


def trust_of(session: Session, user: User) -> list[Trust]:
    """The counts of every kind over all meetings open to `user`, the kind with most lines first; notes aside."""
    outcome = case(
        (LineRow.thrown_out.is_not(None), "thrown out"),
        (LineRow.person_text.is_not(None), "corrected"),
        (LineRow.checked_by.is_not(None), "confirmed"),
        else_="",
    )
    query = (
        select(LineRow.kind, outcome, LineRow.thrown_out, func.count())
        .join(MinutesRow, MinutesRow.id == LineRow.minutes_id)
        .where(MinutesRow.meeting_id.in_(open_to(user).with_only_columns(Meeting.id)), LineRow.kind != LineKind.NOTE)
        .where(LineRow.made_by.is_(None))
        .group_by(LineRow.kind, outcome, LineRow.thrown_out)
    )
    made: dict[LineKind, Trust] = {}
    for kind, what, reason, count in session.execute(query):
        each = made.setdefault(kind, Trust(kind))
        each.lines += count
        if reason is not None:
            each.thrown_out += count
            each.reasons[reason] += count
        elif what == "corrected":
            each.corrected += count
        elif what == "confirmed":
            each.confirmed += count
    return sorted(made.values(), key=lambda each: (-each.lines, each.kind))
