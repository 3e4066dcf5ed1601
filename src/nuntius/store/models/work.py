"""Background work, the files that are made by it, and the changes that people made."""

from datetime import datetime

from sqlalchemy import JSON, Column, ForeignKey, String, Table, false
from sqlalchemy.orm import Mapped, mapped_column, relationship

from nuntius.core.exports import ExportKind
from nuntius.core.jobs import JobKind, JobState, Lane
from nuntius.store.models.base import Base, Choice, new_id, now
from nuntius.store.models.meeting import Meeting


class Leased:
    """Columns of work that one process at a time does under a lease."""

    state: Mapped[JobState] = mapped_column(Choice(JobState, 12), default=JobState.WAITING, index=True)
    error: Mapped[str | None]
    worker: Mapped[str | None] = mapped_column(String(120))
    beat_at: Mapped[datetime | None]
    created_at: Mapped[datetime] = mapped_column(default=now)
    started_at: Mapped[datetime | None]
    updated_at: Mapped[datetime] = mapped_column(default=now, onupdate=now, index=True)


class Job(Leased, Base):
    """Work on a meeting's recording, step by step."""

    __tablename__ = "job"

    id: Mapped[str] = mapped_column(String(16), primary_key=True, default=new_id)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    kind: Mapped[JobKind] = mapped_column(Choice(JobKind, 12), default=JobKind.WORK)
    lane: Mapped[Lane] = mapped_column(Choice(Lane, 8), default=Lane.LONG, server_default="long")
    put_away: Mapped[bool] = mapped_column(default=False, server_default=false())  # nobody needs to be reminded of it
    step: Mapped[str] = mapped_column(String(20), default="")
    done_steps: Mapped[list[str]] = mapped_column(JSON, default=list)
    progress: Mapped[float] = mapped_column(default=0.0)  # 0 to 1, over all steps
    remaining: Mapped[float | None]  # seconds
    people: Mapped[int | None]  # hint: how many spoke
    choices: Mapped[dict[str, object] | None] = mapped_column(JSON)  # how minutes are wanted that are made again
    cancel_asked: Mapped[bool] = mapped_column(default=False)


# A meeting whose words or sound are in an export: where it is removed or cut, the export goes, too.
export_meeting = Table(
    "export_meeting",
    Base.metadata,
    Column("export_id", ForeignKey("export.id", ondelete="CASCADE"), primary_key=True),
    Column("meeting_id", ForeignKey("meeting.id", ondelete="CASCADE"), primary_key=True, index=True),
)


class Export(Leased, Base):
    """A file that is made for somebody in the background, and kept for a day."""

    __tablename__ = "export"

    id: Mapped[str] = mapped_column(String(16), primary_key=True, default=new_id)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id", ondelete="CASCADE"), index=True)
    kind: Mapped[ExportKind] = mapped_column(Choice(ExportKind, 30))
    targets: Mapped[list[int]] = mapped_column(JSON, default=list)  # numbers of excerpts, or of the compilation
    arguments: Mapped[dict[str, object] | None] = mapped_column(JSON)  # of a question
    address: Mapped[str] = mapped_column(default="")  # of the page that the file leads back to
    title: Mapped[str] = mapped_column(String(200))  # of what it is made from
    digest: Mapped[str | None] = mapped_column(String(64), index=True)
    size: Mapped[int | None]  # bytes
    meetings: Mapped[list[Meeting]] = relationship(secondary=export_meeting, passive_deletes=True, lazy="selectin")


class Change(Base):
    """What a person changed: enough to take it back and to do it again."""

    __tablename__ = "change"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    kind: Mapped[str] = mapped_column(String(20))  # voice, turn, line, tick
    target: Mapped[int]
    before: Mapped[object] = mapped_column(JSON)
    after: Mapped[object] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(default=now)
    undone: Mapped[bool] = mapped_column(default=False)


class Heartbeat(Base):
    """When a worker or listener was last alive."""

    __tablename__ = "heartbeat"

    process: Mapped[str] = mapped_column(String(120), primary_key=True)
    role: Mapped[str] = mapped_column(String(20))
    seen_at: Mapped[datetime] = mapped_column(default=now)
