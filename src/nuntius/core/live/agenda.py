"""The agenda while the meeting runs: what is on, how long it may still take, what the talk has come to."""

import re
from collections.abc import Sequence
from dataclasses import dataclass

from nuntius.core.live.line import VoicedLine

LOOKED_AT = 60.0  # seconds of talk in which an item is looked for
ENOUGH = 2  # of an item's words, or all of them, that must have been said
DULL = frozenset("the and for our new with about from this that meeting item items report discussion update".split())


@dataclass(frozen=True, slots=True)
class AgendaItem:
    """One item: `planned` seconds (None where no time was set), and when it was begun and ended, in seconds."""

    title: str
    planned: float | None = None
    begun: float | None = None
    ended: float | None = None


def time_left(item: AgendaItem, now: float) -> float | None:
    """Seconds left of the item that is on, below zero when it runs over; None without a plan or before it is on."""
    if item.planned is None or item.begun is None:
        return None
    return item.planned - ((item.ended if item.ended is not None else now) - item.begun)


def suggested(items: Sequence[AgendaItem], on: int | None, lines: Sequence[VoicedLine], now: float) -> int | None:
    """Number of the item that the talk seems to have moved to; None when that is the one on, or unclear.

    An item is suggested when its words were said in the last minute, more of them than of any other item. A line
    that names several items reads the agenda out, and is left aside.
    """
    recent = [_words(each.text) for each in lines if each.line.end > now - LOOKED_AT]
    clear = [words for words in recent if sum(_said(item, words) > 0 for item in items) < 2]
    said = set().union(*clear)
    counts = [_said(item, said) for item in items]
    best = max(counts, default=0)
    if best <= 0 or counts.count(best) > 1:
        return None
    number = counts.index(best)
    return None if number == on or items[number].ended is not None else number


def _words(text: str) -> set[str]:
    return set(re.findall(r"[a-z0-9]{3,}", text.lower()))


def _said(item: AgendaItem, said: set[str]) -> int:
    words = _words(item.title) - DULL
    found = sum(any(other.startswith(word[: max(4, len(word) - 2)]) for other in said) for word in words)
    return found if words and found >= min(ENOUGH, len(words)) else 0
