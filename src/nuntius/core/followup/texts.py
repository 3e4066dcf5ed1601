"""Texts that follow a meeting, made from the lines of its minutes: every piece names the lines it rests on."""

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from datetime import date

from nuntius.core.language.en import manners
from nuntius.core.minutes.line import LineKind, LineState

AIM = re.compile(
    r"\b(?:the (?:aim|goal|idea|point|plan|purpose)|so that|in order to|we want to|has to be ready|wants? to)\b", re.I
)
MOST_FACTS = 12


@dataclass(frozen=True, slots=True)
class FollowupLine:
    """A line of the minutes as a person left it; `id` is how the store knows it."""

    id: int
    kind: LineKind
    text: str
    owner: tuple[str, ...] = ()
    due: date | None = None
    state: LineState = LineState.OPEN
    answer: str | None = None


@dataclass(frozen=True, slots=True)
class Occasion:
    """What a text says of the meeting itself; `day` in words, `others` without the sender."""

    title: str
    day: str
    others: tuple[str, ...]
    sender: str


@dataclass(frozen=True, slots=True)
class Piece:
    """A paragraph, heading or item of a text, and the lines that it rests on."""

    text: str
    lines: tuple[int, ...] = ()


def message(
    occasion: Occasion, lines: Iterable[FollowupLine], manner: str, to_client: bool = False
) -> tuple[Piece, ...]:
    """A message to those who were there, or to a client: decided, promised, open."""
    words, standing = manners.MANNERS[manner], _standing(lines)
    first = [name.split()[0] for name in occasion.others]
    names = " and ".join([", ".join(first[:-1]), first[-1]] if len(first) > 1 else first)
    fields = {"title": occasion.title, "day": occasion.day, "sender": occasion.sender}
    parts = [
        *_part(words.decided, [_item(line.text, line) for line in standing if line.kind == LineKind.DECISION]),
        *_part(words.tasks, [_item(_task(line), line) for line in standing if line.kind == LineKind.ACTION]),
        *_part(
            words.open,
            [
                _item(line.text, line)
                for line in standing
                if line.kind == LineKind.QUESTION and line.state == LineState.OPEN
            ],
        ),
    ]
    opening = words.client_opening if to_client else words.opening
    return (
        Piece(words.greeting.format(names=names if 0 < len(first) <= 4 else manners.EVERYONE)),
        Piece(opening.format(**fields)),
        *(parts or [Piece(words.nothing)]),
        Piece(words.closing),
        Piece(words.signature.format(**fields)),
    )


def checklist(occasion: Occasion, lines: Iterable[FollowupLine]) -> tuple[Piece, ...]:
    """The actions by owner, those that nobody took at the end."""
    tasks = [line for line in _standing(lines) if line.kind == LineKind.ACTION]
    owners = dict.fromkeys(", ".join(line.owner) for line in sorted(tasks, key=lambda line: not line.owner))
    made = [Piece(f"{occasion.title}, {occasion.day}")]
    for owner in owners:
        items = [Piece(f"{_box(line)} {_dated(line)}", (line.id,)) for line in tasks if ", ".join(line.owner) == owner]
        made += _part(f"{owner or manners.NOBODY.capitalize()}:", items)
    return (*made, *([] if tasks else [Piece(manners.PART_MISSING)]))


def brief(occasion: Occasion, lines: Iterable[FollowupLine]) -> tuple[Piece, ...]:
    """A project brief: aim, facts, constraints, what was decided, open questions, next steps."""
    standing = _standing(lines)
    aims = [
        line
        for line in standing
        if line.kind in (LineKind.NOTE, LineKind.NEED, LineKind.KEY_POINT, LineKind.DECISION) and AIM.search(line.text)
    ][:3]
    facts = [line for line in standing if line.kind == LineKind.FIGURE] or [
        line for line in standing if line.kind == LineKind.KEY_POINT
    ]
    chosen: dict[str, list[Piece]] = {
        "aim": [_item(line.text, line) for line in aims] or [Piece(manners.AIM_MISSING)],
        "facts": [_item(line.text, line) for line in facts if line not in aims][:MOST_FACTS],
        "constraints": [
            _item(line.text, line)
            for line in standing
            if line.kind in (LineKind.RISK, LineKind.NEED) and line not in aims
        ],
        "decided": [_item(line.text, line) for line in standing if line.kind == LineKind.DECISION and line not in aims],
        "open": [
            _item(line.text, line)
            for line in standing
            if line.kind == LineKind.QUESTION and line.state == LineState.OPEN
        ],
        "next": [_item(_task(line), line) for line in standing if line.kind == LineKind.ACTION],
    }
    made = [Piece(f"{occasion.title}, {occasion.day}")]
    for part, heading in manners.BRIEF_PARTS.items():
        made += _part(heading, chosen[part] or [Piece(manners.PART_MISSING)])
    return tuple(made)


def handout(occasion: Occasion, lines: Iterable[FollowupLine]) -> tuple[Piece, ...]:
    """The questions with their answers, then those that stayed open."""
    asked = [line for line in _standing(lines) if line.kind == LineKind.QUESTION]
    answered = [Piece(f"{line.text}\n{line.answer}", (line.id,)) for line in asked if line.answer]
    left = [_item(line.text, line) for line in asked if not line.answer]
    return (
        Piece(f"{occasion.title}, {occasion.day}"),
        *_part(manners.ANSWERED, answered or [Piece(manners.PART_MISSING)]),
        *_part(manners.UNANSWERED, left),
    )


FORMS: dict[str, Callable[[Occasion, Iterable[FollowupLine]], tuple[Piece, ...]]] = {
    "checklist": checklist,
    "brief": brief,
    "handout": handout,
}


def _standing(lines: Iterable[FollowupLine]) -> list[FollowupLine]:
    """What still holds."""
    return [line for line in lines if line.state != LineState.SUPERSEDED]


def _part(heading: str, pieces: list[Piece]) -> list[Piece]:
    return [Piece(heading), *pieces] if pieces else []


def _item(text: str, line: FollowupLine) -> Piece:
    return Piece(f"- {text}", (line.id,))


def _box(line: FollowupLine) -> str:
    return "[x]" if line.state == LineState.SETTLED else "[ ]"


def _task(line: FollowupLine) -> str:
    done = f" ({manners.DONE})" if line.state == LineState.SETTLED else ""
    return f"{', '.join(line.owner) or manners.NOBODY}: {_dated(line)}{done}"


def _dated(line: FollowupLine) -> str:
    if line.due is None:
        return line.text
    day = f"{line.due:%A} {line.due.day} {line.due:%B}"
    return f"{line.text.rstrip('.')}, {manners.BY.format(day=day)}."
