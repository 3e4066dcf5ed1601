"""Minutes, their lines and the evidence of each."""

from datetime import date, datetime
from typing import Any

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from nuntius.store.models.base import Base, now


class MinutesRow(Base):
    """The minutes of a meeting as last made; a person's changes stand on the lines."""

    __tablename__ = "minutes"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), unique=True)
    made_at: Mapped[datetime] = mapped_column(default=now)
    source: Mapped[str] = mapped_column(String(10), default="settled")  # live: from the text heard meanwhile
    length: Mapped[str] = mapped_column(String(10), default="standard")
    sections: Mapped[list[Any]] = mapped_column(JSON)  # [title, layout] of the template that they were made by
    detailed: Mapped[list[Any]] = mapped_column(JSON)  # numbers of chapters in more detail
    fine: Mapped[bool] = mapped_column(default=False)  # whether finer chapters were asked for
    remark: Mapped[str] = mapped_column(default="")  # what they cannot hold
    coverage: Mapped[float]
    gaps: Mapped[list[Any]] = mapped_column(JSON)  # [start, end] in seconds
    chapters: Mapped[list[Any]] = mapped_column(JSON)  # {title, first, last, start, end}
    lines: Mapped[list["LineRow"]] = relationship(
        order_by="LineRow.number", cascade="all, delete-orphan", passive_deletes=True
    )


class LineRow(Base):
    """A line: the machine's text, a person's in its place, and the person's tick."""

    __tablename__ = "line"

    id: Mapped[int] = mapped_column(primary_key=True)
    minutes_id: Mapped[int] = mapped_column(ForeignKey("minutes.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    kind: Mapped[str] = mapped_column(String(20))
    place: Mapped[int] = mapped_column(default=0)  # number of its section
    chapter: Mapped[int]
    text: Mapped[str]
    person_text: Mapped[str | None]
    owner: Mapped[list[Any]] = mapped_column(JSON)  # names or labels of voices
    due: Mapped[date | None]
    due_said: Mapped[str | None]
    state: Mapped[str] = mapped_column(String(20))
    answer: Mapped[str | None]
    why: Mapped[str] = mapped_column(String(80))
    doubts: Mapped[list[Any]] = mapped_column(JSON, default=list)  # what is worth a look before it goes out
    checked_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    thrown_out: Mapped[str | None] = mapped_column(String(40))  # the reason for which a person threw the line out
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
