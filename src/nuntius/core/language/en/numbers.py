"""English number words as figures: `a hundred and forty` is 140, `the twenty-eighth` is 28."""

import itertools
import re
from functools import lru_cache

KEPT = 20_000  # texts whose figures are kept, some eight hours of talk: another template asks for the same ones

UNITS = {
    word: value
    for value, word in enumerate(
        [
            "zero",
            "one",
            "two",
            "three",
            "four",
            "five",
            "six",
            "seven",
            "eight",
            "nine",
            "ten",
            "eleven",
            "twelve",
            "thirteen",
            "fourteen",
            "fifteen",
            "sixteen",
            "seventeen",
            "eighteen",
            "nineteen",
        ]
    )
}
TENS = {
    word: value * 10
    for value, word in enumerate(["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"], 2)
}
SCALES = {"hundred": 100, "thousand": 1000, "million": 1_000_000}
ORDINALS = {
    "first": 1, "second": 2, "third": 3, "fourth": 4, "fifth": 5, "sixth": 6, "seventh": 7, "eighth": 8,
    "ninth": 9, "tenth": 10, "eleventh": 11, "twelfth": 12, "thirteenth": 13, "fourteenth": 14,
    "fifteenth": 15, "sixteenth": 16, "seventeenth": 17, "eighteenth": 18, "nineteenth": 19,
    "twentieth": 20, "thirtieth": 30,
}  # fmt: skip
_CARDINAL = "|".join([*UNITS, *TENS, *SCALES])
_SMALL = "|".join([*UNITS, *TENS])
_BEHIND = rf"[\s-]+(?:and\s+)?(?:(?:{'|'.join(TENS)})[\s-])?(?:{'|'.join(ORDINALS)})\b"  # an ordinal ends the number
_RUN = re.compile(
    rf"\b(?:(?:a|an)\s+(?:hundred|thousand|million)|(?:{_SMALL}))(?:[\s-]+(?:and\s+)?(?:{_CARDINAL}))*\b(?!-\w)(?!\s+and\s+a\s+half)(?!{_BEHIND})",
    re.I,
)
_DIGIT = "|".join(list(UNITS)[:10])
_WHOLE = rf"(?:(?:(?:an?\s+)?(?:hundred|thousand)|{_SMALL})(?:[\s-]+(?:and\s+)?(?:{_CARDINAL}))*|\d[\d,]*)"
_POINT = re.compile(rf"\b({_WHOLE}) point ((?:{_DIGIT})(?:[\s-](?:{_DIGIT}))*)\b", re.I)
_AND_PENCE = re.compile(
    rf"\b({_WHOLE}) (pounds?|euros?|dollars?|metres?) ((?:{'|'.join(TENS)})(?:[\s-](?:{_DIGIT}))?|\d\d)\b(?=\W*$|\W*[.,;:?!]|\s+(?:an?|each|per|for|apiece|to|and|in|on|at|the|all|is|was|more|less|off|extra|over|if|or)\b)",
    re.I,
)
_CLIPPED = re.compile(rf"\bthousand[\s-](?:{_DIGIT})$", re.I)  # `seven thousand nine` is 7900 to many, 7009 to some
_YEAR = re.compile(  # `in nineteen seventy-four`, `since twenty twenty-six`; a bare `nineteen fifty` may be a price
    rf"\b(in|since|until|till?|before|after|from(?= \w+ \w+-\w+ to\b)) (?:(eighteen|nineteen) ((?:{'|'.join(TENS)})"
    rf"(?:[\s-](?:{_DIGIT}))?|{'|'.join(list(UNITS)[10:])})|(twenty) (twenty(?:[\s-](?:{_DIGIT}))?|{'|'.join(list(UNITS)[10:])}))\b(?!-\w)",
    re.I,
)
_PAUSED = re.compile(
    r"\b(\d{2,3},000), (\d{2,3}) (pounds|euros|dollars)\b"
)  # `forty thousand, two hundred and six pounds`
_RANGE = re.compile(
    r"(?<![-\w])(two|three|four|five|six|seven|eight|nine)( (?:to|or|(?:out )?of(?: the)?) (?=\d))", re.I
)  # `nine to twelve`, `seven out of ten`
_ORDINAL = re.compile(rf"\b(?:({'|'.join(TENS)})[\s-])?({'|'.join(ORDINALS)})\b", re.I)


def value_of(words: str) -> int:
    """The number that a run of number words names; later smaller words add, scales multiply."""
    total, part = 0, 0
    for word in re.findall(r"[a-z]+", words.lower()):
        if word in UNITS:
            part += UNITS[word]
        elif word in TENS:
            part += TENS[word]
        elif word == "hundred":
            part = max(part, 1) * 100
        elif word in SCALES:
            total += max(part, 1) * SCALES[word]
            part = 0
    return total + part


@lru_cache(maxsize=KEPT)
def in_digits(text: str) -> str:
    """`text` with number words above nine, and those with a point, written in digits; a lone `one` to `nine` stays a word.

    Digits are what the minutes use; the quotation keeps the words.
    """
    text = _POINT.sub(
        lambda m: f"{_value(m[1])}.{''.join(str(UNITS[w]) for w in re.findall('[a-z]+', m[2].lower()))}", text
    )
    text = _AND_PENCE.sub(lambda m: f"{_value(m[1])}.{_value(m[3]):02} {m[2].rstrip('s')}s", text)
    text = _YEAR.sub(lambda m: f"{m[1]} {value_of(m[2] or m[4])}{value_of(m[3] or m[5])}", text)
    text = _RUN.sub(lambda match: _digits(match.group()), text)
    text = _PAUSED.sub(lambda m: f"{int(m[1].replace(',', '')) + int(m[2]):,} {m[3]}", text)
    return _RANGE.sub(lambda match: f"{UNITS[match[1].lower()]}{match[2]}", text)


def _value(words: str) -> int:
    """The number that digits or number words name."""
    digits = words.replace(",", "")
    return int(digits) if digits.isdigit() else value_of(words)


def _digits(words: str) -> str:
    parts = [word for word in re.findall(r"[a-z]+", words.lower()) if word not in ("a", "an", "and")]
    if (len(parts) > 1 and _is_list(parts)) or _CLIPPED.search(words):
        return words
    value = value_of(words)
    return words if value < 10 else f"{value:,}" if value >= 10_000 else str(value)


def _is_list(parts: list[str]) -> bool:
    """`six or eight` never gets here; `ten forty` and `two three` are two numbers, not one."""
    for before, after in itertools.pairwise(parts):
        if after in SCALES or before in SCALES:
            continue
        if not (before in TENS and after in UNITS and 0 < UNITS[after] < 10):
            return True
    return False


def ordinal(text: str) -> int | None:
    """Day number of `twenty-eighth`, `2nd` or `24th`; None for anything else."""
    if match := re.fullmatch(r"(\d{1,2})(?:st|nd|rd|th)", text.strip().lower()):
        return int(match.group(1))
    match = _ORDINAL.fullmatch(text.strip().lower())
    if not match:
        return None
    return TENS.get(match.group(1) or "", 0) + ORDINALS[match.group(2)]


ORDINAL_WORDS = rf"(?:(?:{'|'.join(TENS)})[\s-])?(?:{'|'.join(ORDINALS)})"
