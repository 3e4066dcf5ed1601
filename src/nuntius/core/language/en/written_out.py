"""English talk that came without punctuation, written out: capitals, ends of sentences and question marks put in.

Only rules: a parser finds few ends of sentences in bare words (on the talk of `training/`: one in twenty), so a turn stays
one sentence but where a person is called or a question begins. The number of words stays the same.
"""

import re
from collections.abc import Collection

_MARKED = re.compile(r"[?!;:…]|[.,](?!\d)")
_I = re.compile(r"\bi(?=(?:'(?:m|ve|ll|d))?\b)")
_PLAIN_WORDS = frozenset(
    "art bill bob chase dawn drew faith frank gene grace hope jack joy mark max may miles pat penny ray rob rose sue will".split()
)  # first names that are words too: in small letters they are taken for words
_AUXILIARY = r"(?:is|are|was|were|do|does|did|have|has|had|can|could|will|would|should|shall|isn't|aren't|wasn't|don't|doesn't|didn't|haven't|hasn't|can't|couldn't|won't|wouldn't|shouldn't)"
_SOMEBODY = r"(?:i|you|he|she|we|they|it|there|that|this|these|those|any\w*|some\w*|every\w*|the|a|an|our|your|my|his|her|their|its|not)"
_LEADS = (
    r"(?:(?:so|and|but|or|well|okay|ok|right|sorry|wait|hm+|uh|um|yeah|yes|no|oh|good|fine|then|now|also|great)\s+)*"
)
_ASKS = (
    r"(?:(?:what|who|where|when|why|how|whose|which)(?:'s|'re|'ll|'d)\b(?!\s+(?:i|you|he|she|we|they)\b)"
    rf"|(?:what|who|where|when|why)\s+(?:{_AUXILIARY}\b|about\b|if\b|else\b|happen\w*\b|not\b|kind\b|sort\b|time\b)"
    r"|how\s+(?:many|much|long|often|far|old|big|soon|about|come|deep|high|bad|late)\b"
    rf"|how\s+{_AUXILIARY}\b|(?:which|whose|what)\s+\w+(?:\s+{_AUXILIARY}\b|$)|what$|why$|when$|where$|how$|who$"
    r"|who\s+(?!i\b|you\b|he\b|she\b|we\b|they\b|the\b)\w+s\b|why\s+\w+$"
    rf"|{_AUXILIARY}\s+{_SOMEBODY}\b(?!\s+(?:is|are|was)\b))"
)
_OPENS_WITH_QUESTION = re.compile(rf"^{_LEADS}(?:(?-i:[A-Z]\w+),?\s+)?{_ASKS}", re.I)
_ENDS_WITH_QUESTION = re.compile(
    r"(?<!\bwhat)(?<!\bthat)(?<!\bthis)(?<!\bwhich)(?<!\bwho)(?<!\bit)(?<!\bthere)(?<!\bso)(?<!\bneither)(?<!\bnor)(?<!\bhow)"
    r"(?<!\bi)(?<!\byou)(?<!\bwe)(?<!\bthey)(?<!\bhe)(?<!\bshe)(?<!'d)(?<!'ll)(?<!'ve)(?<!\bto)(?<!\bcan)(?<!\bcould)(?<!\bwould)(?<!\bnever)(?<!\bnot)"
    rf"\s(?P<asks>(?:(?:do|did|have|had|don't|didn't|haven't)\s+(?:you|we|they|i)\s+\w+(?!\s+whole\b)"
    rf"|(?:does|has|doesn't|hasn't)\s+(?:he|she|it|that|any\w*)\s+\w+"
    rf"|(?:is|are|was|were|isn't|aren't)\s+(?:there|you|we|they|he|she|it|that)\s+\w+"
    rf"|(?:can|could|will|would|should|shall|can't|couldn't|won't|wouldn't|shouldn't)\s+(?:you|we|they|he|she|i|any\w*|that work)\b"
    rf"|(?<!know )(?<!see )(?<!that's )(?<!is )(?<!about )(?<!tell )(?:what|when|where|why|how\s+\w+)\s+{_AUXILIARY}\s+{_SOMEBODY})\b.*)$",
    re.I,
)
_NOT_ASKED = re.compile(
    rf"^{_LEADS}(?:would|should|could|did|do|have)\s+(?:have|be|it|not)\b|^{_LEADS}do\s+(?:that|it|this)\b"
)
_NOT_TOLD = "".join(
    rf"(?<!\b{word} )" for word in ("told", "tell", "ask", "asked", "show", "and", "from", "to", "with")
)
_SPOKEN_TO = r"\s+(?=you\b|(?:can|could|would|will) you\b|(?:what|how|when|where|why)\b)"
_FEW = 2  # words of a turn that is too short to say whether it asks
LONGEST_TAIL = 16  # words of a question at the end of a turn


def written_out(text: str, names: Collection[str]) -> str:
    """A turn with its marks, as it is where it has some; `names` are words in small letters that are names."""
    if _MARKED.search(text) or not text.strip():
        return text
    words = [word.capitalize() if _is_name(word, names) else word for word in _I.sub("I", text).split()]
    return " ".join(_ended(part) for part in _parted(" ".join(words), names))


def _is_name(word: str, names: Collection[str]) -> bool:
    bare = word.lower().removesuffix("'s")
    return bare in names and bare not in _PLAIN_WORDS


def _parted(text: str, names: Collection[str]) -> list[str]:
    """The turn cut where somebody is called by name and where a question begins behind a statement."""
    people = "|".join(sorted(name.capitalize() for name in names))
    called = re.sub(rf"{_NOT_TOLD}\b(?P<name>{people}){_SPOKEN_TO}", r"\n\g<name>, ", text) if people else text
    called = re.sub(rf"^(?P<leads>{_LEADS})\n", r"\g<leads>", called, flags=re.I)
    made: list[str] = []
    for part in called.splitlines():
        part = part.strip()
        tail = None if _asks(part) else _ENDS_WITH_QUESTION.search(part)
        if tail and len(tail["asks"].split()) <= LONGEST_TAIL:
            made += [part[: tail.start()], tail["asks"]]
        else:
            made.append(part)
    return [part for part in made if part.strip()]


def _asks(text: str) -> bool:
    return bool(_OPENS_WITH_QUESTION.match(text)) and not _NOT_ASKED.match(text.lower())


def _ended(text: str) -> str:
    asks = _asks(text) or (len(text.split()) > _FEW and bool(_ENDS_WITH_QUESTION.fullmatch(f" {text}")))
    return text[0].upper() + text[1:] + ("?" if asks else ".")
