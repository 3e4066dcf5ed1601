"""What goes over the wire: requests and answers of the API."""

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints

from nuntius.core.jobs import JobKind, JobState
from nuntius.core.minutes.line import Length, ThrowOutReason
from nuntius.core.rooms import RoomState, UploadRole
from nuntius.core.templates.shipped import SHIPPED

Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=120)]
Email = Annotated[str, StringConstraints(strip_whitespace=True, max_length=320, pattern=r"^[^@\s]+@[^@\s]+$")]
Digest = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{64}$")]
Seconds = Annotated[float, Field(ge=0, le=1_000_000)]
Number = Annotated[int, Field(ge=0, lt=2**31)]  # of a row, a turn, a part: what the database's own numbers can be
Id = Annotated[str, StringConstraints(max_length=64)]  # of a meeting or an upload


def _of_our_time(moment: datetime) -> datetime:
    if not 1970 <= moment.year <= 2200:
        raise ValueError("the year must lie between 1970 and 2200")
    return moment


Moment = Annotated[datetime, AfterValidator(_of_our_time)]
Kind = Literal["general meeting", "stand-up", "client call", "interview", "one-to-one", "training", "committee"]
assert Kind.__args__ == tuple(SHIPPED)  # type: ignore[attr-defined]


class Wire(BaseModel):
    model_config = ConfigDict(extra="forbid", allow_inf_nan=False)


# --- addresses ---


class MeetingPath(Wire):
    meeting_id: Id


class LinePath(MeetingPath):
    line_id: Number


class TurnPath(MeetingPath):
    number: Number


class VoicePath(MeetingPath):
    speaker_id: Number


class FilePath(MeetingPath):
    form: Literal[
        "minutes.md", "minutes.json", "minutes.html", "minutes.txt", "minutes.docx", "map.opml",
        "actions.csv", "actions.ics", "floor.csv", "chapters.vtt", "chapters.json",
        "transcript.vtt", "transcript.srt", "transcript.ttml", "transcript.json", "transcript.txt", "transcript.csv",
        "transcript.docx", "voices.rttm",
    ]  # fmt: skip


class UploadPath(Wire):
    upload_id: Id


class PartPath(UploadPath):
    number: Number


# --- requests ---


class MeetingsQuery(BaseModel):
    words: str = Field(default="", max_length=200)
    after: str | None = Field(default=None, max_length=80)


class FirstTurn(BaseModel):
    first: Number = 0


class ActionsQuery(BaseModel):
    most: int = Field(default=50, ge=1, le=200)
    mine: bool = False


class SignIn(Wire):
    email: str = Field(max_length=320)
    password: str = Field(max_length=1000)


class FirstAccount(Wire):
    workspace: Name
    name: Name
    email: Email
    password: str = Field(max_length=1000)
    time_zone: str = Field(default="UTC", max_length=64)


class Beside(Wire):
    """A file that goes with a recording, and what it is."""

    upload_id: str
    role: Literal[UploadRole.TRANSCRIPT, UploadRole.CHAT]


class NewMeeting(Wire):
    title: Title
    kind: Kind = "general meeting"
    template: str | None = Field(default=None, max_length=80)
    starts_at: Moment
    time_zone: str = Field(default="UTC", max_length=64)
    people: list[Name] = Field(default=[], max_length=60)
    upload_id: str
    beside: list[Beside] = Field(default=[], max_length=2)
    voices: int | None = Field(default=None, ge=1, le=20)


class MeetingDetails(Wire):
    """A time without an offset is on the clock of where the meeting was held."""

    title: Title
    starts_at: Moment


class NewUpload(Wire):
    name: str = Field(min_length=1, max_length=255)
    size: int = Field(ge=0)
    fingerprint: Digest


class VoiceName(Wire):
    name: str | None = Field(max_length=200)


class NewText(Wire):
    """A text, and the one that the person began from: where another stands there by now, nothing is changed."""

    text: str = Field(max_length=20_000)
    was: str | None = Field(default=None, max_length=20_000)


class Tick(Wire):
    checked: bool


class NewShape(Wire):
    """Length, template (its key), chapters in more detail (their numbers) and finer ones; null leaves each as it is."""

    length: Length | None = None
    template: str | None = Field(default=None, max_length=80)
    detailed: list[Annotated[int, Field(ge=0, le=10_000)]] | None = Field(default=None, max_length=200)
    fine: bool | None = None


class ThrowOut(Wire):
    """Why a line does not belong into the minutes; null takes it back in."""

    reason: ThrowOutReason | None


class Stretch(Wire):
    start: Seconds
    end: Seconds


class GivenWords(Wire):
    """Words of a turn for another voice; a new voice where none is named, the whole turn where no words are."""

    voice: Number | None
    first: int = Field(default=0, ge=0)
    last: int | None = Field(default=None, ge=0)


class SplitAt(Wire):
    at: int = Field(ge=1)


class MergedInto(Wire):
    into: Number


class Replacement(Wire):
    """What is wanted, what is to stand instead, whether capital letters matter, whether all of the series is meant.

    `dry` only counts.
    """

    wanted: str = Field(min_length=1, max_length=200)
    instead: str = Field(max_length=200)
    exactly: bool = False
    series: bool = False
    dry: bool = False


class Question(Wire):
    """Put to the whole record, or to what one voice said, or to a stretch of it (seconds from the meeting's start)."""

    question: str = Field(min_length=1, max_length=500)
    speaker: str | None = Field(default=None, max_length=200)
    start: Seconds | None = None
    end: Seconds | None = None


# --- answers ---


class SessionState(Wire):
    """Who is signed in; `needs_first_account` on a fresh installation."""

    signed_in: bool
    csrf: str
    needs_first_account: bool
    demo: bool
    second_factor: bool = False  # the password was right, a code is needed now
    name: str = ""
    workspace: str = ""
    person_id: int = 0
    administrator: bool = False
    mail: bool = False  # whether mail is sent here


class JobOut(Wire):
    """`ahead`: how many jobs come before one that waits."""

    id: str
    meeting_id: str
    kind: JobKind
    state: JobState
    step: str
    steps: list[str]
    progress: float
    remaining: float | None
    error: str | None
    ahead: int | None
    put_away: bool


class PutAway(Wire):
    put_away: bool


class UploadOut(Wire):
    id: str
    name: str
    size: int
    part_size: int
    held: list[int]
    meeting_id: str | None
    same_as: str | None = None
    same_title: str | None = None


class MeetingOut(Wire):
    """`kind` is the name of the meeting's template."""

    id: str
    title: str
    kind: str
    starts_at: datetime
    time_zone: str
    people: list[str]
    runner: bool  # whether it is run by whoever asks
    duration: float | None
    job: JobOut | None
    upload: UploadOut | None
    unchecked: int
    lines: int
    room: RoomState | None


class MeetingsOut(Wire):
    """Some meetings, how many there are in all, and what to give as `after` for those that follow (null: none)."""

    meetings: list[MeetingOut]
    total: int
    after: str | None


class TodayOut(Wire):
    """The newest meetings that are on, worked on, not done because the work failed or was stopped, and to be checked."""

    on: MeetingsOut
    busy: MeetingsOut
    not_done: MeetingsOut
    check: MeetingsOut


class Removed(Wire):
    id: str


class OpenAction(Wire):
    meeting_id: str
    meeting: str
    line_id: int
    text: str
    owner: list[str]
    due: date | None
    due_said: str | None


class ActionsOut(Wire):
    actions: list[OpenAction]
    total: int


class HealthFault(Wire):
    """What does not work, with a sentence for whoever runs this machine."""

    name: Literal["database", "disk", "queue", "worker", "listener"]
    detail: str


class Health(Wire):
    """`degraded`: something beside the server is missing; `down`: the server cannot do its own part."""

    status: Literal["ok", "degraded", "down"]
    version: str
    faults: list[HealthFault]


class Problem(BaseModel):
    """RFC 9457 problem details; `detail` is a sentence that a person can act on."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    theirs: str | None = None  # where somebody changed the same meanwhile: what stands there now
