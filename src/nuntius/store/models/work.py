"""Background work, and the changes that people made."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, ForeignKey, String, false
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.core.jobs import JobKind, JobState, Lane
from nuntius.store.models.base import Base, new_id, now


class Job(Base):
    """Work on a meeting's recording, step by step."""

    __tablename__ = "job"

    id: Mapped[str] = mapped_column(String(16), primary_key=True, default=new_id)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    kind: Mapped[str] = mapped_column(String(12), default=JobKind.WORK)
    lane: Mapped[str] = mapped_column(String(8), default=Lane.LONG, server_default="long")
    state: Mapped[str] = mapped_column(String(12), default=JobState.WAITING, index=True)
    put_away: Mapped[bool] = mapped_column(default=False, server_default=false())  # nobody needs to be reminded of it
    step: Mapped[str] = mapped_column(String(20), default="")
    done_steps: Mapped[list[Any]] = mapped_column(JSON, default=list)
    progress: Mapped[float] = mapped_column(default=0.0)  # 0 to 1, over all steps
    remaining: Mapped[float | None]  # seconds
    error: Mapped[str | None]
    people: Mapped[int | None]  # hint: how many spoke
    cancel_asked: Mapped[bool] = mapped_column(default=False)
    worker: Mapped[str | None] = mapped_column(String(120))
    beat_at: Mapped[datetime | None]
    created_at: Mapped[datetime] = mapped_column(default=now)
    started_at: Mapped[datetime | None]
    updated_at: Mapped[datetime] = mapped_column(default=now, onupdate=now, index=True)


class Change(Base):
    """What a person changed: enough to take it back and to do it again."""

    __tablename__ = "change"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    kind: Mapped[str] = mapped_column(String(20))  # voice, turn, line, tick
    target: Mapped[int]
    before: Mapped[Any] = mapped_column(JSON)
    after: Mapped[Any] = mapped_column(JSON)
    at: Mapped[datetime] = mapped_column(default=now)
    undone: Mapped[bool] = mapped_column(default=False)


class Heartbeat(Base):
    """When a worker or listener was last alive."""

    __tablename__ = "heartbeat"

    process: Mapped[str] = mapped_column(String(120), primary_key=True)
    role: Mapped[str] = mapped_column(String(20))
    seen_at: Mapped[datetime] = mapped_column(default=now)
