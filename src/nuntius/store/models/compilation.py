"""Passages put together to be heard as one."""

from datetime import datetime

from sqlalchemy import JSON, ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column, relationship

from nuntius.store.models.base import Base, now


class Compilation(Base):
    """Somebody's own compilation: titles of its sections, and passages in them."""

    __tablename__ = "compilation"

    id: Mapped[int] = mapped_column(primary_key=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"), index=True)
    title: Mapped[str] = mapped_column(String(200))
    sections: Mapped[list[str]] = mapped_column(JSON)  # titles, "" for none
    spoken: Mapped[bool] = mapped_column(default=False)  # titles are spoken by a local voice
    created_at: Mapped[datetime] = mapped_column(default=now)
    passages: Mapped[list["CompiledPassage"]] = relationship(
        order_by="CompiledPassage.section, CompiledPassage.position",
        cascade="all, delete-orphan",
        passive_deletes=True,
        lazy="selectin",
    )


class CompiledPassage(Base):
    """A passage of a meeting within a compilation; times in seconds."""

    __tablename__ = "compiled_passage"

    id: Mapped[int] = mapped_column(primary_key=True)
    compilation_id: Mapped[int] = mapped_column(ForeignKey("compilation.id", ondelete="CASCADE"), index=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    section: Mapped[int]
    position: Mapped[int]
    title: Mapped[str] = mapped_column(String(200))
    start: Mapped[float]
    end: Mapped[float]
