"""What minutes are made of."""

import re
from dataclasses import dataclass, field
from datetime import date, time
from enum import StrEnum


class LineKind(StrEnum):
    """What a line of the minutes is, under the name that the database and files keep."""

    NOTE = "note"
    DECISION = "decision"
    ACTION = "action"
    QUESTION = "question"
    KEY_POINT = "key_point"
    FIGURE = "figure"
    RISK = "risk"
    STEP = "step"
    NEED = "need"
    NAMED = "named"
    TURNING_POINT = "turning_point"
    KEYWORD = "sought"  # of a section with words of its own


class LineState(StrEnum):
    """OPEN: still to be done or answered; SETTLED; SUPERSEDED: another line stands in its place; PROPOSED."""

    OPEN = "open"
    SETTLED = "settled"
    SUPERSEDED = "superseded"
    PROPOSED = "proposed"


class Progress(StrEnum):
    """How far the task of an action is: what a person says of it, whether or not the line has been checked."""

    OPEN = "open"
    DONE = "done"
    DROPPED = "dropped"


class LineDoubt(StrEnum):
    """Why a line is worth a look before the minutes go out."""

    NOT_SETTLED = "may not be settled"
    NO_TASK = "may be no task"
    HAS_A_DAY = "may have a day"
    MEANS_OTHER = "may mean something else"
    HEARD_UNSURELY = "heard unsurely"


class ThrowOutReason(StrEnum):
    """Why a person threw a line out."""

    NOT_SAID = "not said"
    UNIMPORTANT = "does not matter"
    ELSEWHERE = "somebody else's"
    JOKE = "said as a joke"
    TWICE = "twice"


class Length(StrEnum):
    """How long minutes are: SHORT fits a screen, FULL leaves little out."""

    SHORT = "short"
    STANDARD = "standard"
    FULL = "full"


class MinutesSource(StrEnum):
    """LIVE: made from the text heard during the meeting; SETTLED: from the final transcript."""

    LIVE = "live"
    SETTLED = "settled"


class Layout(StrEnum):
    """How the lines of a section are grouped."""

    PLAIN = ""
    CHAPTER = "chapter"
    VOICE = "voice"


SECTIONS = {
    LineKind.NOTE: "Notes",
    LineKind.DECISION: "Decisions",
    LineKind.ACTION: "Actions",
    LineKind.QUESTION: "Questions",
    LineKind.KEY_POINT: "Key points",
    LineKind.FIGURE: "Figures",
    LineKind.RISK: "Risks",
    LineKind.STEP: "Steps",
    LineKind.NEED: "Needs and objections",
    LineKind.NAMED: "Who was named",
    LineKind.TURNING_POINT: "Turning points",
    LineKind.KEYWORD: "Looked for",
}

RULES = frozenset(  # that write lines; the Record tells each in words
    (
        "a figure",
        "a figure surprised",
        "a person's note",
        "a person's own remark",
        "a rule for all",
        "added by hand",  # `BY_HAND`
        "an instruction",
        "an objection stuck",
        "asked",
        "asked for by a day",
        "asked of all",
        "assignment",
        "commitment",
        "decided",
        "done in the meeting",
        "named by others",
        "near the middle of its chapter",
        "nobody took it",
        "offer taken up",
        "proposed and agreed",
        "put to all",
        "request",
        "reversed",
        "ruled",
        "said as one",
        "settled",
        "taken up",
        "the first agreement",
        "told and taken",
        "told and taken by the next voice",
        "weight in its chapter",
        "what was asked for",
        "when to meet again",
    )
)
BY_HAND = "added by hand"
SOUGHT = "was looked for"  # how what a section of a person's own looks for ends


@dataclass(frozen=True, order=True, slots=True)
class Passage:
    """Words `first` to `last` (inclusive) of turn number `turn` of the transcript."""

    turn: int
    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Answer:
    """What was answered, and where."""

    text: str
    evidence: tuple[Passage, ...]


@dataclass(frozen=True, slots=True)
class Line:
    """One statement of the minutes; `evidence` is never empty.

    `owner` holds whole names or labels of voices, and is
    empty where nobody took an action on. `why` names the rule that wrote the line. `place` is the number of the
    section of the template in which it stands. `doubts` are what is worth a look before it goes out.
    """

    kind: LineKind
    text: str
    evidence: tuple[Passage, ...]
    chapter: int = 0
    owner: tuple[str, ...] = ()
    due: date | None = None
    due_said: str | None = None
    state: LineState = LineState.OPEN
    answer: Answer | None = None
    why: str = ""
    place: int = 0
    doubts: tuple[LineDoubt, ...] = ()

    def __post_init__(self) -> None:
        if self.why and self.why not in RULES and not self.why.endswith(SOUGHT):
            raise ValueError(f"“{self.why}” is no rule that a line may name")

    @property
    def section(self) -> str:
        return SECTIONS[self.kind]

    @property
    def turns(self) -> frozenset[int]:
        """Turns that the line rests on."""
        return frozenset(passage.turn for passage in self.evidence)


@dataclass(frozen=True, slots=True)
class Chapter:
    """A stretch on one subject: turns `first` to `last` (inclusive)."""

    title: str
    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Coverage:
    """Share of the talk (0 to 1, backchannels aside) that lines rest on, and the stretches left out in seconds."""

    share: float
    gaps: tuple[tuple[float, float], ...]


@dataclass(frozen=True, slots=True)
class Minutes:
    """Lines in the order of the talk, chapters, coverage, and title and layout of each section.

    `length`, `detailed` (numbers of chapters in more detail) and `fine` (finer chapters) are what was asked for.
    `remark` says what these minutes cannot hold, "" where nothing is to be said.
    """

    lines: tuple[Line, ...]
    chapters: tuple[Chapter, ...]
    coverage: Coverage
    sections: tuple[tuple[str, Layout], ...] = ()
    length: Length = Length.STANDARD
    detailed: frozenset[int] = frozenset()
    fine: bool = False
    remark: str = ""

    @property
    def shown(self) -> tuple[Line, ...]:
        """The lines as a reader sees them: without the key points that an answer tells word for word."""
        asked = [(line, line.answer) for line in self.lines if line.answer is not None]
        answers = [(line.place, _plain(f"{line.text} {answer.text}")) for line, answer in asked]
        return tuple(
            line
            for line in self.lines
            if line.kind != LineKind.KEY_POINT
            or not any(line.place == place and _plain(line.text) in answer for place, answer in answers)
        )


def _plain(text: str) -> str:
    """Words and nothing else, each between spaces."""
    return f" {' '.join(re.findall(r'[a-z0-9]+', text.lower()))} "


@dataclass(frozen=True, slots=True)
class Note:
    """A paragraph that a person typed at `at` seconds, in the person's own words."""

    text: str
    at: float
    author: str


@dataclass(frozen=True, slots=True)
class MeetingFacts:
    """What is known of a meeting beside its talk; `marks` are stretches (start, end) in seconds.

    `unwanted` are lines (kind, text) that were thrown out of earlier meetings of the series. `day` and `begun`
    are on the clock of where it was held; without `begun` an hour that is said is taken to lie ahead.
    """

    day: date
    people: tuple[str, ...] = ()
    agenda: tuple[str, ...] = field(default=())
    notes: tuple[Note, ...] = ()
    marks: tuple[tuple[float, float], ...] = ()
    unwanted: tuple[tuple[str, str], ...] = ()
    begun: time | None = None
