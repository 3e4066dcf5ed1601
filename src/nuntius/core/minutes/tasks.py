"""Tasks in the words in which they are minuted: in the infinitive, without day, asides and those who are called by name."""

import re
from collections.abc import Collection

from nuntius.core.language.en import cues
from nuntius.core.language.en.names import first_name
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.wording import clean, framed

LEAST_UNDATED = 3  # words that a task keeps when the day is taken off it
_DAY = re.compile(r"day\b|tomorrow|week\b|\d|\b(?:\w+th|first|second|third|\w+-first|\w+-second|\w+-third)\b", re.I)
_HANGS = re.compile(  # what is left before a day that was taken off
    r"(?:,?\s+(?:so|by|before|until|till|of|about|around)|\s+(?:(?:by|on|before|until|till|for|in|at|from|of)\s+)?(?:the|a))+$",
    re.I,
)
_LEADS_ON = re.compile(r"\b(?:and|or|than|but|to|onto|into|with|is|are|be)$", re.I)
_ASIDE = re.compile(
    r"(?:,\s+(?=(?:he|she|it|they|we|i|you|there|that|those|these|this)(?:'(?:s|ll|d|re|ve|m)\b|\s+(?!way\b|one\b|time\b|week\b|month\b|year\b)\w))|"
    r"\s+[–-]\s+(?=(?:he|she|it|they|there|that)(?:'|\b)))",
    re.I,
)  # another clause that only a comma parts from it
_CONDITION = re.compile(r"(if\b[^,]{3,60}?),?\s+(?:then\s+)?I(?:'ll|'d| will| would| can| could)\b", re.I)
_LATE = re.compile(
    r",?\s+(?:(?<!by )(?<!till )(?<!until )(?<!since )(?<!before )(?<!now and )then|really|though)$", re.I
)
_WISH = re.compile(r"^(?:like|have|want) to (?=\w)|^please (?!the\b|a\b)", re.I)
_AND_I = re.compile(r",? and (then )?I(?:'ll| will) ")
_STATES = frozenset(
    "be have need want think hope know mean like reckon expect wonder".split()
)  # verbs that are no task


def finished(text: str, sentence: Sentence, owner: Collection[str], names: Collection[str]) -> str:
    """A task of `owner` that was made from a sentence, with the forms of talk turned into those of minutes.

    `names` are the first names and surnames of all who are known, in small letters.
    """
    text = without_aside(text)
    if sentence.speaker not in owner:
        text = without_you(text)
    elif cues.IF_FIRST.search(sentence.lower):
        text = under_condition(text, sentence.text)
    text = impersonal(text, sentence, [first_name(name) for name in owner if name])
    return without_calls(text, names)


def impersonal(text: str, sentence: Sentence, owner: Collection[str]) -> str:
    """`I'm sending the lot`, `Ravi sees their chairman`, said of whoever owns it: `Send the lot`, `See their chairman`."""
    whom = "|".join(["I", *map(re.escape, owner)])
    rest = _AND_I.sub(lambda match: f" and {match.group(1) or ''}", _WISH.sub("", text))
    match = re.match(
        rf"(?:(?:today|tonight|tomorrow),? )?(?:{whom})(?:'m|'s| am| is)? (?:going to )?(?:just |then |also )?(\w+) ",
        rest,
    )
    verb = next((t for t in sentence.tokens if match and t.text == match.group(1)), None)
    if match is not None and verb is not None and _is_told(verb.tag, rest[: match.start(1)]):
        rest = rest if verb.lemma in _STATES else verb.lemma + rest[match.end(1) :]
    return framed(rest.replace("?", "."))


def _is_told(tag: str, before: str) -> bool:
    """Whether a verb behind its subject tells what is done now or next: `I'm sending`, `I send`, `I'm going to send`."""
    is_ahead = before.endswith("going to ")
    is_now = bool(re.search(r"(?:'m|'s| am| is) $", before))
    return (tag == "VB" and is_ahead) or (tag == "VBG" and is_now) or (tag in ("VBP", "VBZ") and not is_now)


def without_calls(text: str, names: Collection[str]) -> str:
    """`Order them, Ife.`, `Book the coach, then.`: without whoever is called by name and what only rounds off."""
    rest = text.rstrip(".!")
    for _ in range(2):
        rest = re.sub(r",\s+([A-Z]\w+)$", lambda m: "" if m.group(1).lower() in names else m.group(), rest)
        rest = _LATE.sub("", rest)
    rest = re.sub(r"^([A-Z]\w+),\s+", lambda m: "" if m.group(1).lower() in names else m.group(), rest)
    return framed(rest) if rest != text.rstrip(".!") and len(rest.split()) > 1 else text


def without_aside(text: str) -> str:
    """A task without what is told of it behind a comma: `Get old Pratt, he owes me a marrow.` gives `Get old Pratt.`"""
    head = _ASIDE.split(text, maxsplit=1)[0]
    return framed(head.rstrip(" ,.")) if head != text and len(head.split()) > 1 else text


def undated(text: str, said: str) -> str:
    """A task without the day at its end, which stands beside it: `Ask her by Thursday.` gives `Ask her.`"""
    rest = re.sub(rf",?\s+(?:(?:on|by|before|until|till|for) )?{re.escape(said)}\W*$", "", text, flags=re.I)
    rest = _HANGS.sub("", rest) if rest != text else text
    rest = rest.rstrip(" ,")
    whole = len(rest.split()) >= LEAST_UNDATED and not _LEADS_ON.search(rest)
    return framed(rest) if rest != text.rstrip(" ,") and whole and _DAY.search(said) else text


def without_you(text: str) -> str:
    """`You write to them.`, said to whoever is to do it: `Write to them.`"""
    rest = re.sub(r"^you(?:'ll| will| can| could| should|'d better)? (?=\w+ \w)", "", text, flags=re.I)
    return rest[0].upper() + rest[1:]


def under_condition(text: str, sentence: str) -> str:
    """A task with the condition that stands ahead of it in its sentence: `Stay as well, if it's time and a half.`"""
    match = _CONDITION.match(clean(sentence))
    return framed(f"{text.rstrip('.')}, {match.group(1)[0].lower()}{match.group(1)[1:]}") if match else text


def until_own(text: str) -> str:
    """What another is to do, without the speaker's own part: `Raise it today and I'll sign it.` gives `Raise it today.`"""
    return framed(cues.AND_I.split(text)[0].strip(" ,.;"))
