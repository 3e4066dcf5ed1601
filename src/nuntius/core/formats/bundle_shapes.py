"""What a bundle's `nuntius.json` holds: a whole meeting by names and times, without any number of a database."""

from datetime import date, datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field

from nuntius.core.minutes.line import DOUBTS, KINDS

SCHEMA = "nuntius.meeting/1"
Seconds = Annotated[float, Field(ge=0, le=1e6)]
Name = Annotated[str, Field(min_length=1, max_length=200)]
Text = Annotated[str, Field(max_length=20_000)]
KeptWord = tuple[str, float, float, float]  # text, start, end (seconds), confidence


class Kept(BaseModel):
    """A part of a bundle; what it does not know it refuses, so that nothing is lost unseen."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


class KeptFile(Kept):
    """A file of the archive with what it must be."""

    path: str = Field(pattern=r"^(sound|pictures)/[A-Za-z0-9._-]{1,120}$")
    size: int = Field(ge=1)
    sha256: str = Field(pattern=r"^[0-9a-f]{64}$")


class KeptMeeting(Kept):
    title: Name
    kind: Name
    starts_at: datetime
    time_zone: Annotated[str, Field(max_length=64)]
    people: list[Name]
    template: dict[str, Any] | None  # where it is none of the shipped ones


class KeptRecording(Kept):
    """Measures in seconds, LUFS and dBFS; `spans` are start, end and label of whoever spoke."""

    name: Annotated[str, Field(max_length=255)]
    is_text: bool
    duration: float | None
    spans: list[tuple[float, float, str]] | None
    file: KeptFile


class KeptVoice(Kept):
    label: Name
    person: Name | None


class KeptTurn(Kept):
    """`words` as they were heard, `person_words` what a person put in their place."""

    voice: Name
    cue: Annotated[str, Field(max_length=64)]
    words: list[KeptWord] = Field(min_length=1)
    person_words: Annotated[list[KeptWord], Field(min_length=1)] | None


class KeptEvidence(Kept):
    """Words `first` to `last` of a turn, counted from 0."""

    of_answer: bool
    turn: int = Field(ge=0)
    first: int = Field(ge=0)
    last: int = Field(ge=0)
    start: Seconds
    end: Seconds
    quote: str


class KeptLine(Kept):
    kind: str = Field(json_schema_extra={"enum": list(KINDS)})
    place: int = Field(ge=0)
    chapter: int = Field(ge=0)
    text: Text
    person_text: Text | None
    owner: list[Name]
    due: date | None
    due_said: str | None
    state: Annotated[str, Field(max_length=20)]
    answer: Text | None
    why: Annotated[str, Field(max_length=80)]
    doubts: list[str] = Field(default=[], json_schema_extra={"items": {"enum": list(DOUBTS)}})
    checked: bool
    thrown_out: Annotated[str, Field(max_length=40)] | None
    evidence: list[KeptEvidence]


class KeptChapter(Kept):
    title: Name
    first: int = Field(ge=0)
    last: int = Field(ge=0)
    start: Seconds
    end: Seconds


class KeptMinutes(Kept):
    made_at: datetime
    source: Literal["live", "settled"]
    length: Literal["short", "standard", "full"]
    sections: list[tuple[str, Literal["", "chapter", "voice"]]]
    detailed: list[int]
    fine: bool = False
    remark: str
    coverage: float
    gaps: list[tuple[float, float]]
    chapters: list[KeptChapter]
    lines: list[KeptLine]


class KeptExcerpt(Kept):
    title: Name
    note: Text
    label: Annotated[str, Field(max_length=60)]
    speakers: list[Name]
    start: Seconds
    end: Seconds
    quote: str


class KeptNote(Kept):
    text: Text
    at: Seconds
    position: float
    private: bool


class KeptMark(Kept):
    label: Annotated[str, Field(max_length=60)]
    text: Annotated[str, Field(max_length=500)]
    start: Seconds
    end: Seconds


class KeptItem(Kept):
    """An item of the agenda with the seconds planned for it, and when it was on."""

    title: Name
    planned: float | None
    begun: float | None
    ended: float | None


class KeptBreak(Kept):
    kind: Literal["pause", "gap", "cut"]
    at: Seconds
    seconds: float | None
    by: Annotated[str, Field(max_length=200)]
    made_at: datetime


class KeptPicture(Kept):
    at: Seconds
    file: KeptFile


class KeptConsent(Kept):
    """How the recording was announced, and who agreed to it."""

    announced_at: datetime | None
    announced_by: str | None
    agreed: list[tuple[Name, datetime]]


class Bundle(Kept):
    """A whole meeting."""

    schema_: Literal["nuntius.meeting/1"] = Field(default="nuntius.meeting/1", alias="schema")
    meeting: KeptMeeting
    recording: KeptRecording | None
    voices: list[KeptVoice]
    turns: list[KeptTurn]
    minutes: KeptMinutes | None
    excerpts: list[KeptExcerpt]
    notes: list[KeptNote]
    marks: list[KeptMark]
    agenda: list[KeptItem]
    breaks: list[KeptBreak]
    pictures: list[KeptPicture]
    consent: KeptConsent | None

    @property
    def files(self) -> list[KeptFile]:
        """All files that the archive must hold."""
        return [*([self.recording.file] if self.recording else []), *(picture.file for picture in self.pictures)]
