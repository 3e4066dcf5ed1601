"""Minutes as Markdown."""

from collections.abc import Iterator
from dataclasses import dataclass, replace

from nuntius.core.minutes.line import Layout, LineKind, LineState, Progress


@dataclass(frozen=True, slots=True)
class WrittenLine:
    """A line as it stands for the reader; `passages` are clock times such as `12:04`.

    `place` is the number of its section, `chapter` that of its chapter, `speaker` who said what it rests on. `note` is
    what a person remarked on it, `id` the number that stays with it. Without passages it was added by hand.
    """

    kind: LineKind
    text: str
    owner: tuple[str, ...]
    due: str
    due_said: str
    state: LineState
    answer: str
    checked: bool
    passages: tuple[str, ...]
    place: int = 0
    chapter: int = 0
    speaker: str = ""
    due_date: str = ""  # ISO 8601
    seconds: tuple[float, ...] = ()  # where the passages begin
    topic: str = ""  # the title of its chapter, where the line does not name it itself
    progress: Progress = Progress.OPEN  # of an action
    note: str = ""
    id: int = 0

    @property
    def who(self) -> str:
        """Who has the action, or that nobody has."""
        return ", ".join(self.owner) or "nobody took this on"

    @property
    def when(self) -> str:
        """By when, or that nothing was said of it."""
        return self.due or "no date named"

    @property
    def stands(self) -> str:
        """Where it was said, and under which topic where it does not say so itself."""
        return (", ".join(self.passages) or "added by hand") + (f" · {self.topic}" if self.topic else "")

    @property
    def gone(self) -> bool:
        """Whether it no longer holds: replaced in the talk, or dropped by a person."""
        return self.state == LineState.SUPERSEDED or self.progress == Progress.DROPPED

    @property
    def remark(self) -> str:
        """What stands behind the line: the answer, or that there is none, what replaced it, how far it is, a person's remark."""
        done = self.progress if self.kind == LineKind.ACTION and self.progress != Progress.OPEN else ""
        return "; ".join(part for part in (self._outcome, done, self.note) if part)

    @property
    def _outcome(self) -> str:
        if self.kind == LineKind.QUESTION:
            return self.answer or "the record holds no answer"
        if self.kind == LineKind.NEED:
            return self.answer or "nothing was said to that"
        if self.state == LineState.SUPERSEDED:
            return f"superseded: {self.answer}" if self.answer else "superseded"
        return ""


@dataclass(frozen=True, slots=True)
class WrittenMinutes:
    """All that goes onto the page: `facts` are short remarks such as date, length, people.

    `sections` are titles with their layout (by `chapter`, by `voice` or ""), `chapters` the titles of those;
    `link` is the address of the record, behind which a time may be put.
    """

    title: str
    facts: tuple[str, ...]
    coverage: float
    lines: tuple[WrittenLine, ...]
    sections: tuple[tuple[str, Layout], ...] = ()
    chapters: tuple[str, ...] = ()
    link: str = ""


def write_markdown(minutes: WrittenMinutes) -> Iterator[str]:
    """A Markdown document: the template's sections, times in brackets."""
    yield f"# {_plain(minutes.title)}\n\n"
    for fact in minutes.facts:
        yield f"{_plain(fact)}  \n"
    yield f"\nThese minutes draw on {minutes.coverage:.0%} of the talk. Times are from the start of the recording.\n"
    for title, parts in laid_out(minutes):
        yield f"\n## {_plain(title)} ({sum(len(lines) for _, lines in parts)})\n\n"
        for part, lines in parts:
            if part:
                yield f"\n### {_plain(part)}\n\n"
            yield from map(_row, lines)


def laid_out(minutes: WrittenMinutes) -> Iterator[tuple[str, list[tuple[str, list[WrittenLine]]]]]:
    """The sections that hold lines: the title of each, and its parts with their titles."""
    for number, (title, layout) in enumerate(minutes.sections):
        lines = [line for line in minutes.lines if line.place == number]
        if lines:
            yield title, list(_parts(lines, layout, minutes.chapters))


def _parts(
    lines: list[WrittenLine], layout: Layout, chapters: tuple[str, ...]
) -> Iterator[tuple[str, list[WrittenLine]]]:
    """The lines of a section by chapter or by voice, each part with its title; one part without a title otherwise."""
    parts: dict[str, list[WrittenLine]] = {}
    if layout == "chapter":
        lines = sorted((replace(line, topic="") for line in lines), key=lambda line: line.chapter)
    for line in lines:
        chapter = chapters[line.chapter] if line.chapter < len(chapters) else ""
        title = {"chapter": chapter, "voice": line.speaker}.get(layout, "")
        parts.setdefault(title, []).append(line)
    yield from parts.items()


def _row(line: WrittenLine) -> str:
    box = ("[x] " if line.progress == Progress.DONE else "[ ] ") if line.kind == LineKind.ACTION else ""
    parts = [f"- {box}{_plain(line.text)}"]
    if line.kind == LineKind.ACTION:
        parts.append(" — " + _plain(line.who))
        due = f"; by {line.due}" + (f" (“{_plain(line.due_said)}”)" if line.due_said else "")
        parts.append(due if line.due else "; no date named")
    if line.remark:
        parts.append(
            f" *({_plain(line.remark)})*" if line.state == LineState.SUPERSEDED else f" — {_plain(line.remark)}"
        )
    return "".join(parts) + f" [{_plain(line.stands)}]\n"


def _plain(text: str) -> str:
    """Text with Markdown's own characters escaped and in one line."""
    return "".join(f"\\{c}" if c in "\\`*_[]<>#|" else c for c in " ".join(text.split()))
