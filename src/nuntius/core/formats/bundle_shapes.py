"""What a bundle's `nuntius.json` holds: a whole meeting by names and times, without any number of a database."""

from datetime import date, datetime
from typing import Annotated, Any, Literal, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, FailFast, Field

from nuntius.core.minutes.line import (
    Layout,
    Length,
    LineDoubt,
    LineKind,
    LineState,
    MinutesSource,
    Progress,
    ThrowOutReason,
)
from nuntius.core.rooms import BreakKind

SCHEMA = "nuntius.meeting/1"
Seconds = Annotated[float, Field(ge=0, le=1e6)]
Span = Annotated[float, Field(ge=-1e6, le=1e6)]  # seconds, or a place in an order
Count = Annotated[int, Field(ge=0, le=10_000_000)]


def _of_our_time(moment: datetime) -> datetime:
    """A moment between 1970 and 2200: others cannot be moved between time zones, or sorted, everywhere."""
    if not 1970 <= moment.year <= 2200:
        raise ValueError("the year lies outside of 1970 to 2200")
    return moment


Moment = Annotated[datetime, AfterValidator(_of_our_time)]
Name = Annotated[str, Field(min_length=1, max_length=200)]
Text = Annotated[str, Field(max_length=20_000)]
T = TypeVar("T")
Items = Annotated[list[T], FailFast()]  # the first wrong item ends the reading: a fault for each would fill the memory
KeptWord = tuple[
    Annotated[str, Field(max_length=500)], Seconds, Seconds, Span
]  # text, start, end (seconds), confidence


class Kept(BaseModel):
    """A part of a bundle; what it does not know it refuses, so that nothing is lost unseen."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class KeptFile(Kept):
    """A file of the archive with what it must be."""

    path: str = Field(pattern=r"^(sound|pictures)/[A-Za-z0-9._-]{1,120}$")
    size: int = Field(ge=1, le=1 << 40)
    sha256: str = Field(pattern=r"^[0-9a-f]{64}$")


class KeptMeeting(Kept):
    title: Name
    kind: Name
    starts_at: Moment
    time_zone: Annotated[str, Field(max_length=64)]
    people: Items[Name]
    template: dict[str, Any] | None  # where it is none of the shipped ones


class KeptRecording(Kept):
    """Measures in seconds, LUFS and dBFS; `spans` are start, end and label of whoever spoke."""

    name: Annotated[str, Field(max_length=255)]
    is_text: bool
    duration: Seconds | None
    spans: list[tuple[Seconds, Seconds, Name]] | None
    file: KeptFile


class KeptVoice(Kept):
    label: Name
    person: Name | None


class KeptTurn(Kept):
    """`words` as they were heard, `person_words` what a person put in their place."""

    voice: Name
    cue: Annotated[str, Field(max_length=64)]
    words: Items[KeptWord] = Field(min_length=1)
    person_words: Annotated[list[KeptWord], Field(min_length=1)] | None


class KeptEvidence(Kept):
    """Words `first` to `last` of a turn, counted from 0."""

    of_answer: bool
    turn: Count
    first: Count
    last: Count
    start: Seconds
    end: Seconds
    quote: str


class KeptLine(Kept):
    kind: str = Field(json_schema_extra={"enum": list(LineKind)})
    place: Count
    chapter: Count
    text: Text
    person_text: Text | None
    owner: Items[Name]
    due: date | None
    due_said: str | None
    state: LineState
    answer: Text | None
    why: Annotated[str, Field(max_length=80)]
    doubts: Items[str] = Field(default=[], json_schema_extra={"items": {"enum": list(LineDoubt)}})
    checked: bool
    thrown_out: ThrowOutReason | None
    progress: Progress = Progress.OPEN
    remark: Text = ""
    set_by_person: Items[Annotated[str, Field(max_length=20)]] = []  # names of what a person set
    by_hand: bool = False
    evidence: Items[KeptEvidence]


class KeptChapter(Kept):
    title: Name
    first: Count
    last: Count
    start: Seconds
    end: Seconds


class KeptMinutes(Kept):
    made_at: Moment
    source: MinutesSource
    length: Length
    sections: list[tuple[str, Layout]]
    detailed: Items[Count]
    fine: bool = False
    remark: str
    coverage: Annotated[float, Field(ge=0, le=1)]
    gaps: Items[tuple[Seconds, Seconds]]
    chapters: Items[KeptChapter]
    lines: Items[KeptLine]


class KeptExcerpt(Kept):
    title: Name
    note: Text
    label: Annotated[str, Field(max_length=60)]
    speakers: Items[Name]
    start: Seconds
    end: Seconds
    quote: str


class KeptNote(Kept):
    text: Text
    at: Seconds
    position: Span
    private: bool


class KeptMark(Kept):
    label: Annotated[str, Field(max_length=60)]
    text: Annotated[str, Field(max_length=500)]
    start: Seconds
    end: Seconds


class KeptItem(Kept):
    """An item of the agenda with the seconds planned for it, and when it was on."""

    title: Name
    planned: Span | None
    begun: Span | None
    ended: Span | None


class KeptBreak(Kept):
    kind: BreakKind
    at: Seconds
    seconds: Span | None
    by: Annotated[str, Field(max_length=200)]
    made_at: Moment


class KeptPicture(Kept):
    at: Seconds
    file: KeptFile


class KeptConsent(Kept):
    """How the recording was announced, and who agreed to it."""

    announced_at: Moment | None
    announced_by: str | None
    agreed: Items[tuple[Name, Moment]]


class Bundle(Kept):
    """A whole meeting."""

    schema_: Literal["nuntius.meeting/1"] = Field(default="nuntius.meeting/1", alias="schema")
    meeting: KeptMeeting
    recording: KeptRecording | None
    voices: Items[KeptVoice]
    turns: Items[KeptTurn]
    minutes: KeptMinutes | None
    excerpts: Items[KeptExcerpt]
    notes: Items[KeptNote]
    marks: Items[KeptMark]
    agenda: Items[KeptItem]
    breaks: Items[KeptBreak]
    pictures: Items[KeptPicture]
    consent: KeptConsent | None

    @property
    def files(self) -> list[KeptFile]:
        """All files that the archive must hold."""
        return [*([self.recording.file] if self.recording else []), *(picture.file for picture in self.pictures)]
