"""Minutes, their lines and the evidence of each."""

from datetime import date, datetime
from typing import Any, TypedDict

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from nuntius.core.minutes.line import (
    Layout,
    Length,
    LineDoubt,
    LineKind,
    LineState,
    MinutesSource,
    Progress,
    ThrowOutReason,
)
from nuntius.store.models.base import Base, Choice, now


class ChapterRow(TypedDict):
    """A chapter: numbers of its first and last turn, times in seconds."""

    title: str
    first: int
    last: int
    start: float
    end: float


class MinutesRow(Base):
    """The minutes of a meeting as last made; a person's changes stand on the lines."""

    __tablename__ = "minutes"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), unique=True)
    made_at: Mapped[datetime] = mapped_column(default=now)
    source: Mapped[MinutesSource] = mapped_column(Choice(MinutesSource, 10), default=MinutesSource.SETTLED)
    length: Mapped[Length] = mapped_column(Choice(Length, 10), default=Length.STANDARD)
    sections: Mapped[list[tuple[str, Layout]]] = mapped_column(
        JSON
    )  # [title, layout] of the template that they were made by
    detailed: Mapped[list[int]] = mapped_column(JSON)  # numbers of chapters in more detail
    fine: Mapped[bool] = mapped_column(default=False)  # whether finer chapters were asked for
    remark: Mapped[str] = mapped_column(default="")  # what they cannot hold
    coverage: Mapped[float]
    gaps: Mapped[list[tuple[float, float]]] = mapped_column(JSON)  # [start, end] in seconds
    chapters: Mapped[list[ChapterRow]] = mapped_column(JSON)
    lines: Mapped[list["LineRow"]] = relationship(
        order_by="LineRow.number", cascade="all, delete-orphan", passive_deletes=True
    )


class LineRow(Base):
    """A line: what the machine wrote, what a person put in its place or added, and the person's tick.

    It keeps its number (`id`) as long as it is the same line, and no other line ever has it: addresses, calendars and
    the history name lines by it.
    """

    __tablename__ = "line"
    __table_args__ = {"sqlite_autoincrement": True}

    id: Mapped[int] = mapped_column(primary_key=True)
    minutes_id: Mapped[int] = mapped_column(ForeignKey("minutes.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    kind: Mapped[LineKind] = mapped_column(Choice(LineKind, 20))
    place: Mapped[int] = mapped_column(default=0)  # number of its section
    chapter: Mapped[int]
    text: Mapped[str]
    person_text: Mapped[str | None]
    owner: Mapped[list[str]] = mapped_column(JSON)  # names or labels of voices
    due: Mapped[date | None]
    due_said: Mapped[str | None]
    state: Mapped[LineState] = mapped_column(Choice(LineState, 20))
    answer: Mapped[str | None]
    why: Mapped[str] = mapped_column(String(80))
    doubts: Mapped[list[LineDoubt]] = mapped_column(JSON, default=list)  # what is worth a look before it goes out
    checked_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    thrown_out: Mapped[ThrowOutReason | None] = mapped_column(Choice(ThrowOutReason, 40))
    progress: Mapped[Progress] = mapped_column(Choice(Progress, 10), default=Progress.OPEN, server_default="open")
    remark: Mapped[str] = mapped_column(default="", server_default="")
    set_by_person: Mapped[list[str]] = mapped_column(
        JSON, default=list, server_default="[]"
    )  # columns kept as they are
    made_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))  # who added it; None for the machine's own
    joined: Mapped[list[int]] = mapped_column(JSON, default=list, server_default="[]")  # lines that became part of it
    evidence: Mapped[list["EvidenceRow"]] = relationship(
        order_by="EvidenceRow.id", cascade="all, delete-orphan", passive_deletes=True, lazy="selectin"
    )


class EvidenceRow(Base):
    """A passage that a line, or its answer, rests on; times in seconds survive edits of the words."""

    __tablename__ = "evidence"

    id: Mapped[int] = mapped_column(primary_key=True)
    line_id: Mapped[int] = mapped_column(ForeignKey("line.id", ondelete="CASCADE"), index=True)
    of_answer: Mapped[bool] = mapped_column(default=False)
    turn: Mapped[int]
    first: Mapped[int]
    last: Mapped[int]
    start: Mapped[float]
    end: Mapped[float]
    quote: Mapped[str]


class MinutesVersion(Base):
    """Minutes as they stood before they were made again."""

    __tablename__ = "minutes_version"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    made_at: Mapped[datetime]  # when they were written
    replaced_at: Mapped[datetime] = mapped_column(default=now)
    length: Mapped[Length] = mapped_column(Choice(Length, 10))
    sections: Mapped[list[tuple[str, Layout]]] = mapped_column(JSON)
    lines: Mapped[list[dict[str, Any]]] = mapped_column(JSON)  # as `store.line_rows.values_of` gives them
