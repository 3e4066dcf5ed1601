"""A person's correction of a turn: new text, with the times of the words kept by alignment."""

import re
from difflib import SequenceMatcher

from nuntius.core.transcript.word import Word, spread


def retimed(words: tuple[Word, ...], text: str) -> tuple[Word, ...]:
    """The words of `text`, taking times from `words` where they agree.

    Words that were left alone keep start, end and confidence; changed stretches share the time that
    the replaced words had (or the gap between their neighbours) and get confidence 1, since a person
    wrote them. Empty text gives no words.
    """
    new = text.split()
    if not words:
        return spread(text, 0.0, 0.0)
    matcher = SequenceMatcher(
        None, [_plain(word.text) for word in words], [_plain(part) for part in new], autojunk=False
    )
    made: list[Word] = []
    for tag, a, b, c, d in matcher.get_opcodes():
        if tag == "equal":
            made += [_kept(word, part) for word, part in zip(words[a:b], new[c:d], strict=True)]
        elif d > c:
            start, end = _room(words, a, b)
            made += spread(" ".join(new[c:d]), start, end)
    return tuple(made)


def substituted(text: str, wanted: str, instead: str, exactly: bool = False) -> tuple[str, int]:
    """A text with `instead` wherever `wanted` stands as words of its own, and how often it stood there.

    `exactly` minds capital letters. An empty `wanted` stands nowhere.
    """
    wanted = " ".join(wanted.split())
    if not wanted:
        return text, 0
    pattern = re.compile(rf"(?<!\w){re.escape(wanted)}(?!\w)", 0 if exactly else re.I)
    return pattern.subn(lambda _: " ".join(instead.split()), text)


def _kept(word: Word, part: str) -> Word:
    confidence = word.confidence if part == word.text else 1.0
    return Word(word.start, word.end, part, confidence)


def _room(words: tuple[Word, ...], a: int, b: int) -> tuple[float, float]:
    """Start and end in seconds of words a to b, or of the gap before word a when there are none."""
    if b > a:
        return words[a].start, words[b - 1].end
    before = words[a - 1].end if a else words[0].start
    after = words[a].start if a < len(words) else words[-1].end
    return before, max(before, after)


def _plain(text: str) -> str:
    return text.lower().strip(".,!?;:\"'")
