"""What goes over the wire about a meeting that is being recorded."""

from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from nuntius.core.rooms import CallState, RoomState, SoundSource
from nuntius.web.record_schemas import BreakOut, MarkOut, NoteOut, Passage, PictureOut, ThereOut
from nuntius.web.schemas import Kind, MeetingOut, MeetingPath, Name, Number, Seconds, Title, Wire

Token = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{8,64}$")]
Source = Literal[SoundSource.MICROPHONE, SoundSource.COMPUTER, SoundSource.BOTH]


class RunPath(MeetingPath):
    run: Number


class SoundPartPath(RunPath):
    part: Number


class LiveLinePath(MeetingPath):
    line: Number


class PersonPath(MeetingPath):
    person_id: Number


class NotePath(MeetingPath):
    note_id: Token


class MarkPath(MeetingPath):
    mark_id: Token


class PicturePath(MeetingPath):
    picture_id: Number


# --- requests ---


class PlannedItem(Wire):
    """An item of the agenda; `planned` in seconds."""

    title: Title
    planned: Seconds | None = None


class NewRoom(Wire):
    title: Title
    kind: Kind = "general meeting"
    template: str | None = Field(default=None, max_length=80)
    time_zone: str = Field(default="UTC", max_length=64)
    people: list[Name] = Field(default=[], max_length=60)
    agenda: list[PlannedItem] = Field(default=[], max_length=40)


class NewRun(Wire):
    recorder: Token
    source: Source
    take_over: bool = False
    all_sent: bool = False  # no part of earlier runs is left to send


class RunEnd(Wire):
    """`parts` is how many parts the run has in all, those still on their way among them."""

    all_sent: bool = False  # nothing is left to send

    recorder: Token
    parts: int = Field(ge=0)


class Announced(Wire):
    announced: bool


class Agreed(Wire):
    agreed: bool


class PersonName(Wire):
    name: Name


class AgendaIn(Wire):
    items: list[PlannedItem] = Field(max_length=40)


class TurnTo(Wire):
    number: Number | None
    at: Seconds


class NoteIn(Wire):
    text: str = Field(max_length=4000)
    at: Seconds
    position: float = Field(ge=-1e9, le=1e9)
    private: bool = False


class MarkIn(Wire):
    label: str = Field(max_length=60)
    start: Seconds
    end: Seconds
    text: str = Field(default="", max_length=500)


class RoomChoices(Wire):
    """Seconds; 0 turns the one or the other off."""

    silence_stop: float = Field(ge=0, le=7200)
    floor_limit: float = Field(ge=0, le=3600)


class CallLink(Wire):
    link: str = Field(max_length=500, pattern=r"^wss?://[^\s]+$")


class WorkspaceIn(Wire):
    announcement: str = Field(min_length=1, max_length=2000)
    consent_needed: bool


# --- answers ---


class WorkspaceOut(Wire):
    announcement: str
    consent_needed: bool


class RunOut(Wire):
    number: int
    held: int


class PartAck(Wire):
    """How many parts of the run are safely here without a gap, and how the room stands."""

    held: int
    state: str


class AgendaOut(Wire):
    title: str
    planned: float | None
    begun: float | None
    ended: float | None


class LiveVoiceOut(Wire):
    """`seconds` of speech so far, `longest` unbroken stretch, `last_heard` in seconds from the start."""

    id: int
    label: str
    name: str
    named: bool
    seconds: float
    longest: float
    last_heard: float


class LiveLineOut(Wire):
    """A settled line; `heard` is the machine's text where a person changed it, `text` empty where it was cut."""

    number: int
    start: float
    end: float
    text: str
    heard: str | None
    voice: int | None


class Speech(Wire):
    """What moves all the time: seconds recorded, what is being said, how far the live text is behind."""

    state: RoomState
    duration: float
    partial: str
    partial_start: float
    behind: float
    silent: float


class Board(Wire):
    """All of a room but its lines."""

    meeting: MeetingOut
    state: RoomState
    runner: bool
    recorder: str | None
    source: str | None
    runs: bool
    announcement: str
    consent_needed: bool
    may_record: bool
    announced_at: datetime | None
    announced_by: str | None
    there: list[ThereOut]
    agenda: list[AgendaOut]
    suggested: int | None
    labels: list[str]
    breaks: list[BreakOut]
    voices: list[LiveVoiceOut]
    holder: int | None
    held: float
    silence_stop: float
    floor_limit: float
    notes: list[NoteOut]
    marks: list[MarkOut]
    pictures: list[PictureOut]
    line_link: str
    line_state: CallState


class RoomOut(Wire):
    board: Board
    speech: Speech
    lines: list[LiveLineOut]


class BriefLine(Wire):
    text: str
    nobody: bool
    passages: list[Passage]


class SubjectOut(Wire):
    title: str
    start: float


class BriefOut(Wire):
    """`ready` is false before there is enough; `least` says what is wanted for it."""

    ready: bool
    least: str
    so_far: list[BriefLine]
    recent: list[BriefLine]
    decided: list[BriefLine]
    promised: list[BriefLine]
    subjects: list[SubjectOut]
    named: list[BriefLine]
