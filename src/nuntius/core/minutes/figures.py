"""Figures: amounts, dates, counts and measures, each with what it is of."""

import re

from nuntius.core.language.en.numbers import in_digits

_FIGURE = re.compile(
    r"[£$€]\s?\d[\d.,]*|\b\d[\d.,:]*\s?(?:%|per cent|percent|pounds?|euros?|dollars?|p\b|k\b|pence|cents?|thousand|million|"
    r"hours?|minutes?|days?|weeks?|months?|years?|metres?|meters?|kilos?|kg|tonnes?|miles?|km|mm|cm|litres?|degrees?|people|o'clock)|\b\d[\d.,:]*\d\b|\b\d{2,}\b",
    re.I,
)
_WORDS = re.compile(
    r"\b(?:\w+teenth|\w+tieth|first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth|twenty-\w+|thirty-first) of \w+|"
    r"\b(?:half|quarter|third|double|twice|dozen)\b|\bthe (?:\w+teenth|\w+tieth|twenty-\w+|thirty-first)\b|\bfour and a half thousand\b|"
    r"\b(?:two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\s+(?:per cent|pounds|euros|hours|minutes|days|weeks|months|years|people|degrees|metres|kilos|of (?:the|them)|thousand|hundred)",
    re.I,
)


def figures_in(text: str) -> list[str]:
    """The figures that a text names, as written with digits."""
    digits = in_digits(text)
    return [match.group().strip() for pattern in (_FIGURE, _WORDS) for match in pattern.finditer(digits)]


def count(text: str) -> int:
    """How many figures a text names, at most three."""
    return min(3, len(figures_in(text)))
