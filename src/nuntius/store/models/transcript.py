"""Turns and voices; what the machine heard and what a person made of it are kept apart."""

from sqlalchemy import JSON, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.store.models.base import Base, PackedWord


class Speaker(Base):
    """A voice of one meeting, matched to a person or not."""

    __tablename__ = "speaker"
    __table_args__ = (UniqueConstraint("meeting_id", "label"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"))
    label: Mapped[str] = mapped_column(String(200))
    person_id: Mapped[int | None] = mapped_column(ForeignKey("person.id"))


class TurnRow(Base):
    """One turn; `words` is what the machine heard, `person_words` what a person put in its place."""

    __tablename__ = "turn"
    __table_args__ = (UniqueConstraint("meeting_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"))
    number: Mapped[int]
    speaker_id: Mapped[int] = mapped_column(ForeignKey("speaker.id", ondelete="CASCADE"), index=True)
    cue: Mapped[str] = mapped_column(String(64))
    words: Mapped[list[PackedWord]] = mapped_column(JSON)
    person_words: Mapped[list[PackedWord] | None] = mapped_column(JSON(none_as_null=True))
