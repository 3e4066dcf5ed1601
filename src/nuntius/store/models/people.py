"""Who is here: the workspace, its accounts and its people."""

from datetime import datetime
from typing import Any

from sqlalchemy import JSON, ColumnElement, ForeignKey, String, case
from sqlalchemy.ext.hybrid import hybrid_property
from sqlalchemy.orm import Mapped, mapped_column, relationship

from nuntius.core.people import label
from nuntius.core.rights import Role
from nuntius.store.models.base import Base, Choice, now

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
    """An account: somebody who can sign in. The person it belongs to refers to it."""

    __tablename__ = "user"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"))
    email: Mapped[str] = mapped_column(String(320), unique=True)
    password_hash: Mapped[str] = mapped_column(String(200))
    role: Mapped[Role] = mapped_column(Choice(Role, 20), default=Role.MEMBER)
    totp_secret: Mapped[str | None] = mapped_column(
        String(200)
    )  # of the second factor where it is on, encrypted (`store.sealing`)
    totp_step: Mapped[int] = mapped_column(default=0)  # of the last code that was taken: none is taken twice
    recovery_hashes: Mapped[list[str]] = mapped_column(JSON, default=list)  # SHA-256 of recovery codes still unused
    ended_at: Mapped[datetime | None]  # since when nobody signs in with it
    created_at: Mapped[datetime] = mapped_column(default=now)
    person: Mapped["Person"] = relationship(lazy="joined", viewonly=True)


class Person(Base):
    """Somebody who takes part in meetings, with or without an account."""

    __tablename__ = "person"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"), index=True)
    name: Mapped[str] = mapped_column(String(200))
    name_key: Mapped[str] = mapped_column(String(200), index=True)  # `core.people.name_key` of the name
    distinction: Mapped[str] = mapped_column(String(80), default="")  # tells from others of the same name
    user_id: Mapped[int | None] = mapped_column(ForeignKey("user.id"), unique=True)
    removed_at: Mapped[datetime | None]  # not offered any more since then; what they said and did stays
    merged_into: Mapped[int | None] = mapped_column(ForeignKey("person.id"))
    created_at: Mapped[datetime] = mapped_column(default=now)

    @hybrid_property
    def label(self) -> str:
        """The name as it is shown."""
        return label(self.name, self.distinction)

    @label.inplace.expression
    @classmethod
    def _label(cls) -> ColumnElement[str]:
        with_word = cls.name + " (" + cls.distinction + ")"
        return case((cls.distinction == "", cls.name), else_=with_word)


class Merging(Base):
    """Two people who were found to be one: what moved, so that it can be taken back."""

    __tablename__ = "merging"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"), index=True)
    kept_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    merged_id: Mapped[int] = mapped_column(ForeignKey("person.id"))
    moved: Mapped[dict[str, Any]] = mapped_column(JSON)  # as `store.merging.Moved` says
    made_at: Mapped[datetime] = mapped_column(default=now)
    undone_at: Mapped[datetime | None]


class AccessToken(Base):
    """A link that is good for one use: an invitation to be a person, or a forgotten password. Only its hash is kept."""

    __tablename__ = "access_token"

    id: Mapped[int] = mapped_column(primary_key=True)
    purpose: Mapped[str] = mapped_column(String(20))  # `store.links.Purpose`
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    person_id: Mapped[int] = mapped_column(ForeignKey("person.id"), index=True)
    email: Mapped[str] = mapped_column(String(320))
    role: Mapped[Role] = mapped_column(Choice(Role, 20), default=Role.MEMBER)
    made_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    made_at: Mapped[datetime] = mapped_column(default=now)
    expires_at: Mapped[datetime]
    used_at: Mapped[datetime | None]


class SignInSession(Base):
    """One browser in which somebody is signed in; its cookie holds the token of which the hash is kept here."""

    __tablename__ = "sign_in_session"

    id: Mapped[int] = mapped_column(primary_key=True)
    user_id: Mapped[int] = mapped_column(ForeignKey("user.id"), index=True)
    token_hash: Mapped[str] = mapped_column(String(64), unique=True)
    address: Mapped[str] = mapped_column(String(64), default="")
    agent: Mapped[str] = mapped_column(String(200), default="")
    made_at: Mapped[datetime] = mapped_column(default=now)
    seen_at: Mapped[datetime] = mapped_column(default=now)


class SignInFailures(Base):
    """Failed sign-ins in a row, counted by what they have in common."""

    __tablename__ = "sign_in_failures"

    key: Mapped[str] = mapped_column(String(400), primary_key=True)
    count: Mapped[int]
    last_at: Mapped[datetime] = mapped_column(default=now)


class Activity(Base):
    """Who did what, for administrators; never a word of a meeting."""

    __tablename__ = "activity"

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"), index=True)
    at: Mapped[datetime] = mapped_column(default=now, index=True)
    by: Mapped[str] = mapped_column(String(200))  # the name at that time
    what: Mapped[str] = mapped_column(String(40))  # `store.activity.What`
    about: Mapped[str] = mapped_column(String(400), default="")
    address: Mapped[str] = mapped_column(String(64), default="")


class Mail(Base):
    """A message that is to be sent, or was; its text goes when it has been sent, since it may hold a link."""

    __tablename__ = "mail"

    id: Mapped[int] = mapped_column(primary_key=True)
    recipient: Mapped[str] = mapped_column(String(320))
    subject: Mapped[str] = mapped_column(String(200))
    text: Mapped[str]
    state: Mapped[str] = mapped_column(String(12), default="waiting", index=True)  # waiting, sent, failed
    tries: Mapped[int] = mapped_column(default=0)
    error: Mapped[str] = mapped_column(String(300), default="")
    made_at: Mapped[datetime] = mapped_column(default=now)
    due_at: Mapped[datetime] = mapped_column(default=now)
