"""What goes over the wire about files that are made in the background."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from nuntius.core.jobs import JobState
from nuntius.web.schemas import Id, Wire


class ExportPath(Wire):
    export_id: Id


class MeetingExport(Wire):
    kind: Literal["minutes.pdf", "transcript.pdf", "small.ogg", "whole meeting.zip"]


class ExcerptsExport(Wire):
    """Excerpts in the order in which they are to be heard."""

    ids: Annotated[list[Annotated[int, Field(ge=0, lt=2**31)]], Field(min_length=1, max_length=200)]


class CompilationExport(Wire):
    kind: Literal["compilation.ogg", "compilation.m4a", "compilation.mp4"]


class ExportOut(Wire):
    """A file that was asked for; `meeting_id` where it is of one meeting, `size` in bytes once it is there."""

    id: str
    kind: str
    title: str
    name: str
    meeting_id: str | None
    state: JobState
    error: str | None
    size: int | None
    created_at: datetime


class ExportsOut(Wire):
    exports: list[ExportOut]
