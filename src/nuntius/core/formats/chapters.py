"""Chapters for players: WebVTT chapters and the JSON of Podcasting 2.0.

Sources: WebVTT, W3C Candidate Recommendation, "Chapter cues"; Podcast Namespace, "jsonChapters" 1.2.0.
"""

import json
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from nuntius.core.formats.webvtt import escaped
from nuntius.core.times import clock


@dataclass(frozen=True, slots=True)
class Stretch:
    """A titled stretch of a recording in seconds."""

    title: str
    start: float
    end: float


def without_gaps(chapters: Sequence[Stretch]) -> list[Stretch]:
    """Chapters that each end where the next begins, as players expect of them."""
    ends = [*(chapter.start for chapter in chapters[1:]), *(chapter.end for chapter in chapters[-1:])]
    return [Stretch(c.title, c.start, max(end, c.start + 0.001)) for c, end in zip(chapters, ends, strict=True)]


def write_chapters_vtt(chapters: Sequence[Stretch]) -> Iterator[str]:
    """Lines of a WebVTT file whose cues are the chapters."""
    yield "WEBVTT\n"
    for number, chapter in enumerate(without_gaps(chapters), 1):
        yield f"\n{number}\n{clock(chapter.start)} --> {clock(chapter.end)}\n{escaped(chapter.title, name=True)}\n"


def write_chapters_json(title: str, chapters: Sequence[Stretch]) -> str:
    """`application/json+chapters`."""
    made = [{"startTime": round(c.start, 3), "title": c.title} for c in without_gaps(chapters)]
    return json.dumps({"version": "1.2.0", "title": title, "chapters": made}, ensure_ascii=False, indent=1) + "\n"
