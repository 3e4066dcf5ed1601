"""Names of people: how they are written, and when two of them are the same."""

import unicodedata

from nuntius.core.errors import NameMissing

LONGEST = 120  # characters of a name


def clean_name(text: str) -> str:
    """A name as it is kept: composed (NFC), no invisible or control characters, single spaces.

    Raises NameMissing where nothing that can be seen is left.
    """
    kept = "".join(c if unicodedata.category(c)[0] != "C" else " " if c.isspace() else "" for c in text)
    name = " ".join(unicodedata.normalize("NFC", kept).split())
    if not name:
        raise NameMissing()
    return name[:LONGEST]


def name_key(text: str) -> str:
    """What two spellings of one name have in common: NFKC, case folded, without invisible characters; "" for nothing."""
    visible = "".join(
        c for c in unicodedata.normalize("NFKC", text) if unicodedata.category(c)[0] != "C" or c.isspace()
    )
    return " ".join(unicodedata.normalize("NFKC", visible.casefold()).split())


def label(name: str, distinction: str) -> str:
    """The name as it is shown: with the word that tells it from another person's, where there is one."""
    return f"{name} ({distinction})" if distinction else name
