"""WebVTT: read and written after the W3C recommendation, voices as `<v Name>` spans."""

import html
import re
from collections.abc import Iterator

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.times import clock, read_clock
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

_TIMING = re.compile(r"^\s*((?:\d+:)?\d{2}:\d{2}\.\d{3})\s+-->\s+((?:\d+:)?\d{2}:\d{2}\.\d{3})(?:\s.*)?$")
# no pattern passes over a second "<": looking for an end that never comes would take time with the square of the length
_VOICE = re.compile(r"<v(?:\.[^ \t<>]*)?[ \t]+([^<>]+)>")
_TAG = re.compile(r"<[^<>]*>")
LONGEST_CUE = 12.0  # seconds; longer turns are written as several cues


def read_webvtt(text: str) -> Transcript:
    """A transcript of the cues. Raises TranscriptUnreadable when the text is no WebVTT.

    Cues with a broken timing line are passed over, as the recommendation's parser does; cues may overlap
    or stand out of order. A cue without a voice continues the voice before it.
    """
    lines = text.removeprefix("\ufeff").replace("\r\n", "\n").replace("\r", "\n").split("\n")
    if not re.match(r"^WEBVTT(?:[ \t].*)?$", lines[0]):
        raise TranscriptUnreadable("its first line is not WEBVTT")
    turns: list[Turn] = []
    speaker = "Speaker 1"
    for block in _blocks(lines[1:]):
        at = next((i for i, line in enumerate(block[:2]) if "-->" in line), None)
        if at is None or not (timing := _TIMING.match(block[at])):
            continue
        try:
            start, end = read_clock(timing.group(1)), read_clock(timing.group(2))
        except ValueError:
            continue
        for name, words in _voices("\n".join(block[at + 1 :])):
            speaker = name or speaker
            if end > start:
                turns.append(Turn(speaker, spread(words, start, end), block[0].strip() if at else ""))
    return in_order(turns)


def _blocks(lines: list[str]) -> Iterator[list[str]]:
    block: list[str] = []
    for line in [*lines, ""]:
        if line.strip():
            block.append(line)
        elif block:
            if not re.match(r"^(?:NOTE|STYLE|REGION)\b", block[0]):
                yield block
            block = []


def _voices(payload: str) -> Iterator[tuple[str, str]]:
    """Voice and words of each voice span; the words before the first span have no voice."""
    parts = _VOICE.split(payload)
    if plain := _plain(parts[0]):
        yield "", plain
    for name, words in zip(parts[1::2], parts[2::2], strict=True):
        yield " ".join(html.unescape(name).split()), _plain(words)


def _plain(words: str) -> str:
    return " ".join(html.unescape(_TAG.sub("", words)).split())


def write_webvtt(transcript: Transcript) -> Iterator[str]:
    """Lines of a WebVTT file, with their line ends; one cue a turn, long turns in several."""
    yield "WEBVTT\n"
    number = 0
    for turn in transcript.turns:
        for start, end, words in cues(turn):
            number += 1
            yield f"\n{number}\n{clock(start)} --> {clock(max(end, start + 0.001))}\n"
            yield f"<v {escaped(turn.speaker, name=True)}>{escaped(words)}\n"


def cues(turn: Turn) -> Iterator[tuple[float, float, str]]:
    """Start, end (seconds) and words of the cues of a turn, cut at sentence ends where it is long."""
    first = 0
    for i, word in enumerate(turn.words):
        length = word.end - turn.words[first].start
        ends = word.ends_sentence and length > LONGEST_CUE / 3
        if i == len(turn.words) - 1 or length > LONGEST_CUE or (ends and length > LONGEST_CUE / 2):
            part = turn.words[first : i + 1]
            yield part[0].start, max(w.end for w in part), " ".join(w.text for w in part)
            first = i + 1


def escaped(text: str, name: bool = False) -> str:
    """Text as a cue may hold it; in one line where it is a name."""
    made = text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    return " ".join(made.split()) if name else made
