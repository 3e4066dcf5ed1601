"""Templates: which sections the minutes of a kind of meeting have, and what each of them takes."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from nuntius.core.errors import TemplateUnusable
from nuntius.core.minutes.line import Layout, Length, Line, LineKind, LineState

TAKEN = {  # what a section may take, in words for a person
    LineKind.NOTE: "notes",
    LineKind.DECISION: "decisions",
    LineKind.ACTION: "actions",
    "open_question": "questions left open",
    LineKind.QUESTION: "questions and answers",
    LineKind.KEY_POINT: "key points",
    LineKind.RISK: "risks and obstacles",
    LineKind.FIGURE: "figures",
    LineKind.STEP: "steps, warnings and exceptions",
    LineKind.NEED: "needs and objections, and whether they were met",
    LineKind.NAMED: "who was named",
    LineKind.TURNING_POINT: "turning points",
    LineKind.KEYWORD: "own words",
}
GROUPS = ("", "chapter", "voice")  # how the lines of a section are laid out
FIRM = frozenset((LineKind.NOTE, LineKind.DECISION, LineKind.ACTION))  # never left out, whatever a template says
REST = "Also decided, promised or noted"
MOST_SECTIONS, MOST_LABELS, MOST_WORDS, MOST_QUESTIONS = 20, 9, 30, 30
LONGEST = 200  # characters of a title, a label, a phrase


@dataclass(frozen=True, slots=True)
class Section:
    """One section: the kinds of line it takes, the words one of which must be said, the voices it is about.

    Without kinds it is looked for in the talk itself: every sentence that holds one of the words. `most` lines at
    most (None: all). `group` lays the lines out by chapter or by voice.
    """

    title: str
    kinds: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    voices: tuple[str, ...] = ()
    group: Layout = Layout.PLAIN
    most: int | None = None

    def takes(self, line: Line, said: str, speakers: frozenset[str]) -> bool:
        """Whether a line belongs here; `said` are its text and quotations, `speakers` those who said it."""
        kinds = self.kinds or (LineKind.KEYWORD,)
        is_open = line.kind == LineKind.QUESTION and line.state == LineState.OPEN
        if line.kind not in kinds and not (is_open and "open_question" in kinds):
            return False
        if self.voices and not speakers & frozenset(self.voices):
            return False
        return not self.kinds or not self.words or any(word.lower() in said for word in self.words)


@dataclass(frozen=True, slots=True)
class Template:
    """Sections in their order, labels for marks, a standing agenda, ready questions, the length to begin with."""

    name: str
    sections: tuple[Section, ...]
    labels: tuple[str, ...] = ()
    agenda: tuple[str, ...] = ()
    questions: tuple[str, ...] = ()
    length: Length = Length.STANDARD

    @property
    def kinds(self) -> frozenset[str]:
        """The kinds of line that some section takes."""
        return frozenset(kind for section in self.sections for kind in section.kinds)

    def place(self, line: Line, said: str, speakers: frozenset[str]) -> int | None:
        """Number of the section a line belongs to; the one behind the last for firm lines that none takes, else None."""
        for number, section in enumerate(self.sections):
            if section.takes(line, said, speakers):
                return number
        return len(self.sections) if line.kind in FIRM else None

    @property
    def titles(self) -> tuple[tuple[str, Layout], ...]:
        """Title and layout of every section, and of the one for firm lines that none takes."""
        return (*((s.title, s.group) for s in self.sections), (REST, Layout.PLAIN))


def read_template(body: dict[str, Any]) -> Template:
    """A template from its JSON. Raises TemplateUnusable with a sentence that says what is wrong."""
    sections = tuple(_section(each) for each in _list(body, "sections", MOST_SECTIONS))
    if not sections:
        raise TemplateUnusable("A template needs at least one section. Add one, and say what it takes.")
    titles = [section.title.lower() for section in sections]
    double = next((t for t in titles if titles.count(t) > 1), None)
    if double:
        raise TemplateUnusable(f"Two sections are called “{double}”. Give each a title of its own.")
    length = body.get("length", Length.STANDARD)
    if length not in set(Length):
        raise TemplateUnusable(f"“{length}” is no length. It is short, standard or full.")
    return Template(
        _phrase(body.get("name"), "The template needs a name."),
        sections,
        _phrases(body, "labels", MOST_LABELS),
        _phrases(body, "agenda", MOST_QUESTIONS),
        _phrases(body, "questions", MOST_QUESTIONS),
        Length(length),
    )


def template_json(template: Template) -> dict[str, Any]:
    """The JSON that `read_template` reads."""
    return {
        "name": template.name,
        "sections": [
            {
                "title": s.title,
                "kinds": list(s.kinds),
                "words": list(s.words),
                "voices": list(s.voices),
                "group": s.group,
                "most": s.most,
            }
            for s in template.sections
        ],
        "labels": list(template.labels),
        "agenda": list(template.agenda),
        "questions": list(template.questions),
        "length": template.length,
    }


def _section(body: Any) -> Section:
    title = _phrase(body.get("title"), "Every section needs a title.")
    kinds = tuple(dict.fromkeys(_phrases(body, "kinds", len(TAKEN))))
    unknown = next((kind for kind in kinds if kind not in TAKEN or kind == LineKind.KEYWORD), None)
    if unknown:
        raise TemplateUnusable(f"The section “{title}” takes “{unknown}”, which is no kind of line.")
    words, most, group = _phrases(body, "words", MOST_WORDS), body.get("most"), body.get("group", "")
    if not kinds and not words:
        raise TemplateUnusable(
            f"The section “{title}” takes nothing yet. Choose what it takes, or give words to look for."
        )
    if most is not None and not 1 <= most <= 500:
        raise TemplateUnusable(f"The section “{title}” holds {most} lines. Say between 1 and 500, or leave it empty.")
    if group not in GROUPS:
        raise TemplateUnusable(f"The section “{title}” cannot be laid out by “{group}”.")
    return Section(title, kinds, words, _phrases(body, "voices", MOST_WORDS), group, most)


def _list(body: dict[str, Any], key: str, most: int) -> list[Any]:
    found = body.get(key) or []
    if len(found) > most:
        raise TemplateUnusable(f"A template holds at most {most} {key}; these are {len(found)}.")
    return list(found)


def _phrases(body: dict[str, Any], key: str, most: int) -> tuple[str, ...]:
    cleaned: Iterable[str] = (" ".join(str(each).split()) for each in _list(body, key, most))
    return tuple(_phrase(each, "") for each in cleaned if each)


def _phrase(text: Any, missing: str) -> str:
    cleaned = " ".join(str(text or "").split())
    if not cleaned:
        raise TemplateUnusable(missing)
    if len(cleaned) > LONGEST:
        raise TemplateUnusable(f"“{cleaned[:40]} …” is {len(cleaned)} characters long; {LONGEST} fit.")
    return cleaned
