"""A meeting being recorded: its runs of sound, live lines, and what people do meanwhile."""

from datetime import datetime

from sqlalchemy import ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.core.rooms import BreakKind, CallState, RoomState, SoundSource
from nuntius.store.models.base import Base, Choice, new_id, now


class Room(Base):
    """The live side of a meeting. `version` grows with every change, so that watchers see it."""

    __tablename__ = "room"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), unique=True)
    state: Mapped[RoomState] = mapped_column(Choice(RoomState, 12), default=RoomState.READY, index=True)
    version: Mapped[int] = mapped_column(default=0)
    # consent
    announced_at: Mapped[datetime | None]
    announced_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    announced_elsewhere: Mapped[str] = mapped_column(String(200), default="")  # by whom, as a bundle says
    # sound: `held` samples (16 kHz) have arrived without a gap, `heard` of them have reached the live recogniser
    held: Mapped[int] = mapped_column(default=0)
    heard: Mapped[int] = mapped_column(default=0)
    held_at: Mapped[datetime | None]
    begun_at: Mapped[datetime | None]
    stopped_at: Mapped[datetime | None]
    # live text
    partial: Mapped[str] = mapped_column(default="")
    partial_start: Mapped[float] = mapped_column(default=0.0)
    last_speech: Mapped[float] = mapped_column(default=0.0)  # seconds, of the end of what was heard last
    drafted: Mapped[bool] = mapped_column(default=False)  # the live text has been heard to its end
    listener: Mapped[str | None] = mapped_column(String(120))
    listener_at: Mapped[datetime | None]
    # choices
    silence_stop: Mapped[float] = mapped_column(default=600.0)  # seconds without speech after which it stops; 0: never
    floor_limit: Mapped[float] = mapped_column(
        default=180.0
    )  # seconds of one voice after which a notice is shown; 0: never
    # the listening line of a call, where there is one
    line_link: Mapped[str] = mapped_column(String(500), default="")
    line_state: Mapped[CallState] = mapped_column(Choice(CallState, 20), default=CallState.NONE)


class Run(Base):
    """Sound without a break from one source; `parts` have arrived without a gap, `expected` once it has ended."""

    __tablename__ = "run"
    __table_args__ = (UniqueConstraint("room_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    room_id: Mapped[int] = mapped_column(ForeignKey("room.id", ondelete="CASCADE"))
    number: Mapped[int]
    recorder: Mapped[str] = mapped_column(String(64))  # the page (or line) that sends
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    source: Mapped[SoundSource] = mapped_column(Choice(SoundSource, 20))
    first: Mapped[int] = mapped_column(default=0)  # sample of the meeting at which it begins
    parts: Mapped[int] = mapped_column(default=0)
    samples: Mapped[int] = mapped_column(default=0)
    expected: Mapped[int | None]
    begun: Mapped[float | None]  # the recorder's clock at the first sample, seconds since 1970
    created_at: Mapped[datetime] = mapped_column(default=now)


class SoundPart(Base):
    """A numbered part of a run, safely on disk. `digest` is of the part as it came, even when it was cut since."""

    __tablename__ = "sound_part"

    run_id: Mapped[int] = mapped_column(ForeignKey("run.id", ondelete="CASCADE"), primary_key=True)
    number: Mapped[int] = mapped_column(primary_key=True)
    digest: Mapped[str] = mapped_column(String(64))
    samples: Mapped[int]
    first: Mapped[int | None] = mapped_column(index=True)  # sample of the meeting at which it begins, once it joins on


class Break(Base):
    """Where the recording was paused, lost sound, or had a stretch removed."""

    __tablename__ = "break"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    kind: Mapped[BreakKind] = mapped_column(Choice(BreakKind, 10))
    at: Mapped[float]  # seconds of the recorded sound
    seconds: Mapped[float | None]  # how long; None while it goes on
    by: Mapped[str] = mapped_column(String(200), default="")
    made_at: Mapped[datetime] = mapped_column(default=now)


class LiveLineRow(Base):
    """A settled live line; `version` is the room's when it last changed."""

    __tablename__ = "live_line"
    __table_args__ = (UniqueConstraint("meeting_id", "number"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"))
    number: Mapped[int]
    start: Mapped[float]
    end: Mapped[float]
    text: Mapped[str]
    person_text: Mapped[str | None]
    voice: Mapped[str | None] = mapped_column(String(200))
    version: Mapped[int] = mapped_column(default=0)


class NoteRow(Base):
    """A paragraph of somebody's notes, tied to the second at which it was begun."""

    __tablename__ = "note"

    id: Mapped[str] = mapped_column(String(36), primary_key=True, default=new_id)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    text: Mapped[str]
    at: Mapped[float]
    position: Mapped[float] = mapped_column(default=0.0)  # order on the pad
    private: Mapped[bool] = mapped_column(default=False)  # kept out of the minutes


class MarkRow(Base):
    """A stretch that somebody pointed out."""

    __tablename__ = "mark"

    id: Mapped[str] = mapped_column(String(36), primary_key=True, default=new_id)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"))
    label: Mapped[str] = mapped_column(String(60))
    text: Mapped[str] = mapped_column(String(500), default="")
    start: Mapped[float]
    end: Mapped[float]


class AgendaRow(Base):
    """An item of the agenda, and when it was on (seconds from the meeting's start)."""

    __tablename__ = "agenda_item"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    number: Mapped[int]
    title: Mapped[str] = mapped_column(String(200))
    planned: Mapped[float | None]  # seconds
    begun: Mapped[float | None]
    ended: Mapped[float | None]


class Consent(Base):
    """One person's consent to being recorded; `ticked_by` is nobody's account where a bundle brought it in."""

    __tablename__ = "consent"

    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), primary_key=True)
    ticked_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    at: Mapped[datetime] = mapped_column(default=now)


class StillPicture(Base):
    """What was shown on the shared screen from `at` seconds on."""

    __tablename__ = "still_picture"

    id: Mapped[int] = mapped_column(primary_key=True)
    meeting_id: Mapped[str] = mapped_column(ForeignKey("meeting.id", ondelete="CASCADE"), index=True)
    at: Mapped[float]
    digest: Mapped[str] = mapped_column(String(64))
