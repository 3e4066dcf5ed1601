"""How English names the next subject, and what opening and close are called: `Payment.`, `And the open day.`, `Can I do paint?`, `Item two, the head's report.`"""

import re

from nuntius.core.language.en.cues import cue
from nuntius.core.language.en.nouns import DULL
from nuntius.core.language.en.numbers import ORDINAL_WORDS
from nuntius.core.language.sentence import Sentence, Token

LEADS_IN = re.compile(
    r"^(?:okay|ok|so|now|and|but|right|then|good|great|well|also|oh|thanks|thank|you|perfect|lovely|fine|all|alright|um+|uh+|er|"
    r"finally|lastly|next|anyway|yes|yeah|no|which|is|that|brings|us|me|to|obviously|ha|hmm|shame|ugh|ooh|aye|yep|mm|sorry|item|understood|noted|agreed)$",
    re.I,
)
TRAILS = re.compile(r"^(?:then|please|next|quickly|now|first|again|though|by|the|way|everybody|everyone)$", re.I)
ASKED_FOR = re.compile(
    r"(?:\bitem (?:\w+)(?:,| is|:)|\b(?:shall|can|could|may|let) (?:i|me|we|us) (?:just )?(?:do|ask about|raise|talk about|take|bring up|come to|turn to|go to)|"
    r"\blet's (?:do|take|talk about|turn to|look at|come to|go to|start with|move on to)|\b(?:on|over|back|turning|moving on|skip|go back) to|\btell (?:me|us) about|"
    r"^\W*(?:so,? |and |now,? |okay,? |right,? )*(?:what|how) about|^\W*(?:so,? |and |now,? )*(?:there's|there is|that leaves|which (?:is|brings us to)|then there's)|"
    r"^\W*(?:so,? |and |now,? )*(?:one|two|three|four|five|six|seven|eight|nine|ten|first|second|last) (?:is|would be|was|'s))\s+",
    re.I,
)
NOUNISH = ("NOUN", "PROPN", "ADJ", "DET", "PRON", "ADP", "PART", "NUM", "CCONJ")
# praise and the like: `Good instinct.` names nothing
EVALUATIVE = frozenset(
    "good great nice fair lovely brilliant dear free hello bye sure right bad real other same such".split()
)
HEADS = ("DET", "PRON", "ADP", "CCONJ", "PART", "NUM")
ANNOUNCING = [[which, what] for which in ("more", "other", "last") for what in ("thing", "point", "question")]
MOST_WORDS = 5  # of a subject that is merely named


def subject_named(sentence: Sentence, people: frozenset[str]) -> str:
    """The subject that a sentence names without saying anything of it yet; empty where it does not.

    `people` are names in lower case: whoever is called on is no subject.
    """
    found = ASKED_FOR.search(sentence.text)
    if found:
        rest = re.split(r"[.,:;?!]", sentence.text[found.end() :])[0]
        if len(rest.split()) > MOST_WORDS:
            return ""
        asked_for = [t for t in sentence.tokens if 0 <= t.start - found.end() < len(rest)]
        if len(asked_for) == 1 and asked_for[0].pos in ("VERB", "ADJ"):  # `Can I do paint?`
            return "" if asked_for[0].lemma in DULL | EVALUATIVE else asked_for[0].text
        return _noun_phrase(asked_for, people)
    tokens = [t for t in sentence.tokens if t.pos not in ("SPACE", "INTJ")]
    while tokens and (tokens[0].pos == "PUNCT" or _leads_in(tokens) or tokens[0].text.lower() in people):
        tokens = tokens[1:]
    until = next((i for i, t in enumerate(tokens) if t.text in (",", ".", "!", "?", ":")), len(tokens))
    behind = [t for t in tokens[until:] if t.pos != "PUNCT" and t.text.lower() not in people]
    tokens = [t for t in tokens[:until] if t.pos != "PUNCT"]
    if [t.lemma for t in _without_head(tokens)] in ANNOUNCING:  # `One more thing, the fuel.`
        tokens, behind = behind, []
    while tokens and TRAILS.match(tokens[-1].text):
        tokens = tokens[:-1]
    says_more = any(not TRAILS.match(t.text) for t in behind)
    only_nouns = all(t.pos in NOUNISH for t in tokens) or (len(tokens) == 1 and _is_doing(tokens[0]))
    return _noun_phrase(tokens, people) if len(tokens) <= MOST_WORDS and only_nouns and not says_more else ""


def _leads_in(tokens: list[Token]) -> bool:
    """Whether the first token only leads up to what comes; praise does only where it stands apart (`Good, the hedge`)."""
    praises = tokens[0].text.lower() in EVALUATIVE
    return bool(LEADS_IN.match(tokens[0].text)) and not (praises and len(tokens) > 1 and tokens[1].pos != "PUNCT")


def _is_doing(token: Token) -> bool:
    """A form such as `visiting`, which may name a subject by itself."""
    return token.text.lower().endswith("ing")


def _noun_phrase(tokens: list[Token], people: frozenset[str]) -> str:
    """The nouns of a short phrase with what belongs to them, without a leading article; empty without a noun."""
    tokens = _without_head(tokens)
    if [t.lemma for t in tokens[:2]] in ANNOUNCING:  # `One more thing the fuel`, where the recogniser put no comma
        tokens = _without_head(tokens[2:])
    inside = ("of", "and")
    cut = next(
        (i for i, t in enumerate(tokens) if t.pos in ("ADP", "SCONJ", "CCONJ") and t.lemma not in inside), len(tokens)
    )
    tokens = tokens[:cut]
    while tokens and (
        tokens[-1].pos in ("DET", "CCONJ", "PRON", "ADV", "ADP", "PART") or tokens[-1].text.lower() in people
    ):
        tokens = tokens[:-1]
    if not tokens or tokens[0].lemma.lower() in EVALUATIVE or not _owns_nouns(tokens):
        return ""
    last = tokens[-1]
    is_noun = last.pos in ("NOUN", "PROPN") or (len(tokens) == 1 and _is_doing(last))
    dull = len(last.text) < 3 or last.lemma.lower() in DULL or last.text.lower() in people or _is_day(last.text)
    return "" if dull or not is_noun else " ".join(t.text for t in tokens).replace(" 's", "'s").replace(" - ", "-")


def _without_head(tokens: list[Token]) -> list[Token]:
    """Tokens behind articles, numbers and the like, or `also that`."""
    first = next((i for i, t in enumerate(tokens) if t.pos not in HEADS and t.lemma != "also"), len(tokens))
    return tokens[first:]


def _is_day(word: str) -> bool:
    """`How about the twentieth?` asks for a day and names no subject."""
    return bool(re.fullmatch(rf"{ORDINAL_WORDS}|\w+day|\d+(?:st|nd|rd|th)?", word, re.I))


def _owns_nouns(tokens: list[Token]) -> bool:
    """Whether what stands behind each 's is a thing, as in `the head's report` and not in `the rack's forty`."""
    return all(t.text != "'s" or tokens[i + 1].pos in ("NOUN", "ADJ") for i, t in enumerate(tokens[:-1]))


OPENING_TITLE = "Opening"
AGAIN = ", again"  # behind the title of a chapter whose subject was on before
CLOSING_TITLES = (  # what a last chapter is called by how it begins
    (cue(r"\b(?:any other business|anything else)\b"), "Any other business"),
    (cue(r"\bnext (?:meeting|one|time|call)\b|\bsame time\b"), "Next meeting"),
    (cue(r"\b(?:bye|good night|thank you,? every|thanks,? (?:all|every))"), "Close"),
)
