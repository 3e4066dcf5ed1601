"""SubRip (SRT): cues with a number, times with a comma, and `Name: words` for the voice."""

import re
from collections.abc import Iterator

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.text import named
from nuntius.core.formats.webvtt import cues
from nuntius.core.times import clock, read_clock
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

_TIMING = re.compile(r"^\s*(\d+:\d{1,2}:\d{1,2}[,.]\d{1,3})\s*-->\s*(\d+:\d{1,2}:\d{1,2}[,.]\d{1,3})")
_TAG = re.compile(r"<[^<>]*>|\{\\[^{}]*\}")


def read_srt(text: str) -> Transcript:
    """A transcript of the cues; broken ones are passed over. Raises TranscriptUnreadable without any."""
    lines = text.removeprefix("\ufeff").replace("\r\n", "\n").replace("\r", "\n").split("\n")
    timings = [i for i, line in enumerate(lines) if _TIMING.match(line)]
    if not timings:
        raise TranscriptUnreadable("no line holds the times of a cue (00:00:01,000 --> 00:00:02,000)")
    turns: list[Turn] = []
    speaker = "Speaker 1"
    for at, following in zip(timings, [*timings[1:], len(lines) + 1], strict=True):
        match = _TIMING.match(lines[at])
        number = lines[at - 1].strip() if at and lines[at - 1].strip().isdigit() else ""
        body = [line for line in lines[at + 1 : following - 1] if line.strip()]
        try:
            start, end = (read_clock(time) for time in match.groups()) if match else (0.0, 0.0)
        except ValueError:
            continue
        name, words = named(_TAG.sub("", " ".join(body)))
        speaker = name or speaker
        if end > start:
            turns.append(Turn(speaker, spread(words, start, end), number))
    return in_order(turns)


def write_srt(transcript: Transcript) -> Iterator[str]:
    """Cues of an SRT file, the speaker before the words."""
    number = 0
    for turn in transcript.turns:
        for start, end, words in cues(turn):
            number += 1
            yield f"{number}\n{clock(start, ',')} --> {clock(max(end, start + 0.001), ',')}\n{turn.speaker}: {words}\n\n"
