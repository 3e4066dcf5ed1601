"""Titles of chapters, from the talk's own nouns."""

import math
import re
from collections import Counter

from nuntius.core.language.en import subject_named
from nuntius.core.language.en.nouns import DULL, NO_TITLE, VAGUE
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.subjects import agenda_words, names_subject, subject_of

TITLE_NOUNS = 2
SHORT = 10  # turns of an opening or a close that goes by that name
OPENING_TURNS = 2  # of a chapter: what is named there is likely its subject
OPENS, LISTED = 2.0, 1.5  # mentions that standing there, or on the agenda, is worth
SECOND = 0.6  # share of the first noun's weight that a second one needs


def titles(scene: Scene, boundaries: list[int], ends: list[int]) -> list[str]:
    """Titles from the things that are spoken of often in a chapter and rarely elsewhere, those it opens with first."""
    bags = [_nouns(scene, first, last) for first, last in zip(boundaries, ends, strict=True)]
    agenda = agenda_words(scene)
    spread = Counter(word for bag in bags for word in bag)
    made: list[str] = []
    for bag, first, last in zip(bags, boundaries, ends, strict=True):
        phrases = _phrases(scene, first, last)
        opening = frozenset().union(*scene.turn_content[first : min(first + OPENING_TURNS, last + 1)])
        weights = {
            word: (count + OPENS * (word in opening and count > 1) + LISTED * (word in agenda))
            * math.sqrt(math.log(1 + (len(bags) + 1) / spread[word]))
            for word, count in bag.items()
        }
        by_weight = sorted(weights, key=lambda word: -weights[word])  # of equals the one that was named first
        ranked = by_weight[:TITLE_NOUNS]
        words: list[str] = []
        for word in ranked:
            phrase = phrases[word].most_common(1)[0][0]
            counts = bag[word] > 1 and weights[word] >= SECOND * weights[ranked[0]]
            if not words or (counts and word not in words[0].lower()):
                words.append(phrase)
        named = subject_of(scene, first) if first else ""
        made.append(_free([_plain(scene, first, last), named, " and ".join(words), "Talk"], made))
    return made


def _free(candidates: list[str], taken: list[str]) -> str:
    """The first title that stands already at no chapter; one whose subject was on before is told as such."""
    for title in filter(None, candidates):
        title = title[0].upper() + title[1:]
        for form in (title, title + subject_named.AGAIN):
            if form not in taken:
                return form
    return f"{candidates[-1]} {len(taken) + 1}"


def _plain(scene: Scene, first: int, last: int) -> str:
    """What any meeting has: its item of the agenda, its opening, its close; empty where a chapter is none of these."""
    opening = " ".join(scene.text(turn).lower() for turn in range(first, min(first + OPENING_TURNS, last + 1)))
    for item in scene.facts.agenda:
        words = [word for word in re.findall(r"[a-z]{4,}", item.lower()) if word not in DULL]
        if words and all(re.search(rf"\b{word[: max(4, len(word) - 2)]}", opening) for word in words):
            return item
    last_turn = len(scene.transcript.turns) - 1
    if last - first >= SHORT or (first == 0 and last == last_turn):
        return ""
    if first == 0:
        return subject_named.OPENING_TITLE
    return next((title for cue, title in subject_named.CLOSING_TITLES if last == last_turn and cue.search(opening)), "")


def _phrases(scene: Scene, first: int, last: int) -> dict[str, Counter[str]]:
    """For each noun the ways in which a chapter names it, those of several words counting twice."""
    found: dict[str, Counter[str]] = {}
    for sentence in (s for turn in range(first, last + 1) for s in scene.by_turn[turn]):
        for at, token in enumerate(sentence.tokens):
            if names_subject(token):
                phrase = _phrase(sentence, at)
                found.setdefault(token.lemma, Counter())[phrase] += 1 + (" " in phrase)
    return found


def _phrase(sentence: Sentence, at: int) -> str:
    """The noun at a token, with up to two nouns and adjectives before it that belong to it."""
    tokens, begin = sentence.tokens, at
    while begin and at - begin < 2 and tokens[begin - 1].dep in ("compound", "amod"):
        if tokens[begin - 1].lemma.lower() in VAGUE | DULL | NO_TITLE or not re.fullmatch(
            r"[A-Za-z'-]+", tokens[begin - 1].text
        ):
            break
        begin -= 1
    shouted = sentence.text.isupper()  # else capitals are of a short form: `the AGM`
    return " ".join(
        t.text if (t.pos == "PROPN" or t.text.isupper()) and not shouted else t.text.lower()
        for t in tokens[begin : at + 1]
    )


def _nouns(scene: Scene, first: int, last: int) -> Counter[str]:
    """How often a chapter speaks of each thing; what stands before another noun counts as part of that."""
    left_out = NO_TITLE | {part.lower() for person in scene.roster.people for part in person.split()}
    bag: Counter[str] = Counter()
    for turn in range(first, last + 1):
        for sentence in scene.by_turn[turn]:
            for token in sentence.tokens:
                if (
                    names_subject(token)
                    and token.dep != "compound"
                    and not {token.lemma.lower(), token.text.lower()} & left_out
                ):
                    bag[token.lemma] += 1
    return bag
