"""Votes: what was moved, the hands that were counted, and what they come to."""

import re

from nuntius.core.language.en import rulings
from nuntius.core.language.en.numbers import UNITS
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.scene import Scene

MOTION_REACH = 8  # turns before a vote in which the motion is looked for
LONGEST_TALLY = 16  # words that tell how a vote went


def is_counted(scene: Scene, sentence: Sentence) -> bool:
    """Whether a sentence says what counted hands come to: `Three. Against? Ursula. So we buy it.`"""
    if sentence.is_question or not rulings.COMES_TO.match(sentence.lower):
        return False
    before = [s for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    if any(rulings.TALLY.search(s.text) for s in before):
        return True
    return any(rulings.COUNTED.match(s.lower) for s in before) and motion_before(scene, sentence) is not None


def motion_before(scene: Scene, sentence: Sentence) -> Sentence | None:
    """What is voted on where a sentence tells how the vote went."""
    near = [s for s in reversed(scene.by_turn[sentence.turn]) if s.first < sentence.first]
    near += [s for turn in scene.preceding(sentence.turn, MOTION_REACH) for s in scene.by_turn[turn]]
    return next((s for s in near if rulings.MOTION.search(s.lower)), None)


def result_of(scene: Scene, motion: Sentence) -> Sentence | None:
    """What the vote on a motion came to, before the next one is moved."""
    for turn in scene.following(motion.turn, MOTION_REACH):
        if any(rulings.MOTION.search(s.lower) for s in scene.by_turn[turn]):
            return None
        if (found := next((s for s in scene.by_turn[turn] if rulings.RESULT.search(s.lower)), None)) is not None:
            return found
    return None


def tally(scene: Scene, motion: Sentence, result: Sentence) -> str:
    """How the vote on a motion went: `In favour? Five. Against? Tim. Carried.` gives `in favour: five. Against: Tim. Carried.`"""
    said = wording.clean(result.text)
    called = [s for s in scene.by_turn[result.turn] if motion.turn < s.turn and s.first <= result.first]
    told = " ".join(wording.clean(s.text) for s in called)
    match = rulings.TALLY.search(told)
    if match is None or " to " in said or len(told.split()) > LONGEST_TALLY:
        return said
    counted = re.sub(
        r"\?\s+(\w+)", lambda m: f": {m[1].lower() if m[1].lower() in UNITS else m[1]}", told[match.start() :]
    )
    return counted[0].lower() + counted[1:]
