"""What people wrote beside a meeting: lines with a time and a name, as chat windows save them."""

import re
from dataclasses import dataclass
from datetime import time

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.times import read_clock

EARLY = 900.0  # seconds before and behind the recording in which people may write
MOST = 2000  # lines of one chat
LONGEST = 500  # characters kept of one line
_TIME = r"(?P<time>(?:\d{1,2}:)?\d{1,2}:\d{2}(?:\s*[AaPp]\.?[Mm]\.?)?)"
_LINE = re.compile(
    rf"^\s*[\[(]?(?:\d{{4}}-\d\d-\d\d[ T])?{_TIME}[\])]?[\s,;–-]*(?:[Ff]rom\s+)?(?P<name>[^\W\d_][^:\t]{{0,60}}?)\s*(?::|\t)\s*(?P<text>\S.*)$"
)


@dataclass(frozen=True, slots=True)
class Message:
    """One line: seconds from the beginning of the meeting, whose it is, and what it says."""

    at: float
    name: str
    text: str


def read_chat(text: str, begun: time, duration: float) -> tuple[Message, ...]:
    """Messages of `09:41 Tobias: the link is …` lines, in their order. Lines without a time go on with the one before.

    Times are of the clock where all of them lie within the meeting's hours, which begin at `begun`; else
    they are counted from the beginning of the recording, which lasts `duration` seconds. Raises TranscriptUnreadable.
    """
    found: list[tuple[str, str, str]] = []
    for line in text.removeprefix("\ufeff").splitlines():
        if match := _LINE.match(line):
            found.append((match.group("time"), match.group("name").strip(), match.group("text").strip()))
        elif line.strip() and found:
            found[-1] = (*found[-1][:2], f"{found[-1][2]} {line.strip()}")
    if not found:
        raise TranscriptUnreadable("no line of the chat has the form “9:41 Name: words”")
    begin = begun.hour * 3600.0 + begun.minute * 60 + begun.second
    after = [_on_the_wall(at) - begin for at, _, _ in found]
    if not all(-EARLY <= seconds <= duration + EARLY for seconds in after):
        after = [_from_the_start(at) for at, _, _ in found]
    rows = zip(after, found, strict=True)
    return tuple(Message(min(max(seconds, 0.0), duration), name, said[:LONGEST]) for seconds, (_, name, said) in rows)[
        :MOST
    ]


def _on_the_wall(text: str) -> float:
    """Seconds since midnight of `9:41`, `09:41:07` or `9:41 pm`."""
    clock, half = re.match(r"([\d:]+)\s*([AaPp])?", text).groups()  # type: ignore[union-attr]
    hour, minute, *second = (int(part) for part in clock.split(":"))
    if half:
        hour = hour % 12 + 12 * (half.lower() == "p")
    return hour * 3600.0 + minute * 60 + (second[0] if second else 0)


def _from_the_start(text: str) -> float:
    try:
        return read_clock(text)
    except ValueError:
        raise TranscriptUnreadable(
            f"the time “{text}” in the chat is neither of the meeting’s hours nor from its start"
        ) from None
