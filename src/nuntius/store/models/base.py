"""What all tables share: naming of constraints, public identifiers, moments in UTC."""

import secrets
from datetime import UTC, datetime

from sqlalchemy import DateTime, MetaData, TypeDecorator
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase

NAMES = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Moment(TypeDecorator[datetime]):
    """A moment kept in UTC; SQLite knows no offsets, so they are put back on reading."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        return value.astimezone(UTC).replace(tzinfo=None) if value else None

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:
        return value.replace(tzinfo=UTC) if value else None


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMES)
    type_annotation_map = {datetime: Moment}


def new_id() -> str:
    """An identifier that cannot be guessed, for whatever appears in an address."""
    return secrets.token_urlsafe(9)


def now() -> datetime:
    """This moment with its offset."""
    return datetime.now(UTC)
