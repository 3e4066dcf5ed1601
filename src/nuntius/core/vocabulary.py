"""Names and terms that were misheard: found by sound and by spelling, never put right without a person."""

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from jellyfish import metaphone
from rapidfuzz.distance import JaroWinkler
from rapidfuzz.process import extract

from nuntius.core.language.lexicon import may_be_heard_for, only_joins
from nuntius.core.transcript.edits import substituted
from nuntius.core.transcript.quoted import Quoted
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import Word

SHORTEST = 3  # letters of a term that is looked for by its sound: shorter ones sound like too much
ALIKE = 0.80  # Jaro-Winkler similarity of two spellings that sound alike
NEAR = 0.95  # the same for spellings alone, whatever their sound
DOUBTFUL = 0.6  # confidence below which a word in small letters may have been misheard
AROUND = 6  # words of a quotation before and behind a misheard one
CALENDAR = frozenset(
    "monday tuesday wednesday thursday friday saturday sunday january february march april may june july august "
    "september october november december".split()
)  # written with a capital, and no name of anybody
_EDGES = re.compile(r"^(\W*)(.*?)((?:'s|’s)?\W*)$", re.S)


@dataclass(frozen=True, slots=True)
class Term:
    """A name or term as it is spelt, forms heard for it, and forms that are right as they are.

    `capitals`: a form that differs by its capitals alone is to be put right too (`heron` for the boat `Heron`).
    """

    text: str
    heard: tuple[str, ...] = ()
    refused: tuple[str, ...] = ()
    capitals: bool = False


@dataclass(frozen=True, order=True, slots=True)
class Place:
    """Words `first` to `last` (inclusive) of turn number `turn`."""

    turn: int
    first: int
    last: int


@dataclass(frozen=True, slots=True)
class Mishearing:
    """A form that stands in a transcript and may be `term`; `known` when it was put right before."""

    term: str
    heard: str
    known: bool
    places: tuple[Place, ...]


def mishearings(transcript: Transcript, terms: Iterable[Term], form: str | None = None) -> tuple[Mishearing, ...]:
    """Every form that may be a term, with all its places, in the order of the talk; each place at most once.

    With `form` only that one is looked at.

    Time grows with the number of words that differ, and hardly with the number of terms.
    """
    index = _Index([_Key.of(term) for term in terms if _letters(term.text)])
    places: dict[tuple[str, str], list[Place]] = {}
    known: set[tuple[str, str]] = set()
    for number, turn in enumerate(transcript.turns):
        parts = [core(word.text) for word in turn.words]
        free = 0  # the first word behind what was found last
        for first, last in _windows(len(parts), index.longest + 1):
            heard = " ".join(parts[first : last + 1])
            if first < free or (form is not None and heard != form):
                continue
            found = index.match(parts[first : last + 1], turn.words[first : last + 1])
            if found is not None:
                places.setdefault((found[0], heard), []).append(Place(number, first, last))
                known |= {(found[0], heard)} if found[1] else set()
                free = last + 1
    made = [Mishearing(t, heard, (t, heard) in known, tuple(found)) for (t, heard), found in places.items()]
    return tuple(sorted(made, key=lambda each: each.places[0]))


@dataclass(frozen=True, slots=True)
class QuotedMishearing:
    term: str
    heard: str
    known: bool
    places: tuple[Quoted, ...]


def quoted(found: Mishearing, transcript: Transcript) -> QuotedMishearing:
    """A mishearing with the words around each of its places."""
    return QuotedMishearing(found.term, found.heard, found.known, tuple(_quote(transcript, p) for p in found.places))


def _quote(transcript: Transcript, place: Place) -> Quoted:
    turn = transcript.turns[place.turn]
    around = " ".join(word.text for word in turn.words[max(0, place.first - AROUND) : place.last + 1 + AROUND])
    return Quoted(place.turn, turn.words[place.first].start, turn.words[place.last].end, turn.speaker, around)


def put_right(words: tuple[Word, ...], first: int, last: int, term: str) -> str:
    """The text of a turn with `term` in place of words `first` to `last`; punctuation and a `'s` around them stay."""
    before, _, _ = _edges(words[first].text)
    _, _, after = _edges(words[last].text)
    texts = [word.text for word in words]
    return " ".join([*texts[:first], f"{before}{term}{after}", *texts[last + 1 :]])


def replaced(text: str, heard: str, term: str) -> str:
    """A written text with a form put right wherever it stands as words of its own."""
    return substituted(text, heard, term)[0]


@dataclass(frozen=True, slots=True)
class _Key:
    """A term with what it is compared by."""

    term: Term
    letters: str
    sound: str
    size: int
    heard: frozenset[str]
    refused: frozenset[str]

    @staticmethod
    def of(term: Term) -> "_Key":
        return _Key(
            term,
            _letters(term.text),
            metaphone(term.text),
            len(term.text.split()),
            frozenset(map(_letters, term.heard)),
            frozenset(form.lower() for form in term.refused),
        )


def _windows(count: int, most: int) -> Iterator[tuple[int, int]]:
    """First and last of all runs of words, the longest first at each place."""
    for first in range(count):
        for size in range(min(most, count - first), 0, -1):
            yield first, first + size - 1


class _Index:
    """Terms, found by how they are spelt and by how they sound, without comparing each with each."""

    def __init__(self, keys: list[_Key]) -> None:
        self._keys = keys
        self.longest = max((key.size for key in keys), default=0)  # in words
        self._right = {key.letters for key in keys}
        self._texts = {key.term.text for key in keys}
        self._refused = frozenset[str]().union(*(key.refused for key in keys))
        self._heard = _first((form, key) for key in keys for form in key.heard)
        self._lower = _first((key.term.text.lower(), key) for key in keys)
        self._spelt = [key.letters for key in keys]
        self._by_letters = _numbers((key.letters, n) for n, key in enumerate(keys))
        self._by_sound = _numbers((key.sound.replace(" ", ""), n) for n, key in enumerate(keys))
        self._by_first = _numbers((metaphone(key.letters)[:1], n) for n, key in enumerate(keys) if key.size == 1)
        self._near: dict[str, list[int]] = {}

    def match(self, parts: list[str], words: tuple[Word, ...]) -> tuple[str, bool] | None:
        """The term that words may be, and whether they are a known form of it; `parts` are the words without punctuation."""
        text = " ".join(parts)
        letters = _letters(text)
        if not letters or not all(parts) or text in self._texts or text.lower() in self._refused:
            return None
        if letters in self._heard:
            return self._heard[letters].term.text, True
        if text.lower() in self._lower:
            key = self._lower[text.lower()]
            return (key.term.text, False) if key.term.capitals else None
        for number in self._candidates(text, letters, len(parts)):
            key = self._keys[number]
            if abs(len(parts) - key.size) <= 1 and self._sounds_like(words, parts, letters, key):
                return key.term.text, False
        return None

    def _candidates(self, text: str, letters: str, size: int) -> list[int]:
        """Numbers of the terms that are spelt or sound nearly like a text; all that `_sounds_like` may accept."""
        found = self._near.get(text)
        if found is None:
            near = extract(letters, self._spelt, scorer=JaroWinkler.similarity, score_cutoff=NEAR, limit=None)
            numbers = {number for _, _, number in near}
            numbers.update(self._by_letters.get(letters, ()), self._by_sound.get(metaphone(text).replace(" ", ""), ()))
            if size == 1:
                numbers.update(self._by_first.get(metaphone(letters)[:1], ()))
            found = self._near[text] = sorted(numbers)
        return found

    def _sounds_like(self, words: tuple[Word, ...], parts: list[str], letters: str, key: _Key) -> bool:
        if letters == key.letters:
            return True  # `salt marsh` for `Saltmarsh`
        if len(parts) > 1 and any(_letters(part) in self._right for part in parts):
            return False
        if len(key.letters) < SHORTEST or letters in self._right or letters in CALENDAR or letters[0] in "0123456789":
            return False
        if abs(len(letters) - len(key.letters)) > max(1, len(key.letters) // 3) or all(map(only_joins, parts)):
            return False
        if len(parts) == key.size == 1 and may_be_heard_for(key.letters, letters):
            return True
        if not any(part[:1].isupper() for part in parts) and min(word.confidence for word in words) >= DOUBTFUL:
            return False
        spelt = JaroWinkler.similarity(letters, key.letters)
        sounds = metaphone(" ".join(parts)).replace(" ", "") == key.sound.replace(" ", "")
        return bool(spelt >= NEAR or (spelt >= ALIKE and sounds))


def _first(pairs: Iterable[tuple[str, _Key]]) -> dict[str, _Key]:
    """The first key of each text."""
    found: dict[str, _Key] = {}
    for text, key in pairs:
        found.setdefault(text, key)
    return found


def _numbers(pairs: Iterable[tuple[str, int]]) -> dict[str, list[int]]:
    found: dict[str, list[int]] = {}
    for text, number in pairs:
        found.setdefault(text, []).append(number)
    return found


def core(text: str) -> str:
    """A word without the punctuation around it and without a `'s`."""
    return _edges(text)[1]


def _edges(text: str) -> tuple[str, str, str]:
    match = _EDGES.match(text)
    return (match.group(1), match.group(2), match.group(3)) if match else ("", text, "")


def _letters(text: str) -> str:
    return re.sub(r"[\W_]", "", text.lower())
