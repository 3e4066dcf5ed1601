"""Shapes of compilations."""

from datetime import date
from typing import Literal

from pydantic import Field

from nuntius.web.schemas import Number, Seconds, Wire


class CompilationPath(Wire):
    compilation_id: Number


class CompiledFilePath(CompilationPath):
    form: Literal["captions.vtt", "chapters.vtt", "txt"]


class CompiledPassageIn(Wire):
    """A passage in seconds of its meeting."""

    meeting_id: str = Field(max_length=32)
    title: str = Field(default="", max_length=200)
    start: Seconds
    end: Seconds


class CompiledSectionIn(Wire):
    title: str = Field(default="", max_length=200)
    passages: list[CompiledPassageIn] = Field(max_length=300)


class CompilationIn(Wire):
    """`spoken`: the titles of sections are spoken by a local voice."""

    title: str = Field(min_length=1, max_length=200)
    spoken: bool = False
    sections: list[CompiledSectionIn] = Field(max_length=60)


class DigestIn(Wire):
    """How long the digest may be."""

    minutes: Literal[3, 5, 10]


class CompiledPassageOut(CompiledPassageIn):
    meeting: str
    day: date
    open: bool  # whether the meeting may still be opened


class CompiledSectionOut(Wire):
    title: str
    passages: list[CompiledPassageOut]


class CompilationOut(Wire):
    id: int
    title: str
    spoken: bool
    can_speak: bool  # whether a local voice is there
    seconds: float
    sections: list[CompiledSectionOut]


class CompilationFact(Wire):
    id: int
    title: str
    seconds: float
    passages: int


class CompilationsOut(Wire):
    compilations: list[CompilationFact]


class CaptionOut(Wire):
    """What is said from `start` to `end` seconds of the whole; a spoken heading has no speaker."""

    speaker: str
    start: float
    end: float
    text: str


class CaptionsOut(Wire):
    captions: list[CaptionOut]
