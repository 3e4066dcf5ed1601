"""Shapes of excerpts."""

from datetime import date

from pydantic import Field

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


class ExcerptsOut(Wire):
    excerpts: list[ExcerptOut]
