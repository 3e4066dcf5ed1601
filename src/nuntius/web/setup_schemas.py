"""What goes over the wire of a workspace's set-up: templates, vocabulary, ready questions."""

from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from nuntius.core.minutes.line import Layout, Length, LineKind
from nuntius.web.schemas import MeetingPath, Number, Wire

Phrase = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]
Phrases = Annotated[list[Phrase], Field(max_length=30)]


class TemplatePath(Wire):
    template_id: Number


class SectionShape(Wire):
    title: str = Field(max_length=500)
    kinds: Phrases = []
    words: Phrases = []
    voices: Phrases = []
    group: Layout = Layout.PLAIN
    most: Number | None = None


class TemplateShape(Wire):
    name: str = Field(max_length=500)
    sections: list[SectionShape] = Field(max_length=100)
    labels: Phrases = []
    agenda: Phrases = []
    questions: Phrases = []
    length: Length = Length.STANDARD


class TemplateOut(TemplateShape):
    """A template that can be chosen by its key; `id` is null for one that is shipped."""

    key: str
    id: int | None
    may_change: bool


class KindOut(Wire):
    kind: str
    description: str


class TemplatesOut(Wire):
    """All templates, and what a section may take, in words for a person."""

    templates: list[TemplateOut]
    kinds: list[KindOut]


class SuggestionOut(Wire):
    """The template that the talk and the title suggest; null where neither does, or where it is the one chosen."""

    key: str | None
    name: str | None
    because: str | None


class TermPath(Wire):
    term_id: Number


class QuestionPath(Wire):
    question_id: Number


class NewTerm(Wire):
    text: str = Field(max_length=200)
    heard: Phrases = []


class TermOut(Wire):
    id: int
    text: str
    heard: list[str]
    refused: list[str]
    may_change: bool


class TermsOut(Wire):
    terms: list[TermOut]


class NewQuestion(Wire):
    text: str = Field(max_length=1000)


class QuestionOut(Wire):
    id: int
    text: str
    may_change: bool


class QuestionsOut(Wire):
    """Ready questions: those of the template, then the kept ones."""

    template: list[str]
    kept: list[QuestionOut]


class ThrownOut(Wire):
    reason: str
    lines: int


class TrustOut(Wire):
    """What people did with the lines of a kind; those that nobody has looked at are the rest of `lines`."""

    kind: LineKind
    lines: int
    confirmed: int
    corrected: int
    thrown_out: int
    reasons: list[ThrownOut]


class TrustsOut(Wire):
    kinds: list[TrustOut]


class PlaceOut(Wire):
    turn: int
    start: float
    end: float
    speaker: str
    quote: str


class MishearingOut(Wire):
    term: str
    heard: str
    known: bool
    places: list[PlaceOut]


class MishearingsOut(Wire):
    found: list[MishearingOut]


class PutRight(Wire):
    """`right`: the term stands in its place from now on; otherwise the form is right as it is."""

    term: Phrase
    heard: Phrase
    right: bool


class TextPath(MeetingPath):
    form: Literal["message", "client-message", "checklist", "brief", "handout"]


class MannerQuery(Wire):
    manner: Literal["plain", "warm", "formal"] = "plain"


class PieceOut(Wire):
    """A paragraph, heading or item, with the identifiers of the lines that it rests on."""

    text: str
    lines: list[int]


class TextOut(Wire):
    subject: str
    pieces: list[PieceOut]
