"""Clock forms of times in seconds, as the formats and the minutes write them, and time zones."""

import math
from zoneinfo import ZoneInfo


def zone(name: str) -> ZoneInfo:
    """A time zone by name; UTC for one that is not known here."""
    try:
        return ZoneInfo(name)
    except (KeyError, ValueError, OSError):
        return ZoneInfo("UTC")


def clock(seconds: float, separator: str = ".") -> str:
    """`h:mm:ss.ttt` with two-digit hours, the timestamp of WebVTT (and of SRT with a comma)."""
    total = max(0, round(seconds * 1000))
    hours, rest = divmod(total, 3_600_000)
    minutes, rest = divmod(rest, 60_000)
    whole, thousandths = divmod(rest, 1000)
    return f"{hours:02d}:{minutes:02d}:{whole:02d}{separator}{thousandths:03d}"


def short_clock(seconds: float) -> str:
    """`m:ss` below an hour, else `h:mm:ss`; cut, never rounded up past what was recorded."""
    total = max(0, math.floor(seconds))
    hours, rest = divmod(total, 3600)
    minutes, whole = divmod(rest, 60)
    return f"{hours}:{minutes:02d}:{whole:02d}" if hours else f"{minutes}:{whole:02d}"


def read_clock(text: str) -> float:
    """Seconds of `[h:]mm:ss[.,]ttt` or `m:ss`.

    Raises ValueError for anything else, minutes or seconds of 60 and more among them
    (WebVTT recommendation, section 4.1, "WebVTT timestamp").
    """
    parts = text.strip().replace(",", ".").split(":")
    if not 2 <= len(parts) <= 3 or not all(part.replace(".", "", 1).isdigit() for part in parts):
        raise ValueError(f"not a time: {text!r}")
    if any("." in part for part in parts[:-1]):
        raise ValueError(f"not a time: {text!r}")
    *hours, minutes, seconds = (float(part) for part in parts)
    if minutes >= 60 or seconds >= 60:
        raise ValueError(f"minutes and seconds end at 59: {text!r}")
    return (hours[0] if hours else 0.0) * 3600 + minutes * 60 + seconds
