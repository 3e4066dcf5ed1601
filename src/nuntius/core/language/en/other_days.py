"""Days given relative to another day that was named: `the night before`, `a week ahead`, `the Friday after`."""

import re
from datetime import date, timedelta

from nuntius.core.language.en.dates import COUNT, DAYS, SaidDate, coming, counted

UNIT_DAYS = {"day": 1, "night": 1, "evening": 1, "week": 7, "fortnight": 14}
BY_ANOTHER = re.compile(
    rf"\b(?<!in )(?<!-)(?:the (?P<one>day|night|evening|week)|{COUNT} (?P<unit>day|week|fortnight)s?|"
    rf"the (?P<weekday>{'|'.join(DAYS)})(?: (?:morning|afternoon|evening|night))?) "
    r"(?P<side>before|after|ahead|earlier|later|beforehand|afterwards)"
    r"(?=\W*$|[,.;?]| (?:the|that|it|he|she|they|we|if|and) | (?:that|then)\W*$)(?! the one before\b| that one\b)",
    re.I,
)
SPAN = re.compile(
    rf"^\W*(?:(?:oh|well|say|about|maybe|in|within|just|give me) )*{COUNT} (?P<unit>day|week|fortnight)s?\W*$",
    re.I,
)
CALLED_SO = re.compile(
    r"(?: before| after)?,? (?:(?:so|and|which|that) ?)*(?:that's|that is|is|it's)? ?(?:(?:on|by) )?", re.I
)  # between it and that day
_AHEAD = ("before", "ahead", "earlier", "beforehand")


def by_another(match: re.Match[str], other: date) -> SaidDate:
    """The day that BY_ANOTHER finds, relative to a day that was named."""
    ahead = match.group("side").lower() in _AHEAD
    if match.group("weekday"):
        number = DAYS.index(match.group("weekday").lower())
        day = coming(other - timedelta(8), number) if ahead else coming(other, number)
    else:
        unit = (match.group("one") or match.group("unit")).lower()
        days = UNIT_DAYS[unit] * (1 if match.group("one") else counted(match))
        day = other + timedelta(-days if ahead else days)
    return SaidDate(day, match.group(), match.start(), match.end())


def within(text: str, today: date) -> SaidDate | None:
    """The day of an answer to `how soon?`: `Couple of days.`"""
    match = SPAN.match(text)
    if match is None:
        return None
    days = counted(match) * UNIT_DAYS[match.group("unit").lower()]
    return SaidDate(today + timedelta(days), match.group().strip(" .,"), match.start(), match.end())
