"""What all tables share: naming of constraints, public identifiers, moments in UTC."""

import secrets
from datetime import UTC, datetime
from enum import StrEnum
from typing import TypeVar

from sqlalchemy import DateTime, MetaData, String, TypeDecorator
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase

# Rows of JSON columns. JSON knows no tuples, so they are read as lists; typed as tuples each place has its type.
PackedWord = tuple[str, float, float, float]  # text, start and end in seconds, confidence
PackedSpan = tuple[float, float, str]  # start and end in seconds, label of the voice

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


E = TypeVar("E", bound=StrEnum)


class Choice(TypeDecorator[E]):
    """One of a closed vocabulary, kept as its text.

    A value that this version does not know reads as the first of the vocabulary, so that one row never breaks a list.
    """

    impl = String
    cache_ok = True

    def __init__(self, vocabulary: type[E], length: int) -> None:
        super().__init__(length)
        self.vocabulary = vocabulary

    def process_bind_param(self, value: E | str | None, dialect: Dialect) -> str | None:
        return None if value is None else str(value)

    def process_result_value(self, value: str | None, dialect: Dialect) -> E | None:
        if value is None:
            return None
        try:
            return self.vocabulary(value)
        except ValueError:
            return next(iter(self.vocabulary))


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMES)
    type_annotation_map = {datetime: Moment}


def new_id() -> str:
    """An identifier that cannot be guessed, for whatever appears in an address."""
    return secrets.token_urlsafe(9)


def now() -> datetime:
    """This moment with its offset."""
    return datetime.now(UTC)
