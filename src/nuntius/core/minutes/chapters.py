"""Chapters: where the talk moves to another subject, and what to call each stretch."""

from collections import Counter
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from nuntius.core.language.en import cues
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Chapter
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.segmentation import boundaries
from nuntius.core.minutes.subjects import OPENING_SENTENCES, agenda_words, names_subject, subject_of
from nuntius.core.minutes.titles import titles as titles_of

LEAST_TURNS = 3  # turns beside a turn that are looked at together with it
SPAN = 5  # turns on each side whose vectors are compared
NOMINAL = 4  # words of a sentence without a verb that names a subject ("Money.")


def find_chapters(scene: Scene, likely: NDArray[np.float32], fine: bool = False) -> tuple[Chapter, ...]:
    """The talk divided into stretches; one chapter for a short talk, none for an empty one.

    `likely` says for each turn how likely it opens a chapter; `fine` asks for finer chapters.
    """
    count = len(scene.transcript.turns)
    if not count:
        return ()
    chapters = _titled(scene, [0, *boundaries(likely, fine)])
    if scene.facts.agenda:
        return chapters
    again = [0, *(b.first for a, b in pairwise(chapters) if not _on_one_subject(a.title, b.title))]
    return chapters if len(again) == len(chapters) else _titled(scene, again)


def _titled(scene: Scene, firsts: list[int]) -> tuple[Chapter, ...]:
    ends = [*(first - 1 for first in firsts[1:]), len(scene.transcript.turns) - 1]
    titles = titles_of(scene, firsts, ends)
    return tuple(Chapter(title, first, last) for title, first, last in zip(titles, firsts, ends, strict=True))


def _on_one_subject(a: str, b: str) -> bool:
    """`School contract`, then `School`: what is named again was still spoken of."""
    first, second = (set(title.lower().split()) for title in (a, b))
    return first <= second or second <= first


def chair(scene: Scene) -> str:
    """The one who moves the meeting on: most openings, questions and calls by name."""
    score: Counter[str] = Counter()
    for sentence in scene.sentences:
        score[sentence.speaker] += 2 * bool(cues.SHIFT.search(sentence.lower))
        score[sentence.speaker] += sentence.is_question + 2 * (scene.roster.addressee(sentence.text) is not None)
    if scene.sentences:
        score[scene.sentences[0].speaker] += 3
    return score.most_common(1)[0][0] if score else ""


BOUNDARY_FEATURES = (
    "shift", "leads", "addressed", "leads addressed", "nominal", "leads nominal", "opening", "leads opening", "question",
    "leads question", "agenda", "leads agenda", "novelty", "novel nouns", "after light", "after assent", "after backchannel",
    "after question", "one before leads", "words", "ordinal", "announces", "pause", "leads alone", "lines up", "names", "leads names", "names unasked", "names what stays",
    "names again and goes on", "names again and calls", "after a naming", "after a call", "wide novelty", "novelty peaks", "stays",
    "floor changes", "another holds it", "calls who holds it", "how much is held", "held for the first time", "takes it from the leader",
)  # fmt: skip
WIDE = 12  # turns on each side of a wide look
MANY = 25  # words of a turn's opening that count as many
ROUND = 8  # turns on each side in which it is seen who holds the floor
SHORT = 8  # words of a turn that only calls on somebody
STAYS = 2  # turns ahead that speak of a subject which is new and stays
NAMING = 11  # features of `_naming_row`
FLOOR = 6  # features of `_floor_rows`
LONG_PAUSE = 2.0  # seconds


def boundary_features(scene: Scene) -> NDArray[np.float32]:
    """How much each turn sounds like moving on to another subject, shape (turns, BOUNDARY_FEATURES), each 0 to about 1."""
    leader, agenda, changes = chair(scene), agenda_words(scene), novelty(scene)
    turns = range(len(scene.transcript.turns))
    rows = np.array([_boundary_row(scene, t, leader, agenda, changes[t]) for t in turns], np.float32)
    named = [subject_of(scene, turn) for turn in turns]
    wide = novelty(scene, WIDE)
    naming = np.array([_naming_row(scene, t, leader, named, wide) for t in turns], np.float32)
    return np.hstack([rows, naming, _floor_rows(scene, leader)])


def _floor_rows(scene: Scene, leader: str) -> NDArray[np.float32]:
    """The features that have to do with who holds the floor before and after each turn, the leader apart."""
    voices = sorted({scene.speaker(turn) for turn in range(len(scene.by_turn))} - {leader})
    spoken = np.zeros((len(scene.by_turn) + 1, len(voices) + 1))  # the last column for all who are left out
    for turn in range(len(scene.by_turn)):
        if scene.speaker(turn) != leader:
            spoken[turn + 1, voices.index(scene.speaker(turn))] = len(scene.transcript.turns[turn].words)
    spoken = spoken.cumsum(0)
    made = np.zeros((len(scene.by_turn), FLOOR), np.float32)
    for turn in range(1, len(scene.by_turn)):
        before = _shares(spoken[turn] - spoken[max(0, turn - ROUND)])
        after = _shares(spoken[min(turn + ROUND + 1, len(scene.by_turn))] - spoken[turn])
        holder = int(after.argmax())
        name = voices[holder] if after[holder] else ""
        again = after[holder] * (1 - before[holder])
        opening = scene.by_turn[turn][:OPENING_SENTENCES] if again else ()
        called = any(scene.roster.addressee(s.text) == name for s in opening)
        takes = scene.speaker(turn) == name and scene.speaker(turn - 1) == leader
        made[turn] = [
            1 - np.minimum(before, after).sum(), holder != before.argmax(), again * called, after[holder],
            1 - _shares(spoken[turn])[holder], again * takes,
        ]  # fmt: skip
    return made


def _shares(words: NDArray[np.float64]) -> NDArray[np.float64]:
    return np.asarray(words / (words.sum() or 1.0))


def _naming_row(scene: Scene, turn: int, leader: str, named: list[str], wide: list[float]) -> list[float]:
    """The features of a turn that have to do with the subject that it names, and with a wide look around it."""
    opening = scene.by_turn[turn][:OPENING_SENTENCES]
    names = float(bool(named[turn]) and turn > 0)
    leads = float(scene.speaker(turn) == leader)
    unasked = float(turn > 0 and not scene.text(turn - 1).rstrip().endswith("?"))
    lately = frozenset().union(*(scene.turn_content[t] for t in range(max(0, turn - WIDE), turn)))
    ahead = [scene.turn_content[t] for t in scene.following(turn, WIDE)]
    said = frozenset(t.lemma for s in opening for t in s.tokens if names_subject(t))
    staying = {word for word in said - lately if sum(word in there for there in ahead) >= STAYS}
    stays = float(any(word in named[turn].lower() for word in staying))
    before = scene.text(turn - 1) if turn else ""
    just = " ".join(scene.text(t) for t in scene.preceding(turn, LEAST_TURNS)).lower()
    again = names * unasked * float(named[turn].split()[-1].lower() not in just if named[turn] else 0)
    goes_on = float(len(scene.text(turn).split()) > SHORT)
    calls = float(any(scene.roster.addressee(s.text) for s in opening) or "?" in scene.text(turn))
    short = float(len(before.split()) <= SHORT)
    called = float(turn > 0 and any(scene.roster.addressee(s.text) for s in scene.by_turn[turn - 1]))
    around = wide[max(0, turn - LEAST_TURNS) : turn + LEAST_TURNS + 1]
    return [
        names, leads * names, names * unasked, names * stays, again * goes_on, again * calls,
        float(turn > 1 and bool(named[turn - 1])) * short, called * short, wide[turn], float(wide[turn] == max(around)),
        min(1.0, len(staying) / 2),
    ]  # fmt: skip


def _boundary_row(scene: Scene, turn: int, leader: str, agenda: frozenset[str], change: float) -> list[float]:
    opening = scene.by_turn[turn][:3]
    if not opening or scene.backchannel[turn] or not turn:
        return [0.0] * (len(BOUNDARY_FEATURES) - NAMING - FLOOR)
    text = " ".join(sentence.lower for sentence in opening)
    leads = float(scene.speaker(turn) == leader)
    called = float(any(scene.roster.addressee(s.text) for s in opening))
    nominal = float(any(_nominal(s) for s in opening))
    opens = float(bool(cues.OPENING.match(opening[0].lower)))
    asks = float(any(s.is_question for s in opening))
    nouns = {t.lemma for s in opening for t in s.tokens if names_subject(t)}
    listed = float(bool(nouns & agenda))
    lately = frozenset().union(*(scene.turn_content[t] for t in range(max(0, turn - 2 * SPAN), turn)))
    ahead = frozenset().union(*(scene.turn_content[t] for t in range(turn + 1, min(len(scene.by_turn), turn + SPAN))))
    new = nouns - lately
    before = scene.text(turn - 1)
    pause = scene.transcript.turns[turn].start - scene.transcript.turns[turn - 1].end
    return [
        float(bool(cues.SHIFT.search(text))), leads, called, leads * called, nominal, leads * nominal, opens, leads * opens,
        asks, leads * asks, listed, leads * listed, change, len(new) / max(1, len(nouns)),
        float(bool(cues.LIGHT.search(before))), float(bool(cues.ASSENT.search(before))), float(scene.backchannel[turn - 1]),
        float(before.rstrip().endswith("?")), float(scene.speaker(turn - 1) == leader),
        min(1.0, len(text.split()) / MANY), float(bool(cues.ENUMERATES.search(text))), float(bool(cues.ANNOUNCES.match(opening[0].text))),
        min(1.0, max(0.0, pause) / LONG_PAUSE), leads * float(bool(cues.ANNOUNCES.match(opening[0].text))),
        min(1.0, len(new & ahead) / 2),
    ]  # fmt: skip


def _nominal(sentence: Sentence) -> bool:
    """`Money.`, `So, glass.`: a subject named without a verb."""
    tokens = [t for t in sentence.tokens if t.pos not in ("PUNCT", "INTJ", "CCONJ", "ADV", "SPACE")]
    nouns = [t for t in tokens if t.pos in ("NOUN", "PROPN") and len(t.text) > 2]
    return 0 < len(tokens) <= NOMINAL and bool(nouns) and not any(t.pos in ("VERB", "AUX") for t in tokens)


def novelty(scene: Scene, span: int = SPAN) -> list[float]:
    """For each turn how much the `span` turns from it on differ from as many before it, 0 to about 1."""
    count = len(scene.transcript.turns)
    sums = np.zeros((count + 1, scene.vectors.shape[1] if len(scene.vectors) else 1))
    for number, sentence in enumerate(scene.sentences):
        weight = min(len(sentence.text.split()), 20) * (not scene.backchannel[sentence.turn])
        sums[sentence.turn + 1] += weight * scene.vectors[number]
    sums = sums.cumsum(0)
    made = []
    for turn in range(count):
        before, after = sums[turn] - sums[max(0, turn - span)], sums[min(count, turn + span)] - sums[turn]
        size = np.linalg.norm(before) * np.linalg.norm(after)
        made.append(1 - float(before @ after / size) if size else 0.0)
    return made
