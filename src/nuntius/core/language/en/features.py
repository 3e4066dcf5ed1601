"""Lexical features of English sentences, by name, for the trained classifiers."""

import re

from nuntius.core.language.en import cues

WORDS = {  # features that a pattern gives
    "intent": cues.INTENT,
    "promise": cues.PROMISE,
    "group": cues.GROUP_INTENT,
    "request": cues.REQUEST,
    "untaken": cues.UNTAKEN,
    "taking": cues.TAKING,
    "conditional": cues.CONDITIONAL,
    "past": cues.PAST,
    "assent": cues.ASSENT,
    "refusal": cues.REFUSAL,
    "dismissed": cues.DISMISSED,
    "decided": cues.DECIDED,
    "vote": cues.VOTE,
    "proposal": cues.PROPOSAL,
    "call": cues.AGREEMENT_CALL,
    "objection": cues.OBJECTION,
    "deferred": cues.DEFERRED,
    "unknown": cues.UNKNOWN,
    "rhetorical": cues.RHETORICAL,
    "shift": cues.SHIFT,
    "weighty": cues.WEIGHTY,
    "light": cues.LIGHT,
    "risk": cues.RISK,
    "opinion": cues.OPINION,
    "deadline": cues.DEADLINE,
    "I": re.compile(r"\bi(?:'\w+)?\b", re.I),
    "we": re.compile(r"\b(?:we|us|let's)\b", re.I),
    "you": re.compile(r"\byou\b", re.I),
    "they": re.compile(r"\b(?:they|he|she|them|him|her)\b", re.I),
    "negated": re.compile(r"\b(?:not|no|never)\b|n't\b", re.I),
    "would": re.compile(r"\b(?:would|could|might)\b|'d\b", re.I),
    "should": re.compile(r"\b(?:should|must|need|needs|have to|has to|got to|ought)\b", re.I),
    "then": re.compile(r"\bthen\W*$", re.I),
    "opens": cues.OPENING,
    "so": re.compile(r"^\W*(?:so|then|and so)\b", re.I),
    "lets": re.compile(r"\blet's\b", re.I),
    "we go": re.compile(r"\bwe(?:'re| are) (?:not )?\w+ing\b|\bwe(?:'ll| will| don't| won't)\b|\bwe \w+\W*$", re.I),
    "I go": re.compile(r"\bi(?:'m| am) (?:not )?\w+ing\b", re.I),
    "from": re.compile(
        r"\b(?:from|until|till?|starting|as of|for now|instead|stays?|keep|keeping|leave|drop|stick)\b", re.I
    ),
    "thanks": re.compile(r"\b(?:thank|thanks|cheers|great|brilliant|perfect|lovely|good)\b", re.I),
    "wh": re.compile(r"^\W*(?:(?:so|and|but|or|well|okay|right)\W+)*(?:what|who|when|where|why|how|which)\b", re.I),
    "inverted": re.compile(
        r"^\W*(?:(?:so|and|but|or|well|okay|right)\W+)*(?:is|are|was|were|do|does|did|have|has|can|could|will|would|should|shall)\b",
        re.I,
    ),
}
