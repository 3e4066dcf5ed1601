"""TTML (W3C Timed Text Markup Language 2): read and written, voices as agents.

Written is the plain core that every reader understands: `p` with begin and end, each with its `ttm:agent`.
"""

import re
from collections.abc import Iterator
from math import isfinite
from xml.etree.ElementTree import Element, ParseError, SubElement, indent, tostring

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.safe import plain
from nuntius.core.formats.webvtt import cues
from nuntius.core.times import clock
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

TT = "http://www.w3.org/ns/ttml"
TTM = f"{TT}#metadata"
TTP = f"{TT}#parameter"
_CLOCK = re.compile(r"^(\d{2,}):(\d{2}):(\d{2})(?:(\.\d+)|:(\d{2,}))?$")
_OFFSET = re.compile(r"^(\d+(?:\.\d+)?)(h|m|s|ms|f|t)$")
UNITS = {"h": 3600.0, "m": 60.0, "s": 1.0, "ms": 0.001}
FRAMES = 30.0  # a second where the document names no rate (TTML2, 7.2.5)


def write_ttml(transcript: Transcript) -> Iterator[str]:
    """A TTML document; one paragraph a cue, long turns in several."""
    spaces = {"xmlns": TT, "xmlns:ttm": TTM, "xmlns:ttp": TTP}
    root = Element("tt", spaces | {"xml:lang": "en", "ttp:timeBase": "media"})
    metadata = SubElement(SubElement(root, "head"), "metadata")
    agents = {speaker: f"voice{number}" for number, speaker in enumerate(transcript.speakers, 1)}
    for speaker, key in agents.items():
        agent = SubElement(metadata, "ttm:agent", {"xml:id": key, "type": "person"})
        SubElement(agent, "ttm:name", type="full").text = plain(speaker)
    division = SubElement(SubElement(root, "body"), "div")
    for turn in transcript.turns:
        for start, end, words in cues(turn):
            times = {"begin": clock(start), "end": clock(max(end, start + 0.001))}
            SubElement(division, "p", times | {"ttm:agent": agents[turn.speaker]}).text = plain(words)
    indent(root)
    yield '<?xml version="1.0" encoding="UTF-8"?>\n'
    yield tostring(root, encoding="unicode") + "\n"


def read_ttml(text: str) -> Transcript:
    """A transcript of the paragraphs. Raises TranscriptUnreadable when the text is no TTML.

    A paragraph without an agent goes on with the voice before it; one without readable times is passed over.
    """
    try:
        root = fromstring(text.removeprefix("\ufeff").encode())
    except (ParseError, DefusedXmlException, ValueError) as cause:
        raise TranscriptUnreadable("its markup is broken") from cause
    if root.tag.rpartition("}")[2] != "tt":
        raise TranscriptUnreadable("its outermost element is not tt")
    names = {_attribute(agent, "id"): " ".join("".join(agent.itertext()).split()) for agent in _all(root, "agent")}
    rate, ticks = _rate(root, "frameRate", FRAMES), _rate(root, "tickRate", 1.0)
    turns, speaker = [], "Speaker 1"
    for number, paragraph in enumerate(_all(root, "p"), 1):
        key = _attribute(paragraph, "agent").split()
        speaker = names.get(key[0], key[0]) or speaker if key else speaker
        start = seconds(_attribute(paragraph, "begin"), rate, ticks)
        end, length = (
            seconds(_attribute(paragraph, "end"), rate, ticks),
            seconds(_attribute(paragraph, "dur"), rate, ticks),
        )
        if end is None and start is not None and length is not None:
            end = start + length
        words = " ".join(_text(paragraph).split())
        if start is not None and end is not None and end > start and words:
            turns.append(Turn(speaker, spread(words, start, end), _attribute(paragraph, "id") or str(number)))
    return in_order(turns)


def seconds(text: str, rate: float = FRAMES, ticks: float = 1.0) -> float | None:
    """Seconds of a time expression (TTML2, 12.3.1); None for one that is none. `rate` frames and `ticks` a second."""
    if match := _CLOCK.match(text.strip()):
        hours, minutes, whole, fraction, frames = match.groups()
        return int(hours) * 3600 + int(minutes) * 60 + int(whole) + float(fraction or 0) + int(frames or 0) / rate
    if match := _OFFSET.match(text.strip()):
        number, unit = float(match.group(1)), match.group(2)
        return number / rate if unit == "f" else number / ticks if unit == "t" else number * UNITS[unit]
    return None


def _rate(root: Element, name: str, default: float) -> float:
    """A rate that the document names; the default for one that is none (0, negative, no number, not finite)."""
    try:
        rate = float(_attribute(root, name) or default)
    except ValueError:
        return default
    return rate if isfinite(rate) and rate > 0 else default


def _all(root: Element, name: str) -> Iterator[Element]:
    return (
        element for element in root.iter() if isinstance(element.tag, str) and element.tag.rpartition("}")[2] == name
    )


def _attribute(element: Element, name: str) -> str:
    return next((value for key, value in element.attrib.items() if key.rpartition("}")[2] == name), "")


def _text(element: Element) -> str:
    """The words inside, with a space for each line break; paragraphs inside have words of their own."""
    inside, left = [], [(element, False)]
    while left:
        at, is_tail = left.pop()
        if is_tail:
            inside.append(at.tail or "")
            continue
        name = at.tag.rpartition("}")[2] if isinstance(at.tag, str) else ""
        if at is not element:
            left.append((at, True))
        if name == "br":
            inside.append(" ")
        elif at is element or (name and name != "p"):
            inside.append(at.text or "")
            left += [(child, False) for child in reversed(at)]
    return "".join(inside)
