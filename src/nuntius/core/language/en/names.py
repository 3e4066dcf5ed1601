"""Who is meant: people of the roster and voices, found by first name, surname or whole name."""

import re
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache

from jellyfish import jaro_winkler_similarity, metaphone

from nuntius.core.language.lexicon import may_be_heard_for

KEPT = 20_000  # sentences of which it is kept whom they speak to, some eight hours of talk
SHORTEST_HEARD = 4  # letters of a name that is recognised although it was misheard
HEARD_ALIKE = 0.88  # Jaro-Winkler similarity of a misheard name
_YOU_NEXT = re.compile(
    r"^\w+ (?:you(?:'re|'ve|'ll|'d|r)?|can you|could you|would you|will you)\b", re.I
)  # `Kenji you look tired`
_YOU_BEFORE = re.compile(r"\b(?:from|to|with|by|for|of|at) you$", re.I)  # `she wants it from you Nadia`
_TITLES = r"(?:Dr|Doctor|Mr|Mrs|Ms|Miss|Prof|Professor|Sir|Rev|Reverend|Father|Sister|Cllr|Councillor|Captain|Judge)\.?"
TITLE = re.compile(_TITLES)
_TITLE = re.compile(rf"^{_TITLES}\s+")
_NAME = re.compile(rf"(?P<title>\b{_TITLES}\s+)?(?P<word>[A-ZÀ-Ž][A-Za-zÀ-ž]+)")
_OPENERS = re.compile(
    r"(?:\W*\b(?:so|and|okay|ok|right|well|great|good|lovely|thanks|thank you|now|sorry|but|hey|yes|no|then|shame"
    r"|perfect)\b\W*)+",
    re.I,
)
# Where people are called: `Okay, quame, your steam`, `Would you join us, jeyulia?`
_CALLED = re.compile(rf"^(?:{_OPENERS.pattern})?(\w+)(?:,|\s(?=your?\b))|,\s+(\w+)\W*$", re.I)


@dataclass(frozen=True, slots=True, eq=False)
class Roster:
    """Names that may own an action: people who were there and the labels of voices."""

    people: tuple[str, ...]
    _first: dict[str, str] = field(default_factory=dict)
    _last: dict[str, str] = field(default_factory=dict)
    _sounds: dict[str, str] = field(default_factory=dict)

    @staticmethod
    def of(people: Sequence[str], speakers: Sequence[str]) -> "Roster":
        """A roster; a first name or surname that two people share stands for neither."""
        everyone = tuple(dict.fromkeys([*people, *(s for s in speakers if not is_label(s))]))
        counts = Counter(map(_key, everyone))
        first = {_key(name): name for name in everyone if counts[_key(name)] == 1}
        surnames = Counter(map(_surname, everyone))
        last = {_surname(name): name for name in everyone if surnames[_surname(name)] == 1}
        return Roster(everyone, first, last, {metaphone(key): key for key in first if len(key) >= SHORTEST_HEARD})

    @property
    def words(self) -> frozenset[str]:
        """First names and surnames, in small letters."""
        return frozenset({*self._first, *self._last})

    def find(self, text: str) -> list[tuple[str, int]]:
        """People named in `text` with the character where each stands."""
        return [(name, start) for name, start, _ in self._spans(text)]

    def _spans(self, text: str) -> list[tuple[str, int, int]]:
        """People named in `text`, each with where the name begins (with its title) and ends."""
        found: dict[str, tuple[str, int, int]] = {}
        for match in _NAME.finditer(text):
            word = match.group("word").lower()
            name = self._last.get(word) if match.group("title") else self._named(word)
            if name is not None:
                found.setdefault(name, (name, match.start(), match.end()))
        return list(found.values())

    def addressee(self, text: str) -> str | None:
        """The person a sentence speaks to: `Milos, is the van back`, `Thanks, Milos.`, `could you, Kenji?`"""
        return _addressee(self, text)

    def _spoken_to(self, text: str) -> str | None:
        for name, at, end in self._spans(text):
            before = text[:at].rstrip()
            word = text[at:end].replace(" ", "") + text[end:].split(" ", 1)[0]
            opens = not before or bool(_OPENERS.fullmatch(before))
            called = (opens and word.endswith((",", ".", "?", "!", ":"))) or (
                before.endswith(",") and not word.isalpha()
            )
            if called or (opens and _YOU_NEXT.match(text[at:])) or _YOU_BEFORE.search(before):
                return name
        words = (word for match in _CALLED.finditer(text) for word in match.groups() if word)
        return next(filter(None, map(self._misheard, words)), None)

    def _misheard(self, word: str) -> str | None:
        """The one person for whose first name a word may have been written down."""
        heard = [name for key, name in self._first.items() if may_be_heard_for(key, word)]
        return heard[0] if len(heard) == 1 else None

    def _named(self, word: str) -> str | None:
        """The person whose first name a word is, or was heard as: `milo` of Milos."""
        if word in self._first:
            return self._first[word]
        if len(word) < SHORTEST_HEARD:
            return None
        key = self._sounds.get(metaphone(word)) or next((k for k in self._first if k == f"{word}s"), None)
        if key is None or jaro_winkler_similarity(word, key) < HEARD_ALIKE:
            return None
        return self._first[key]


_addressee = lru_cache(maxsize=KEPT)(Roster._spoken_to)


def is_label(speaker: str) -> bool:
    """Whether a speaker is a mere label of a voice (`Voice A`, `Speaker 2`) and no name."""
    return bool(re.fullmatch(r"(?:voice|speaker|spk|s)[\s_-]*[a-z0-9]{1,3}", speaker.strip(), re.I))


def first_name(name: str) -> str:
    """The first name, without a title before it; empty for an empty name."""
    return next(iter(_TITLE.sub("", name).split()), "")


def _key(name: str) -> str:
    return first_name(name).lower()


def _surname(name: str) -> str:
    return name.split()[-1].lower() if name.split() else ""
