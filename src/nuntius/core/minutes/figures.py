"""Figures: amounts, dates, counts and measures, each with what it is of."""

import re

from nuntius.core.language.en import cues
from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.quoting import answered, quoted, with_question
from nuntius.core.minutes.scene import Scene, passage

LONGEST = 50  # tokens of a sentence whose figures are listed
SHORTEST = 5  # words of a sentence that tells by itself what its figure is of
REACH = 4  # tokens between a number and the noun it counts

_FIGURE = re.compile(
    r"[£$€]\s?\d[\d.,]*|\b\d[\d.,:]*\s?(?:%|per cent|percent|pounds?|euros?|dollars?|p\b|k\b|pence|cents?|thousand|million|"
    r"hours?|minutes?|days?|weeks?|months?|years?|metres?|meters?|kilos?|kg|tonnes?|miles?|km|mm|cm|litres?|degrees?|people|o'clock)|\b\d[\d.,:]*\d\b|\b\d{2,}\b",
    re.I,
)
_WORDS = re.compile(
    r"\b(?:\w+teenth|\w+tieth|first|second|third|fourth|fifth|sixth|seventh|eighth|ninth|tenth|eleventh|twelfth|twenty-\w+|thirty-first) of \w+|"
    r"\b(?:half|quarter|third|double|twice|dozen)\b|\bthe (?:\w+teenth|\w+tieth|twenty-\w+|thirty-first)\b|\bfour and a half thousand\b|"
    r"\b(?:two|three|four|five|six|seven|eight|nine|ten|eleven|twelve)\s+(?:per cent|pounds|euros|hours|minutes|days|weeks|months|years|people|degrees|metres|kilos|of (?:the|them)|thousand|hundred)",
    re.I,
)


def figures_in(text: str) -> list[str]:
    """The figures that a text names, as written with digits."""
    digits = in_digits(text)
    return [match.group().strip() for pattern in (_FIGURE, _WORDS) for match in pattern.finditer(digits)]


def count(text: str) -> int:
    """How many figures a text names, at most three."""
    return min(3, len(figures_in(text)))


def find_figures(scene: Scene) -> list[Line]:
    """A line for every sentence that names figures: each with what it is of, then the sentence."""
    lines: list[Line] = []
    seen: set[str] = set()
    for sentence in scene.sentences:
        if sentence.is_question or cues.CONDITIONAL.search(sentence.lower) or len(sentence.tokens) > LONGEST:
            continue
        named = [each for each in dict.fromkeys(amounts(sentence)) if each.lower() not in seen]
        if not named:
            continue
        bare = len(quoted(sentence).split()) < SHORTEST
        asked = answered(scene, sentence) if bare else None
        if bare and asked is None and len(sentence.text.split()) < SHORTEST:
            continue
        seen |= {each.lower() for each in named}
        told = f"{', '.join(named)}: {with_question(asked, sentence)}"
        evidence = tuple(map(passage, [asked, sentence] if asked else [sentence]))
        lines.append(Line(LineKind.FIGURE, told, evidence, state=LineState.SETTLED, why="a figure"))
    return lines


def amounts(sentence: Sentence) -> list[str]:
    """The figures of a sentence with the nouns that they count: `twelve panes of glass` gives `12 panes of glass`."""
    written = in_digits(sentence.text)
    found = (_with_its_noun(sentence, i) for i, token in enumerate(sentence.tokens) if token.pos == "NUM")
    phrases = [in_digits(each) for each in found if each]
    phrases = [each for each in phrases if re.search(rf"(?<![\d.,]){re.escape(each)}", written) and each[0].isdigit()]
    held = " ".join(phrases)
    return [*phrases, *(each for each in figures_in(sentence.text) if each not in held and re.search(r"\d", each))]


def _with_its_noun(sentence: Sentence, at: int) -> str:
    """From a number to the noun it counts, with what that is `of`; "" where it counts none."""
    tokens = sentence.tokens
    head = at
    while tokens[head].pos == "NUM" and tokens[head].head != head:
        head = tokens[head].head
    if tokens[head].pos not in ("NOUN", "PROPN", "SYM") or not at < head <= at + REACH:
        return ""
    last = head
    if last + 2 < len(tokens) and tokens[last + 1].lemma == "of":
        last = next((i for i in range(last + 2, min(last + 5, len(tokens))) if tokens[i].pos == "NOUN"), last)
    end = tokens[last].start + len(tokens[last].text)
    return sentence.text[tokens[at].start : end]
