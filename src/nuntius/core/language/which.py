"""Whether a talk is in English, the one language whose rules are known here."""

import re

from nuntius.core.transcript.transcript import Transcript

FUNCTION_WORDS = frozenset(
    "the a an and or but of to in on at by for from with as is are was were be been am do does did have has had i you he "
    "she it we they me him her us them my your his its our their this that these those not no so if then there here what "
    "who which when where how why can could will would should shall may might must about up out just than into because".split()
)
LEAST_SHARE = (
    0.25  # of function words; English talk has some 0.45, its neighbours with a few words in common below 0.15
)
LEAST_WORDS = 30  # of talk; below it the question is not asked


def is_english(transcript: Transcript) -> bool:
    """Whether enough of the words are English function words; True for a talk too short to decide."""
    words = [word for turn in transcript.turns for word in re.findall(r"[^\W\d_]+", turn.text.lower())]
    if len(words) < LEAST_WORDS:
        return True
    return sum(word in FUNCTION_WORDS for word in words) >= LEAST_SHARE * len(words)
