"""Which words are common ones, being read in one piece by the sentence encoder, and which may be misheard names."""

import json
from functools import cache
from importlib.resources import files

from jellyfish import jaro_winkler_similarity, levenshtein_distance, metaphone

LIKE = 0.72  # Jaro-Winkler similarity of a name and of what a recogniser wrote down for it


def is_common(word: str) -> bool:
    """Whether a word in Latin letters is among the thirty thousand commonest words and pieces of words."""
    return word.lower() in _pieces()


def only_joins(word: str) -> bool:
    """Whether a word only holds others together (`the`, `they`, `when`, `I've`) and names nothing."""
    from spacy.lang.en.stop_words import STOP_WORDS  # only those who ask pay for the import

    head, apostrophe, tail = word.lower().replace("’", "'").partition("'")
    return word.lower() in STOP_WORDS or (bool(apostrophe) and tail != "s" and (head in STOP_WORDS or tail == "t"))


def may_be_heard_for(name: str, word: str) -> bool:
    """Whether a word may be what a recogniser wrote down for a name that it does not know: `quame` for `Kwame`.

    It is no common word, is spelt alike, and its sounds begin as the name's do and differ by one at most.
    """
    if is_common(word) or jaro_winkler_similarity(word.lower(), name.lower()) < LIKE:
        return False
    heard, sound = metaphone(word), metaphone(name)
    return len(sound) > 1 and heard[:1] == sound[:1] and levenshtein_distance(heard, sound) <= 1


@cache
def _pieces() -> frozenset[str]:
    vocabulary = json.loads(files("nuntius.core.language").joinpath("tokenizer.json").read_text("utf-8"))
    return frozenset(vocabulary["model"]["vocab"])
