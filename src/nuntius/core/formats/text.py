"""Plain text transcripts: `Name: words`, a line or a paragraph each, with or without times."""

import re
from collections.abc import Iterator

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, laid_out
from nuntius.core.minutes.line import LineKind
from nuntius.core.times import read_clock, short_clock
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

PACE = 2.5  # words a second (150 a minute) where no times are given; common practice, no source
_TIME = r"(?:\d{1,2}:)?\d{1,2}:\d{2}(?:[.,]\d{1,3})?"
_LINE = re.compile(
    rf"^\s*[\[(]?(?P<before>{_TIME})?[\])]?\s*[-–]?\s*(?P<name>[^\W\d_][^:\[\]()\n]{{0,48}}?)\s*[\[(]?(?P<after>{_TIME})?[\])]?\s*:\s+(?P<words>\S.*)$"
)
_STAMP = re.compile(rf"^\s*[\[(]?(?P<time>{_TIME})[\])]?\s*$")
_NAME = re.compile(r"^\s*([^\W\d_][\w .'’()-]{0,48}?)\s*:\s+(\S.*)$", re.S)
MOST_NAME_WORDS = 5


def named(text: str) -> tuple[str, str]:
    """Name and words of `Name: words`; no name where there is none."""
    match = _NAME.match(" ".join(text.split()))  # runs of spaces would be matched in many ways
    if match and len(match.group(1).split()) <= MOST_NAME_WORDS:
        return match.group(1).strip(), match.group(2).strip()
    return "", text.strip()


def read_text(text: str) -> Transcript:
    """A transcript of `Name: words` lines. Lines without a name go on with the turn before.

    Without times the words follow each other at PACE. Raises TranscriptUnreadable when nobody is named.
    """
    rows: list[tuple[str, float | None, str]] = []
    stamp: float | None = None
    for line in _lines(text):
        if match := _STAMP.match(line):
            stamp = _seconds(match.group("time"))
        elif (match := _LINE.match(line)) and len(match.group("name").split()) <= MOST_NAME_WORDS:
            at = _seconds(match.group("before") or match.group("after") or "")
            rows.append((match.group("name").strip(), at if at is not None else stamp, match.group("words").strip()))
            stamp = None
        elif line.strip() and rows:
            rows[-1] = (*rows[-1][:2], f"{rows[-1][2]} {line.strip()}")
    if not rows:
        raise TranscriptUnreadable("no line has the form “Name: words”")
    return in_order(_timed(rows))


def _lines(text: str) -> list[str]:
    """The lines with single spaces: runs of them would be matched in many ways, each of which takes its time."""
    return [" ".join(line.split()) for line in text.removeprefix("\ufeff").splitlines()]


def has_times(text: str) -> bool:
    """Whether some line of a plain text transcript says when it was said."""
    lines = _lines(text)
    found = (_LINE.match(line) for line in lines)
    return any(_STAMP.match(line) for line in lines) or any(
        m and (m.group("before") or m.group("after")) for m in found
    )


def _timed(rows: list[tuple[str, float | None, str]]) -> list[Turn]:
    turns, clock = [], 0.0
    for number, (name, at, words) in enumerate(rows):
        start = at if at is not None else clock
        end = start + max(len(words.split()) / PACE, 0.2)
        following = rows[number + 1][1] if number + 1 < len(rows) else None
        if following is not None and following > start:
            end = min(end, following)
        turns.append(Turn(name, spread(words, start, end), str(number + 1)))
        clock = max(clock, end)
    return turns


def _seconds(text: str) -> float | None:
    try:
        return read_clock(text)
    except ValueError:
        return None


def write_text(transcript: Transcript) -> Iterator[str]:
    """Lines `[m:ss] Name: words`."""
    for turn in transcript.turns:
        yield f"[{short_clock(turn.start)}] {turn.speaker}: {turn.text}\n"


def write_minutes_text(minutes: WrittenMinutes) -> Iterator[str]:
    """Minutes as plain text for a letter: sections underlined, a line each with its times."""
    yield f"{minutes.title}\n{'=' * len(minutes.title)}\n\n"
    yield from (f"{fact}\n" for fact in minutes.facts)
    for title, parts in laid_out(minutes):
        yield f"\n{title}\n{'-' * len(title)}\n"
        for part, inside in parts:
            if part:
                yield f"\n{part}:\n"
            yield from map(_line_text, inside)
    yield f"\nThese minutes draw on {minutes.coverage:.0%} of the talk. Times are from the start of the recording.\n"


def _line_text(line: WrittenLine) -> str:
    parts = [f"* {line.text}"]
    if line.kind == LineKind.ACTION:
        parts.append(f" -- {line.who}, {'by ' if line.due else ''}{line.when}")
    if line.remark:
        parts.append(f" -- {line.remark}")
    return "".join(parts) + f" [{line.stands}]\n"
