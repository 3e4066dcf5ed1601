"""Shapes of a record's history and of its diarization made again."""

from datetime import datetime

from pydantic import Field

from nuntius.web.schemas import Wire


class HistoryEntryOut(Wire):
    """What somebody changed; `start` in seconds of the recording, where it is about a moment."""

    id: int
    who: str
    at: datetime
    what: str
    before: str
    after: str
    start: float | None
    undone: bool


class HistoryOut(Wire):
    changes: list[HistoryEntryOut]


class People(Wire):
    """How many people speak; None where that is not known."""

    people: int | None = Field(default=None, ge=1, le=20)
