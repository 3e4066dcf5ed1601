"""Tasks that are told by what is to happen to a thing, as somebody's: `The form has to be in` is `Have the form in`."""

import re

from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.wording import framed

_THING = r"(?P<thing>(?:the|that|this|these|those|my|our|it|they)\b(?: [\w'-]+){0,5}?)"
_MUST = (
    r"(?:'s got to|'ve got to| has got to| have got to| has to| have to| needs? to| must| should| ought to| wants? to)"
)
_DONE_TO = re.compile(rf"{_THING}(?:{_MUST}|'ll| will) be (?P<done>\w+)(?P<rest>\b.*)", re.I)
_IS_TO_BE = re.compile(
    rf"{_THING}(?:{_MUST} be|'ll be| will be) (?P<where>in|out|up|off|down|back|there|here|ready|with|on|at)\b(?P<rest>.*)",
    re.I,
)
_GOES = re.compile(
    rf"{_THING}(?:'ll go| will go| goes| go|'s going| is going) (?P<where>out|off|in|up|back|to (?=the |\w+er\b)|into|onto)(?P<rest>\b.*)",
    re.I,
)
_PLACED = frozenset("in up into onto".split())  # of what goes there: it is put there, and else sent
_WE_DO = re.compile(r"We (?!are\b|have\b|need\b|want\b|know\b|think\b|hope\b|say\b)(?P<verb>\w+) (?P<rest>.+)")
_OBJECT = {"it": "it", "they": "them", "these": "these", "those": "those"}


def recast(text: str, sentence: Sentence) -> str:
    """A task whose words begin with a thing, or with `we`, in the infinitive; other words as they are."""
    text = text.rstrip(".")
    if (match := _WE_DO.match(text)) is not None and _tagged(sentence, match["verb"], "VBP"):
        return framed(f"{match['verb']} {match['rest']}")
    if (match := _IS_TO_BE.match(text)) is not None:
        return _doing("have", match, match["where"])
    if (match := _DONE_TO.match(text)) is not None and (verb := _tagged(sentence, match["done"], "VBN")):
        return _doing(verb, match)
    if (match := _GOES.match(text)) is not None:
        return _doing("put" if match["where"] in _PLACED else "send", match, match["where"])
    return framed(text)


def _doing(verb: str, match: re.Match[str], where: str = "") -> str:
    thing = match["thing"]
    thing = _OBJECT.get(thing.lower(), thing[0].lower() + thing[1:])
    return framed(" ".join(f"{verb} {thing} {where}{match['rest']}".split()))


def _tagged(sentence: Sentence, word: str, tag: str) -> str:
    """The dictionary form of a word that stands in a sentence with this tag; else empty."""
    return next((t.lemma for t in sentence.tokens if t.text.lower() == word.lower() and t.tag == tag), "")
