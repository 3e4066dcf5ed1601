"""A meeting and who was there."""

from datetime import datetime

from sqlalchemy import Column, ForeignKey, String, Table
from sqlalchemy.orm import Mapped, mapped_column, relationship, validates

from nuntius.core.series import series_of
from nuntius.core.times import zone
from nuntius.store.models.base import Base, new_id, now
from nuntius.store.models.people import Person

attendance = Table(
    "attendance",
    Base.metadata,
    Column("meeting_id", ForeignKey("meeting.id", ondelete="CASCADE"), primary_key=True),
    Column("person_id", ForeignKey("person.id"), primary_key=True, index=True),
)


class Meeting(Base):
    """One occasion. It opens only for its people and whoever runs it."""

    __tablename__ = "meeting"

    id: Mapped[str] = mapped_column(String(16), primary_key=True, default=new_id)
    workspace_id: Mapped[int] = mapped_column(ForeignKey("workspace.id"), index=True)
    title: Mapped[str] = mapped_column(String(200))
    kind: Mapped[str] = mapped_column(String(40))
    template_id: Mapped[int | None] = mapped_column(ForeignKey("template.id", ondelete="SET NULL"))  # else by its kind
    starts_at: Mapped[datetime] = mapped_column(index=True)
    time_zone: Mapped[str] = mapped_column(String(64))
    runner_id: Mapped[int] = mapped_column(ForeignKey("user.id"), index=True)
    created_at: Mapped[datetime] = mapped_column(default=now)
    series: Mapped[str] = mapped_column(String(200), default="", server_default="", index=True)  # of its title
    people: Mapped[list[Person]] = relationship(secondary=attendance, order_by=Person.name)

    @validates("title")
    def _in_series(self, _: str, title: str) -> str:
        self.series = series_of(title)
        return title

    @property
    def begun(self) -> datetime:
        """When it began, on the clock of where it was held; in UTC where that clock has no such moment."""
        try:
            return self.starts_at.astimezone(zone(self.time_zone))
        except (OverflowError, ValueError):
            return self.starts_at
