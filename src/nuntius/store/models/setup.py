"""What a workspace sets up for itself: templates, vocabulary, ready questions."""

from datetime import datetime

from sqlalchemy import JSON, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from nuntius.store.models.base import Base, now


class TemplateRow(Base):
    """A template of the workspace's own; the ones that are shipped stand in the core."""

    __tablename__ = "template"
    __table_args__ = (UniqueConstraint("workspace_id", "name"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"))
    name: Mapped[str] = mapped_column(String(200))
    body: Mapped[dict[str, object]] = mapped_column(JSON)  # as `core.templates.template.read_template` reads it
    made_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    changed_by: Mapped[int] = mapped_column(ForeignKey("user.id"))
    changed_at: Mapped[datetime] = mapped_column(default=now)


class TermRow(Base):
    """A name or term to be spelt right, with the wrong forms that were heard."""

    __tablename__ = "term"
    __table_args__ = (UniqueConstraint("workspace_id", "text"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"))
    text: Mapped[str] = mapped_column(String(200))
    heard: Mapped[list[str]] = mapped_column(JSON)  # wrong forms that were heard and put right
    refused: Mapped[list[str]] = mapped_column(JSON)  # forms of which a person said that they are right
    made_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    made_at: Mapped[datetime] = mapped_column(default=now)


class ReadyQuestion(Base):
    """A question that the workspace keeps, to be put to any record."""

    __tablename__ = "ready_question"
    __table_args__ = (UniqueConstraint("workspace_id", "text"),)

    id: Mapped[int] = mapped_column(primary_key=True)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"))
    text: Mapped[str] = mapped_column(String(500))
    made_by: Mapped[int | None] = mapped_column(ForeignKey("user.id"))
    made_at: Mapped[datetime] = mapped_column(default=now)
