"""Lines set right by hand, what became of them, and earlier minutes."""

from datetime import date, datetime
from typing import Annotated

from pydantic import Field

from nuntius.core.minutes.line import Length, LineKind, Progress, ThrowOutReason
from nuntius.web.schemas import MeetingPath, Number, Wire

Place = Annotated[int, Field(ge=0, le=1000)]
Owners = Annotated[list[Annotated[str, Field(max_length=400)]], Field(max_length=100)]
Day = Annotated[str, Field(max_length=200)]
Remark = Annotated[str, Field(max_length=5000)]


class VersionPath(MeetingPath):
    version_id: Number


class ChangePath(MeetingPath):
    change_id: Number


class PointedAt(Wire):
    """Words `first` to `last` of a turn."""

    turn: Number
    first: Number
    last: Number


class LineNew(Wire):
    """A line to be added behind the line `after`, or at the end of the section `place`.

    `due_said` without `due` is a day as people say it, counted from the day of the meeting.
    """

    kind: LineKind
    text: str = Field(max_length=20_000)
    place: Place
    chapter: Place = 0
    after: Number | None = None
    owner: Owners = []
    due: date | None = None
    due_said: Day | None = None
    progress: Progress = Progress.OPEN
    remark: Remark = ""
    evidence: list[PointedAt] = Field(default=[], max_length=200)


class LinePatch(Wire):
    """What of a line is to be otherwise; what is not given stays. A line is moved by naming one that it stands beside."""

    text: str | None = Field(default=None, max_length=20_000)
    kind: LineKind | None = None
    place: Place | None = None
    owner: Owners | None = None
    due: date | None = None
    due_said: Day | None = None
    progress: Progress | None = None
    remark: Remark | None = None
    evidence: list[PointedAt] | None = Field(default=None, max_length=200)
    after: Number | None = None
    before: Number | None = None


class JoinedWith(Wire):
    other: Number


class SplitText(Wire):
    first: str = Field(max_length=20_000)
    second: str = Field(max_length=20_000)


class FateOut(Wire):
    """`now_in` is the line that stands for the one asked for; where there is none, how it read and until when."""

    now_in: int | None
    text: str
    until: datetime | None
    version: int | None


class VersionSummary(Wire):
    id: int
    made_at: datetime
    replaced_at: datetime
    length: Length
    lines: int


class VersionsOut(Wire):
    versions: list[VersionSummary]


class VersionLine(Wire):
    """A line as it stood; `differs` says that it reads otherwise now, `gone` that it is not there any more."""

    id: int
    kind: LineKind
    text: str
    owner: list[str]
    due: date | None
    progress: Progress
    thrown_out: ThrowOutReason | None
    section: str
    differs: bool
    gone: bool


class VersionOut(Wire):
    """Earlier minutes, and the numbers of the lines that came since."""

    id: int
    made_at: datetime
    lines: list[VersionLine]
    added: list[int]


class Restored(Wire):
    """Which line of earlier minutes is wanted back; null for all of them."""

    line: Number | None
