"""The topic that a line belongs to, shown beside it where its own words do not name it: `Ask two yards.` · Slipway."""

import re

from nuntius.core.language.en.rulings import MEETS_AGAIN
from nuntius.core.minutes.line import LineKind

MOST_IN_NEED = (LineKind.ACTION, LineKind.DECISION)  # kinds of line that are read and acted on by themselves
LETTERS = 4  # at the beginning of a word, by which it is the same in another form; shorter ones name nothing
_OWN = MEETS_AGAIN.partition("{")[0]


def topic_label(kind: str, text: str, title: str, chapters: int) -> str:
    """The title of a line's chapter where it tells a reader more than the line does; "" where it does not.

    `chapters` is how many the meeting has: the only one is what the whole meeting is about.
    """
    if kind not in MOST_IN_NEED or chapters < 2 or text.startswith(_OWN):
        return ""
    return "" if _beginnings(title) & _beginnings(text) else title


def _beginnings(text: str) -> set[str]:
    return {word[:LETTERS] for word in re.findall(rf"[^\W_]{{{LETTERS},}}", text.lower())}
