"""Chapters: where the talk moves to another subject, and what to call each stretch."""

import math
import re
from collections import Counter

import numpy as np

from nuntius.core.language.en import cues
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.minutes.line import Chapter
from nuntius.core.minutes.scene import Scene

THRESHOLD = 2.0  # points that a turn needs to open a chapter
LEAST_TURNS = 4  # turns of a chapter
SPAN = 5  # turns on each side whose vectors are compared
NOMINAL = 4  # words of a sentence without a verb that names a subject ("Money.")
TITLE_NOUNS = 2
DULL = frozenset(
    [
        "thing",
        "things",
        "one",
        "ones",
        "way",
        "lot",
        "bit",
        "time",
        "times",
        "day",
        "days",
        "week",
        "weeks",
        "month",
        "year",
        "minute",
        "people",
        "person",
        "everyone",
        "anybody",
        "somebody",
        "morning",
        "today",
        "tomorrow",
        "yesterday",
        "question",
        "something",
        "anything",
        "nothing",
        "kind",
        "sort",
        "part",
        "point",
        "moment",
        "end",
        "number",
        "course",
        "fact",
        "idea",
        "guy",
        "lad",
        "half",
        "first",
        "second",
        "rest",
        "voice",
        "speaker",
        "monday",
        "tuesday",
        "wednesday",
        "thursday",
        "friday",
        "saturday",
        "sunday",
        "okay",
        "yeah",
    ]
)


def find_chapters(scene: Scene) -> tuple[Chapter, ...]:
    """The talk divided into stretches; one chapter for a short talk, none for an empty one."""
    count = len(scene.transcript.turns)
    if not count:
        return ()
    borders = [0, *_borders(scene)]
    ends = [*(border - 1 for border in borders[1:]), count - 1]
    titles = _titles(scene, borders, ends)
    return tuple(Chapter(title, first, last) for title, first, last in zip(titles, borders, ends, strict=True))


def _borders(scene: Scene) -> list[int]:
    """Turns that open a chapter, apart from the first."""
    count = len(scene.transcript.turns)
    leader, agenda, novelty = chair(scene), agenda_words(scene), _novelty(scene)
    points = [_points(scene, turn, leader, agenda) + novelty[turn] for turn in range(count)]
    chosen: list[int] = []
    for turn in sorted(range(LEAST_TURNS, count - 1), key=lambda t: -points[t]):
        if points[turn] < THRESHOLD:
            break
        if all(abs(turn - other) >= LEAST_TURNS for other in chosen):
            chosen.append(turn)
    return sorted(chosen)


def chair(scene: Scene) -> str:
    """The one who moves the meeting on: most openings, questions and calls by name."""
    score: Counter[str] = Counter()
    for sentence in scene.sentences:
        score[sentence.speaker] += 2 * bool(cues.SHIFT.search(sentence.lower))
        score[sentence.speaker] += sentence.is_question + 2 * (scene.roster.addressee(sentence.text) is not None)
    if scene.sentences:
        score[scene.sentences[0].speaker] += 3
    return score.most_common(1)[0][0] if score else ""


def agenda_words(scene: Scene) -> frozenset[str]:
    """Nouns of the agenda: given, or read out as a list in the first turns."""
    given = {word.lower() for item in scene.facts.agenda for word in re.findall(r"[A-Za-z]{4,}", item)}
    for sentence in scene.sentences:
        if sentence.turn > 15:
            break
        if sentence.text.count(",") >= 2 and re.search(
            r"\b(?:agenda|got|cover|start|items?|then|today|list|first)\b", sentence.lower
        ):
            given |= {t.lemma for t in sentence.tokens if t.pos in ("NOUN", "PROPN") and len(t.lemma) > 3}
    return frozenset(given - DULL)


def _points(scene: Scene, turn: int, leader: str, agenda: frozenset[str]) -> float:
    """How much the first sentences of a turn sound like moving on."""
    opening = scene.by_turn[turn][:3]
    if not opening or scene.backchannel[turn]:
        return 0.0
    leads = scene.speaker(turn) == leader
    text = " ".join(sentence.lower for sentence in opening)
    points = 1.6 * bool(cues.SHIFT.search(text))
    called = any(scene.roster.addressee(s.text) for s in opening)
    nominal = any(_nominal(s) for s in opening)
    opens = bool(cues.OPENING.match(opening[0].lower))
    points += (1.0 if leads else 0.4) * called + (0.9 if leads else 0.2) * nominal + (0.6 if leads else 0.1) * opens
    points += 0.4 * (leads and any(s.is_question for s in opening))
    named = {t.lemma for s in opening for t in s.tokens if t.pos in ("NOUN", "PROPN")} & agenda
    points += (0.7 if leads else 0.3) * bool(named)
    return points + 0.2 * scene.backchannel[turn - 1] if turn else points


def _nominal(sentence: Sentence) -> bool:
    """`Money.`, `So, glass.`: a subject named without a verb."""
    tokens = [t for t in sentence.tokens if t.pos not in ("PUNCT", "INTJ", "CCONJ", "ADV", "SPACE")]
    nouns = [t for t in tokens if t.pos in ("NOUN", "PROPN") and len(t.text) > 2]
    return 0 < len(tokens) <= NOMINAL and bool(nouns) and not any(t.pos in ("VERB", "AUX") for t in tokens)


def _novelty(scene: Scene) -> list[float]:
    """For each turn how much the talk behind it differs from the talk before it, 0 to about 1."""
    count = len(scene.transcript.turns)
    sums = np.zeros((count + 1, scene.vectors.shape[1] if len(scene.vectors) else 1))
    for number, sentence in enumerate(scene.sentences):
        weight = min(len(sentence.text.split()), 20) * (not scene.backchannel[sentence.turn])
        sums[sentence.turn + 1] += weight * scene.vectors[number]
    sums = sums.cumsum(0)
    made = []
    for turn in range(count):
        before, after = sums[turn] - sums[max(0, turn - SPAN)], sums[min(count, turn + SPAN)] - sums[turn]
        size = np.linalg.norm(before) * np.linalg.norm(after)
        made.append(1 - float(before @ after / size) if size else 0.0)
    return made


def _titles(scene: Scene, borders: list[int], ends: list[int]) -> list[str]:
    """Titles from the nouns that are frequent in a chapter and rare elsewhere."""
    bags = [_nouns(scene, first, last) for first, last in zip(borders, ends, strict=True)]
    agenda = agenda_words(scene)
    spread = Counter(word for bag in bags for word in bag)
    titles: list[str] = []
    for bag in bags:
        ranked = sorted(bag, key=lambda w: -(bag[w] + 1.5 * (w in agenda)) * math.log(1 + (len(bags) + 1) / spread[w]))
        words = [_surface(scene, word) for word in ranked[:TITLE_NOUNS]]
        title = " and ".join(words) or "Talk"
        titles.append(title[0].upper() + title[1:])
    return titles


def _nouns(scene: Scene, first: int, last: int) -> Counter[str]:
    names = {part.lower() for person in scene.roster.people for part in person.split()}
    bag: Counter[str] = Counter()
    for turn in range(first, last + 1):
        for sentence in scene.by_turn[turn]:
            for token in sentence.tokens:
                if _names_subject(token) and not {token.lemma, token.text.lower()} & names:
                    bag[token.lemma] += 1
    return bag


def _names_subject(token: Token) -> bool:
    """Whether a token is a noun that says what the talk is about."""
    is_noun = token.pos in ("NOUN", "PROPN") and token.text.isalpha()
    return is_noun and len(token.lemma) > 2 and token.lemma not in DULL


def _surface(scene: Scene, lemma: str) -> str:
    """The most frequent written form of a noun."""
    forms = Counter(
        t.text if t.pos == "PROPN" else t.text.lower()
        for s in scene.sentences
        for t in s.tokens
        if t.lemma == lemma and t.pos in ("NOUN", "PROPN")
    )
    return forms.most_common(1)[0][0]
