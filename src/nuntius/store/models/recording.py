"""The sound of a meeting, its uploads, and what was recognised of it so far."""

from datetime import datetime

from sqlalchemy import JSON, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.core.rooms import UploadRole
from nuntius.store.models.base import Base, Choice, PackedSpan, PackedWord, new_id, now


class Upload(Base):
    """A file arriving in numbered parts; it outlives dropped connections and closed pages."""

    __tablename__ = "upload"

    id: Mapped[str] = mapped_column(String(16), primary_key=True, default=new_id)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"), index=True)
    meeting_id: Mapped[str | None] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(255))
    size: Mapped[int]
    part_size: Mapped[int]
    fingerprint: Mapped[str] = mapped_column(String(64), index=True)  # SHA-256 over the parts' SHA-256
    digest: Mapped[str | None] = mapped_column(String(64))  # of the whole file, once it is complete
    role: Mapped[UploadRole] = mapped_column(Choice(UploadRole, 12), default=UploadRole.RECORDING)
    voices: Mapped[int | None]  # hint: how many people speak
    created_at: Mapped[datetime] = mapped_column(default=now)
    updated_at: Mapped[datetime] = mapped_column(default=now)


class UploadPart(Base):
    """A part that is safely on disk."""

    __tablename__ = "upload_part"

    upload_id: Mapped[str] = mapped_column(ForeignKey("upload.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64))


class Recording(Base):
    """Files of one recording by their digests, and its measures (seconds, LUFS, dBFS)."""

    __tablename__ = "recording"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), unique=True)
    name: Mapped[str] = mapped_column(String(255))
    digest: Mapped[str] = mapped_column(String(64), index=True)
    fingerprint: Mapped[str] = mapped_column(String(64), index=True, default="")
    is_text: Mapped[bool] = mapped_column(default=False)
    has_picture: Mapped[bool] = mapped_column(default=False)
    duration: Mapped[float | None]
    loudness: Mapped[float | None]
    peak: Mapped[float | None]
    broken: Mapped[bool] = mapped_column(default=False)
    working_digest: Mapped[str | None] = mapped_column(String(64))
    playback_digest: Mapped[str | None] = mapped_column(String(64))
    peaks_digest: Mapped[str | None] = mapped_column(String(64))
    spans: Mapped[list[PackedSpan] | None] = mapped_column(JSON)
    created_at: Mapped[datetime] = mapped_column(default=now)


class RecognisedStretch(Base):
    """Words of one stretch: a worker that comes back goes on behind the last of them."""

    __tablename__ = "recognised_stretch"
    __table_args__ = (UniqueConstraint("recording_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    recording_id: Mapped[int] = mapped_column(ForeignKey("recording.id", ondelete="CASCADE"))
    number: Mapped[int]
    words: Mapped[list[PackedWord]] = mapped_column(JSON)
