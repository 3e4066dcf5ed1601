"""Who is here: the workspace, its accounts and its people."""

from datetime import datetime

from sqlalchemy import ForeignKey, String
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.store.models.base import Base, new_id, now

ANNOUNCEMENT = (
    "This meeting is being recorded so that we can write minutes. The recording stays on our own machine. "
    "Please say so now if you would rather not be recorded; we can pause at any time."
)


class Workspace(Base):
    """A team with its people and meetings."""

    __tablename__ = "workspace"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(200))
    time_zone: Mapped[str] = mapped_column(String(64), default="UTC")
    announcement: Mapped[str] = mapped_column(default=ANNOUNCEMENT)  # read out before a recording begins
    consent_needed: Mapped[bool] = mapped_column(default=True)
    created_at: Mapped[datetime] = mapped_column(default=now)


class User(Base):
    """An account: somebody who can sign in."""

    __tablename__ = "user"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"))
    email: Mapped[str] = mapped_column(String(320), unique=True)
    password_hash: Mapped[str] = mapped_column(String(200))
    session_key: Mapped[str] = mapped_column(String(32), default=new_id)
    created_at: Mapped[datetime] = mapped_column(default=now)


class Person(Base):
    """Somebody who takes part in meetings, with or without an account."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"), index=True)
    name: Mapped[str] = mapped_column(String(200))
    user_id: Mapped[int | None] = mapped_column(ForeignKey("user.id"), unique=True)
    created_at: Mapped[datetime] = mapped_column(default=now)
