"""Minutes as Markdown."""

from collections.abc import Iterator
from dataclasses import dataclass

from nuntius.core.minutes.line import KINDS, SECTIONS


@dataclass(frozen=True, slots=True)
class WrittenLine:
    """A line as it stands for the reader; `passages` are clock times such as `12:04`."""

    kind: str
    text: str
    owner: tuple[str, ...]
    due: str
    due_said: str
    state: str
    answer: str
    checked: bool
    passages: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class WrittenMinutes:
    """All that goes onto the page: `facts` are short remarks such as date, length, people."""

    title: str
    facts: tuple[str, ...]
    coverage: float
    lines: tuple[WrittenLine, ...]


def write_markdown(minutes: WrittenMinutes) -> Iterator[str]:
    """A Markdown document: one section a kind of line, times in brackets."""
    yield f"# {_plain(minutes.title)}\n\n"
    for fact in minutes.facts:
        yield f"{_plain(fact)}  \n"
    yield f"\nThese minutes draw on {minutes.coverage:.0%} of the talk. Times are from the start of the recording.\n"
    for kind in KINDS:
        chosen = [line for line in minutes.lines if line.kind == kind]
        if chosen:
            yield f"\n## {SECTIONS[kind]} ({len(chosen)})\n\n"
            for line in chosen:
                yield _row(line)


def _row(line: WrittenLine) -> str:
    box = ("[x] " if line.checked else "[ ] ") if line.kind == "action" else ""
    parts = [f"- {box}{_plain(line.text)}"]
    if line.kind == "action":
        parts.append(" — " + (", ".join(map(_plain, line.owner)) or "nobody took this on"))
        due = f"; by {line.due}" + (f" (“{_plain(line.due_said)}”)" if line.due_said else "")
        parts.append(due if line.due else "; no date named")
    if line.kind == "question":
        parts.append(f" — {_plain(line.answer)}" if line.answer else " — the record holds no answer")
    if line.state == "superseded":
        parts.append(" *(superseded)*")
    return "".join(parts) + f" [{', '.join(line.passages)}]\n"


def _plain(text: str) -> str:
    """Text with Markdown's own signs escaped and in one line."""
    return "".join(f"\\{c}" if c in "\\`*_[]<>#|" else c for c in " ".join(text.split()))
