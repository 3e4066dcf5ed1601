"""Passages kept for their own sake."""

from datetime import datetime

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.store.models.base import Base, now


class Excerpt(Base):
    """A passage of a meeting, playable by itself; times in seconds, the words as they read when it was kept."""

    __tablename__ = "excerpt"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    title: Mapped[str] = mapped_column(String(200))
    note: Mapped[str] = mapped_column(default="")
    label: Mapped[str] = mapped_column(String(60), default="")
    speakers: Mapped[list[str]] = mapped_column(JSON)  # labels of its voices
    start: Mapped[float]
    end: Mapped[float]
    quote: Mapped[str]
    created_at: Mapped[datetime] = mapped_column(default=now)
