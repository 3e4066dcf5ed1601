"""Which words are common ones: those that the sentence encoder reads in one piece."""

import json
from functools import cache
from importlib.resources import files


def is_common(word: str) -> bool:
    """Whether a word in Latin letters is among the thirty thousand commonest words and pieces of words."""
    return word.lower() in _pieces()


def only_joins(word: str) -> bool:
    """Whether a word only holds others together (`the`, `they`, `when`, `I've`) and names nothing."""
    from spacy.lang.en.stop_words import STOP_WORDS  # only those who ask pay for the import

    head, apostrophe, tail = word.lower().replace("’", "'").partition("'")
    return word.lower() in STOP_WORDS or (bool(apostrophe) and tail != "s" and (head in STOP_WORDS or tail == "t"))


@cache
def _pieces() -> frozenset[str]:
    vocabulary = json.loads(files("nuntius.core.language").joinpath("tokenizer.json").read_text("utf-8"))
    return frozenset(vocabulary["model"]["vocab"])
