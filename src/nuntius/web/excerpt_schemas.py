"""Shapes of excerpts."""

from datetime import date

from pydantic import BaseModel, Field

from nuntius.web.schemas import Number, Seconds, Wire


class ExcerptPath(Wire):
    excerpt_id: Number


class NewExcerpt(Wire):
    """A stretch in seconds with a title ("" for its first words), a note and a label."""

    start: Seconds
    end: Seconds
    title: str = Field(default="", max_length=200)
    note: str = Field(default="", max_length=4000)
    label: str = Field(default="", max_length=60)


class Chosen(Wire):
    """Numbers of excerpts, with commas between them."""

    ids: str = Field(pattern=r"^\d{1,9}(,\d{1,9})*$", max_length=2000)

    @property
    def numbers(self) -> list[int]:
        return [int(each) for each in self.ids.split(",")]


class ExcerptOut(Wire):
    id: int
    meeting_id: str
    meeting: str
    day: date
    title: str
    note: str
    label: str
    speakers: list[str]
    start: float
    end: float
    quote: str
    may_change: bool


class ExcerptsQuery(BaseModel):
    """Empty values let everything through; `person` speaks in it."""

    words: str = Field(default="", max_length=200)
    meeting: str = Field(default="", max_length=64)
    person: int | None = Field(default=None, ge=0, lt=2**31)
    label: str = Field(default="", max_length=60)
    after: str | None = Field(default=None, max_length=120)


class MeetingChoice(Wire):
    id: str
    title: str


class PersonChoice(Wire):
    id: int
    name: str


class ExcerptsOut(Wire):
    """A page of those that fit, how many there are, where the next page begins, and what can be chosen among all."""

    excerpts: list[ExcerptOut]
    total: int
    after: str | None
    meetings: list[MeetingChoice]
    people: list[PersonChoice]
    labels: list[str]
