"""Due dates in English talk, resolved against the day of the meeting.

Readings follow British and American office usage (common practice, no source): a bare weekday is the
next one after the meeting, `Friday week` a week later, `next Friday` the one in the following week,
`the end of the week` is Friday.
"""

import calendar
import re
from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta
from functools import lru_cache

from dateutil.easter import easter
from dateutil.relativedelta import relativedelta, weekday

from nuntius.core.language.en.numbers import ORDINAL_WORDS, TENS, UNITS, ordinal, value_of

DAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
WEEKS = {"first": 1, "second": 2, "third": 3, "fourth": 4, "last": -1}  # of a month, as weekdays are counted in it
FEASTS = {  # by the first word of their names: month and day
    "christmas": (12, 25), "boxing": (12, 26), "new": (1, 1), "all": (11, 1), "halloween": (10, 31), "hallowe'en": (10, 31),
}  # fmt: skip
MONTHS = tuple(name.lower() for name in calendar.month_name)[1:]
_DAY = rf"(?P<day>{'|'.join(DAYS)})(?!s\b)"  # `Wednesdays` is every week
_MONTH = rf"(?P<month>{'|'.join(MONTHS)}|{'|'.join(m[:3] for m in MONTHS)}|sept)"
_NTH = rf"(?P<nth>\d{{1,2}}(?:st|nd|rd|th)|{ORDINAL_WORDS})"
_ALONE = (
    rf"\d{{1,2}}(?:st|nd|rd|th)|(?:{'|'.join(TENS)})[\s-]\w+(?:st|nd|rd|th)|\w+teenth|twentieth|tenth|eleventh|twelfth"
)
COUNT = rf"(?P<count>a|an|another|one|{'|'.join([*UNITS, *TENS])}|\d{{1,2}}|(?:a )?couple of|(?:a )?few)"
_PART = r"(?:\s+(?:morning|afternoon|evening|night|lunchtime|noon|first thing))?"
_NUMBERED = (  # things that are counted as days are: `the first page`, `the third one`
    "one|page|time|thing|draft|half|quarter|row|chapter|place|person|two|three|four|few|week|year|month|item|point|step|"
    "round|version|line|class|course|aid|shift|slot|question|floor|quote|offer|bit|part|letter|lot|train|boat|bus|group|"
    r"(?:dry|fine|warm|clear|calm|quiet|free|good|sunny)\s+day"
)
KEPT = 20_000  # texts whose days are kept, some eight hours of talk: each is asked for them in many places
_PAST = re.compile(r"\b(last|yesterday|ago|previous|since)\s*$", re.I)


@dataclass(frozen=True, slots=True)
class SaidDate:
    """A day named in the talk: the words, where they stand in the text, and the day they mean."""

    day: date
    said: str
    start: int
    end: int


Reader = Callable[[re.Match[str], date], date | None]


@lru_cache(maxsize=KEPT)
def said_dates(text: str, today: date) -> tuple[SaidDate, ...]:
    """Days named in `text` in order, none of them before `today`; past expressions give nothing."""
    found: list[SaidDate] = []
    for pattern, read in _GRAMMAR:
        for match in pattern.finditer(text):
            taken = any(match.start() < other.end and other.start < match.end() for other in found)
            if taken or _PAST.search(text[: match.start()]):
                continue
            day = read(match, today)
            if day is not None and day >= today:
                found.append(SaidDate(day, match.group().strip(), match.start(), match.end()))
    return tuple(sorted(found, key=lambda item: item.start))


def coming(today: date, weekday: int) -> date:
    """The next such weekday after `today`."""
    return today + timedelta((weekday - today.weekday() - 1) % 7 + 1)


def _weekday(match: re.Match[str]) -> int:
    return DAYS.index((match.group("day") or match.group("day2")).lower())


def _plain_day(match: re.Match[str], today: date) -> date:
    return coming(today, _weekday(match))


def _next_day(match: re.Match[str], today: date) -> date:
    """`next Friday` lies in the week after this one."""
    monday = today - timedelta(today.weekday()) + timedelta(7)
    return monday + timedelta(_weekday(match))


def _of_month(match: re.Match[str], today: date) -> date | None:
    number = ordinal(match.group("nth")) if match.group("nth") else None
    if number is None or not 1 <= number <= 31:
        return None
    named = bool(match.groupdict().get("month"))
    return _on(today, _month(match) if named else today.month, number, wrap_month=not named)


def _month(match: re.Match[str]) -> int:
    name = match.group("month").lower()[:3]
    return next(i for i, m in enumerate(MONTHS, 1) if m.startswith(name))


def _on(today: date, month: int, number: int, wrap_month: bool) -> date | None:
    """The first such day from `today` on; with `wrap_month` the next month may serve."""
    year = today.year
    for _ in range(13):
        if number <= calendar.monthrange(year, month)[1] and date(year, month, number) >= today:
            return date(year, month, number)
        if wrap_month:
            year, month = (year, month + 1) if month < 12 else (year + 1, 1)
        else:
            year += 1
    return None


def _numbered(match: re.Match[str], today: date) -> date | None:
    number = int(match.group("number"))
    return _on(today, _month(match), number, wrap_month=False) if 1 <= number <= 31 else None


def _nth_weekday(match: re.Match[str], today: date) -> date | None:
    """`The first Thursday in June`: the next such day, as BYDAY=1TH of RFC 5545 gives it; `last` counts from the end."""
    first, which = date(today.year, _month(match), 1), WEEKS[match.group("which").lower()]
    counted = relativedelta(day=31 if which < 0 else 1, weekday=weekday(_weekday(match), which))
    return next((day for day in (first + counted, first + relativedelta(years=1) + counted) if day >= today), None)


def _week_of_month(match: re.Match[str], today: date) -> date | None:
    """`The second week of May`: its Friday, which is the second one of that month; `the beginning of May` is its first."""
    first, which = date(today.year, _month(match), 1), WEEKS[(match.group("which") or "first").lower()]
    friday = relativedelta(weekday=weekday(4, which))
    return next((day for day in (first + friday, first + relativedelta(years=1) + friday) if day >= today), None)


def counted(match: re.Match[str]) -> int:
    """The number that COUNT finds: `a couple of` is two, `a few` are three."""
    words = match.group("count").lower()
    if words in ("a", "an", "another"):
        return 1
    if "couple" in words or "few" in words:
        return 2 if "couple" in words else 3
    return int(words) if words.isdigit() else value_of(words)


def _later(match: re.Match[str], today: date) -> date:
    unit = match.group("unit").lower()
    if unit == "fortnight":
        return today + timedelta(14 * counted(match))
    if unit == "month":
        return _month_end(today, counted(match), min(today.day, 28))
    return today + timedelta(counted(match) * (7 if unit == "week" else 1))


def _month_end(today: date, ahead: int, day: int = 0) -> date:
    months = today.month - 1 + ahead
    year, month = today.year + months // 12, months % 12 + 1
    return date(year, month, day or calendar.monthrange(year, month)[1])


def _week(weekday: int, ahead: int) -> Reader:
    def read(_: re.Match[str], today: date) -> date:
        return today - timedelta(today.weekday()) + timedelta(7 * ahead + weekday)

    return read


def _after(days: int) -> Reader:
    return lambda _, today: today + timedelta(days)


def _month_named_end(match: re.Match[str], today: date) -> date | None:
    month = _month(match)
    year = today.year + (month < today.month)
    return date(year, month, calendar.monthrange(year, month)[1])


def _month_middle(match: re.Match[str], today: date) -> date | None:
    end = _month_named_end(match, today)
    return end.replace(day=15) if end else None


def _feast(name: str, today: date) -> date:
    """The next Easter Sunday (Western) or feast of a fixed day from `today` on."""
    for year in (today.year, today.year + 1):
        fixed = {name: date(year, *day) for name, day in FEASTS.items()}
        day = fixed.get(name.lower()) or easter(year)
        if day >= today:
            return day
    return day


def _rule(pattern: str, read: Reader) -> tuple[re.Pattern[str], Reader]:
    return re.compile(rf"\b(?:{pattern})\b", re.I), read


_GRAMMAR: tuple[tuple[re.Pattern[str], Reader], ...] = (
    _rule(rf"(?:the\s+)?(?P<which>{'|'.join(WEEKS)})\s+{_DAY}\s+(?:in|of)\s+{_MONTH}", _nth_weekday),
    _rule(rf"{_DAY},?\s+(?:the\s+)?{_NTH}(?!\s+thing)(?:\s+of\s+{_MONTH})?", _of_month),
    _rule(rf"(?:the\s+)?{_NTH}(?:\s+of)?\s+{_MONTH}", _of_month),
    _rule(rf"{_MONTH}\s+(?:the\s+)?{_NTH}", _of_month),
    _rule(rf"(?P<number>\d{{1,2}})\s+(?:of\s+)?{_MONTH}", _numbered),
    _rule(rf"{_MONTH}\s+(?P<number>\d{{1,2}})(?!\d|:)", _numbered),
    _rule(rf"(?:a\s+week\s+(?:on|from)\s+{_DAY}|{_DAY.replace('day>', 'day2>')}\s+week)", lambda m, t: _week_on(m, t)),
    _rule(r"end\s+of\s+(?:the\s+|this\s+)?(?:week|weak)|this\s+week|within\s+the\s+week|(?:before|by\s+the\s+time)\s+the\s+week(?:'s|\s+is)\s+(?:out|over)", _week(4, 0)),
    _rule(r"end\s+of\s+next\s+(?:week|weak)", _week(4, 1)),
    _rule(r"(?:middle\s+of\s+next\s+week|mid(?:dle)?[\s-]next[\s-]week)", _week(2, 1)),
    _rule(r"(?:start|beginning)\s+of\s+next\s+week", _week(0, 1)),
    _rule(r"end\s+of\s+next\s+month", lambda _, today: _month_end(today, 1)),
    _rule(r"end\s+of\s+(?:the\s+|this\s+)?month|(?:by\s+|at\s+)?(?:the\s+)?month(?:'s)?[\s-]end|before\s+the\s+month(?:'s|\s+is)\s+(?:out|over)|within\s+the\s+month", lambda _, today: _month_end(today, 0)),
    _rule(r"end\s+of\s+(?:the\s+|this\s+)?year", lambda _, today: date(today.year, 12, 31)),
    _rule(rf"(?:the\s+)?(?:end|last\s+(?:week|day))\s+of\s+{_MONTH}", _month_named_end),
    _rule(rf"(?:the\s+)?(?:(?P<which>first|second|third)\s+week\s+(?:of|in)|(?:beginning|start)\s+of)\s+{_MONTH}", _week_of_month),
    _rule(r"(?:the\s+)?week\s+after\s+next", _week(4, 2)),
    _rule(rf"(?:mid[\s-]+|the\s+middle\s+of\s+){_MONTH}", _month_middle),
    _rule(rf"(?:^|(?<=again )|(?<=\bit )|(?<=them )|(?<=that )|(?<=\bhim )|(?<=\bher ))in\s+{_MONTH}(?!\s+\d)", _month_named_end),
    _rule(r"end\s+of\s+(?:the\s+|this\s+)?(?:day|today|play|business)(?!\s+(?:on\s+)?(?:tomorrow|\w+day)\b)|close\s+of\s+(?:play|business)(?!\s+(?:on\s+)?(?:tomorrow|\w+day)\b)", _after(0)),
    _rule(r"(?:(?:this|same)\s+time|today)\s+next\s+week|a\s+week\s+(?:today|from\s+today|from\s+now)", _after(7)),
    _rule(rf"{_DAY}{_PART},?\s+(?:of\s+)?next\s+week|next\s+week,?\s+(?:on\s+)?{_DAY.replace('day>', 'day2>')}", _next_day),
    _rule(rf"next\s+{_DAY}{_PART}", _next_day),
    _rule(r"(?:the\s+)?day\s+after\s+tomorrow", _after(2)),
    _rule(rf"(?:first\s+thing\s+)?tomorrow{_PART}|tomorrow mourning|(?<!\bat \w{{3}} )(?<!\w{{3}}day )in\s+the\s+morning", _after(1)),
    _rule(r"(?<!the )(?<!next )first\s+thing(?=[.,!?;]|$|\s+and\b)", _after(1)),
    _rule(r"a\s+fortnight\s+(?:today|tonight|from\s+(?:today|now))|two\s+weeks\s+(?:today|tonight|from\s+(?:today|now))", _after(14)),
    _rule(rf"(?:a\s+fortnight|two\s+weeks)\s+on\s+{_DAY}", lambda m, t: _plain_day(m, t) + timedelta(14)),
    _rule(r"(?<![\w,] )now(?=,?\s+please)|right\s+now(?=\W*$|,)|tonight|overnight|today|this\s+(?:morning|afternoon|evening)|this\s+minute|(?:straight|right)\s+away|straight\s+after(?=[.,!?]|$)|(?:before|after)\s+(?:lunch|the\s+break)|end\s+of\s+(?:the|this)\s+(?:afternoon|morning)(?!\s+tomorrow)|before\s+you're\s+home|before\s+i'm\s+(?:home|out\s+of\s+(?:here|the\s+\w+))|when\s+(?:we|i)\s+go\s+out|(?:when|once|as\s+soon\s+as)\s+we\s+(?:hang\s+up|put\s+the\s+phone\s+down)|the\s+(?:moment|minute|second)\s+(?:we|i)(?:'re|'m)\s+(?:done|finished|home|back|off\s+the\s+phone)|(?:the\s+(?:moment|minute|second)|as\s+soon\s+as|once)\s+you(?:'re|'ve|\s+are|\s+have)\s+(?:out\s+of\s+(?:that|the)\s+door|gone|left|off)|(?:straight\s+|right\s+)?after\s+this(?!\s+(?:one|\w+day|week|month|year)\b)|"
        r"in\s+(?:five|ten|fifteen|twenty|thirty)\s+minutes|(?:in\s+(?:half\s+)?an|within\s+the)\s+hour|later\s+(?:on\s+)?today|(?:over|at|by)\s+lunch(?:time)?(?!\s+(?:tomorrow|on))|"
        r"before\s+(?:i|we|you)\s+(?:go\s+(?:home|out|off)|(?:go|leave|open)(?=[.,!?]|$))|"
        r"(?:when|once|as\s+soon\s+as)\s+(?:we|i)(?:'re|'m|'ve|\s+are|\s+am|\s+have)?\s+(?:out\s+of\s+here|(?:done|finished|through)(?:\s+here(?=\W)|(?=[.,!?]|$)))|in\s+a\s+(?:minute|moment|second)|"
        r"(?:when|once)\s+(?:we|you|i)'ve\s+hung\s+up|when\s+(?:it's\s+quiet|you're\s+gone|we're\s+off\s+the\s+phone)|(?:when|once|by\s+the\s+time)\s+(?:i|you)(?:'m|'re|\s+get)\s+(?:home|in(?=[.,!?]|$)|back(?=[.,!?]|$|\s+(?:to|at)\s+(?:my|your|the)\s+(?:desk|office)\b)|to\s+(?:my|your)\s+desk)|on\s+the\s+(?:train|bus|drive|tram)\s+(?:home|back)|at\s+(?:the\s+)?break(?:time)?|on\s+(?:my|your|the)\s+way\s+(?:home|out)", _after(0)),
    _rule(rf"(?:in|within|inside|give\s+me)\s+(?:the\s+next\s+)?{COUNT}\s+(?P<unit>day|week|fortnight|month)s?(?:'s)?(?:\s+time)?", _later),
    _rule(rf"(?<!every )(?<!first )(?<!second )(?<!third )(?<!fourth )(?<!other )(?<!each )(?<!\ba )(?:this\s+|the\s+)?(?:coming\s+)?{_DAY}{_PART}", _plain_day),
    _rule(r"(?:over|at|by|for|till?|until)\s+the\s+weekend|this\s+weekend", _week(6, 0)),
    _rule(r"before\s+the\s+weekend", _week(4, 0)),
    _rule(r"(?:right\s+|straight\s+)?after\s+the\s+weekend", _week(0, 1)),
    _rule(r"(?:over|in|within)\s+the\s+next\s+couple\s+of\s+days", _after(2)),
    _rule(r"next\s+weekend", _week(6, 1)),
    _rule(r"next\s+(?:week|weak)", _week(4, 1)),
    _rule(r"next\s+month", lambda _, today: _month_end(today, 1)),
    _rule(rf"the\s+{_NTH}(?![\s-]+(?:{_NUMBERED}|{'|'.join(DAYS)})s?\b)", _of_month),
    _rule(r"(?:Easter|Christmas|New\s+Year(?!'s\s+(?!day|eve)\w)|All\s+Saints|Hallowe'?en|Boxing\s+Day)(?=\W*$|[,.;]|\s+(?:and|so|but|if|at|or|then|day|eve)\b)", lambda m, t: _feast(m.group().split()[0], t)),
    (re.compile(rf"(?:^|(?<=[.?!]\s))(?P<nth>{_ALONE})(?=[.,?!]|\s+and\s+(?:the\s+)?{_NTH.replace('nth>', 'nth2>')})", re.I), _of_month),
)  # fmt: skip


def _week_on(match: re.Match[str], today: date) -> date:
    return coming(today, _weekday(match)) + timedelta(7)
