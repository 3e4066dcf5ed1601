"""What the page of a meeting shows: voices, turns, minutes with their evidence, marks, and what a change touched."""

from datetime import date, datetime

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
from nuntius.web.schemas import MeetingOut, Wire


class VoiceOut(Wire):
    id: int
    label: str
    name: str
    named: bool
    share: float


class SuggestionsOut(Wire):
    """Who a voice may be: those the talk points to first, then the others who were there and have no voice yet."""

    names: list[str]


class TurnOut(Wire):
    """`words` are [text, start, end, confidence]; `heard` is the machine's text where a person changed it."""

    number: int
    voice: int
    words: list[tuple[str, float, float, float]]
    heard: str | None


class DoubtOut(Wire):
    """A turn whose voice is unsure, or during which others (`over`, numbers of voices) speak at the same time."""

    turn: int
    unsure: bool
    over: list[int]


class EvidenceOut(Wire):
    """Words `first` to `last` of a turn."""

    turn: int
    first: int
    last: int
    start: float
    end: float
    quote: str
    of_answer: bool


class LineOut(Wire):
    """`topic` is the title of its chapter where the line does not name what it is about itself.

    `set_by_person` names the parts that a person set, which stay when minutes are made again.
    """

    id: int
    kind: LineKind
    text: str
    heard: str | None
    owner: list[str]
    due: date | None
    due_said: str | None
    state: LineState
    answer: str | None
    place: int
    chapter: int
    topic: str
    checked: bool
    progress: Progress
    remark: str
    set_by_person: list[str]
    by_hand: bool
    thrown_out: ThrowOutReason | None
    why: str
    doubts: list[LineDoubt]
    evidence: list[EvidenceOut]


class ChapterOut(Wire):
    title: str
    start: float
    end: float


class SectionOut(Wire):
    title: str
    layout: Layout


class MinutesOut(Wire):
    """`source` is live while the better recogniser still listens, then settled."""

    source: MinutesSource
    length: Length
    template: str
    sections: list[SectionOut]
    detailed: list[int]
    fine: bool
    remark: str
    coverage: float
    gaps: list[tuple[float, float]]
    chapters: list[ChapterOut]
    lines: list[LineOut]


class RecordingOut(Wire):
    name: str
    duration: float | None
    is_text: bool
    has_sound: bool
    has_original: bool  # the file as brought in can be downloaded
    has_picture: bool
    loudness: float | None
    peak: float | None
    broken: bool


class ThereOut(Wire):
    id: int
    name: str
    agreed_at: datetime | None
    brought_in: bool = False  # said by a bundle from elsewhere, not verified here


class BreakOut(Wire):
    kind: BreakKind
    at: float
    seconds: float | None
    by: str
    made_at: datetime


class MarkOut(Wire):
    id: str
    label: str
    text: str
    start: float
    end: float
    by: str
    mine: bool


class MarksOut(Wire):
    marks: list[MarkOut]


class NoteOut(Wire):
    """A paragraph of one's own notes; one that is `private` is never part of the minutes."""

    id: str
    text: str
    at: float
    position: float
    private: bool


class NotesOut(Wire):
    """One's own notes in the order of the pad, and the labels that marks of this kind of meeting have."""

    notes: list[NoteOut]
    labels: list[str]


class PictureOut(Wire):
    id: int
    at: float


class ConsentOut(Wire):
    announced_at: datetime | None
    announced_by: str | None
    brought_in: bool  # said by a bundle from elsewhere, not verified here
    there: list[ThereOut]


class TurnsOut(Wire):
    """Some turns in order, from the one that was asked for; `total` there are."""

    turns: list[TurnOut]
    total: int


class RecordOut(Wire):
    """All that the page of a meeting shows, apart from the waveform, the sound, and turns behind the first 500.

    The others of the `total_turns` come by `getTurns`.
    """

    meeting: MeetingOut
    recording: RecordingOut | None
    voices: list[VoiceOut]
    turns: list[TurnOut]
    total_turns: int
    spans: list[tuple[float, float, int]]
    doubts: list[DoubtOut] = []
    silence: float
    minutes: MinutesOut | None
    breaks: list[BreakOut]
    marks: list[MarkOut]
    pictures: list[PictureOut]
    consent: ConsentOut | None
    can_undo: bool
    can_redo: bool


class NamedVoice(Wire):
    id: int
    name: str
    named: bool


class ChangedOut(Wire):
    """What a change touched: names of the voices, turns, lines, or all of the minutes where more of them changed.

    `restructured` says that turns were split, joined or given to others: the record is to be read again.
    """

    names: list[NamedVoice]
    turns: list[TurnOut]
    restructured: bool = False
    lines: list[LineOut] = []
    minutes: MinutesOut | None
    can_undo: bool
    can_redo: bool


class ReplacedOut(Wire):
    """How often something stood in this meeting and, where that was asked for, in others of its series."""

    count: int
    meetings: int


class Passage(Wire):
    turn: int
    start: float
    end: float
    speaker: str
    quote: str


class ReplyOut(Wire):
    """`nearest` are passages to look at where the record holds no answer."""

    found: bool
    answer: str | None
    passages: list[Passage]
    nearest: list[Passage]
