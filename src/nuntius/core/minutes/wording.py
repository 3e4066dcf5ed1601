"""From spoken to written: fillers and false starts out, decisions without the words that proposed them, numbers in digits.

Nothing here changes a number's value, a name or a negation; `faithful` checks that and the callers fall
back to the plain quotation where it does not hold.
"""

import re

from nuntius.core.language.en import cues
from nuntius.core.language.en.numbers import TENS, UNITS, in_digits

_NUMBER = "|".join([*UNITS, *TENS])  # `three three` is an amount, and no false start
_REPEAT = re.compile(rf"\b((?!(?:{_NUMBER})\b)\w+(?:'\w+)?(?:\s+\w+(?:'\w+)?){{0,3}})(?:[,.…-]*\s+\1\b(?!'))+", re.I)
_EDGE = re.compile(
    r"^[\s,.;…-]+(?![\s,.;…\d-])"
)  # ahead of the first word; what stands ahead of a figure belongs to it
_NEGATION = re.compile(r"\b(?:no|not|never|nobody|none|nothing|without|neither|nor|cannot)\b|n't\b", re.I)
_TAG = re.compile(
    r",?\s+(?:isn't|aren't|wasn't|won't|doesn't|don't|can't|haven't|hasn't|shouldn't|wouldn't) (?:it|they|he|she|we|you|i|that)\?$",
    re.I,
)
_PROPOSED = re.compile(
    r"^(?:(?:i|i'd) (?:suggest|propose|move|say)(?: that)?(?: we)?|(?:the|my) (?:proposal|motion|suggestion) is (?:that we|to)|(?:shall|should|could|can) we|why don't we|let's|"
    r"(?:how|what) about(?! this:)(?: we)?|what if we|we(?:'ll| will| shall| could| should))\s+(?:just |then |all )?|"
    r"^what (?:i|we)(?:'d|'m| would| am| could| can)? (?:suggest|propose|like|say|do|hear|hearing|want)(?: to (?:do|say))?(?:, [^,]{3,40},)? is,? (?:that )?(?:we (?!don't|won't|can't))?|"
    r"^(?:how about this|(?:(?:my|the|our) )?(?:proposal|motion|suggestion|advice)|that's what goes (?:\w+ ){1,3}\w+): ",
    re.I,
)
_PROPOSED_LATE = re.compile(
    r"[,;]\s+(?:so\s+|then\s+)?(?:shall|should|could|can) we\s+", re.I
)  # behind the reason for it
_PUT_AS_ASKED = re.compile(
    r"^we (?!are\b|were\b|have\b|had\b|can\b)\w+ (?!\w+ed\b).*\w\?$", re.I
)  # `So we leave it a fortnight?`
_ABOUT = re.compile(r"^(?:how|what) about\b(?! we\b| this:)", re.I)
_CALL = re.compile(
    r"[,.]?\s+(?:anybody|anyone|everybody|everyone|all) (?:against|happy|agreed|okay|opposed)\W*$|[,.]\s+agreed\W*\?\W*$",
    re.I,
)
_AND_THAT = re.compile(
    r"(,? and )that (?=we\b)", re.I
)  # of a motion: `that it is repaired, and that we borrow the rest`
_SPOKEN = re.compile(  # `No towel rails, then.`, `Oak, yes.`
    r"(?<=\w), (?:then|yes|yeah|yep|okay|good|fine|right)(?=[.!]?(?:$| \[| – ))|,? please(?=[.!]?(?:$| \[))", re.I
)
_PLEASE = re.compile(r"^please,? (?=\w)", re.I)
_THINKING = re.compile(r", I (?:think|suppose|guess)(?=,)|, I'm afraid(?=[.,!]|$)")
_AGREE = re.compile(r"^Agree (?:that )?(?=(?:nobody|no one|every|all|we|the|from)\b)")  # of `Can we agree nobody …?`
_INSTEAD = re.compile(r"(?<=[a-z] )\b(we \w+ .{3,60}\binstead)\b", re.I)  # behind words that no full stop parts from it
OWN = re.compile(r"\b(?:I|[Mm]e|[Mm]y|[Mm]ine|[Mm]yself)\b")  # first person singular
_FIRST_PERSON = (  # what is said, and how it is written of somebody
    (r"\bI'm\b", "{name} is"),
    (r"\bI am\b", "{name} is"),
    (r"\bI've\b", "{name} has"),
    (r"\bI have\b", "{name} has"),
    (r"\bI'll\b", "{name} will"),
    (
        r"\bI(?= (?:will|can|can't|could|would|should|might|must|was|wasn't|did|didn't|had|hadn't|(?!need)\w+ed|ran|rang|thought|said|went|got|saw|wanted|made|put|took|found|counted)\b)",
        "{name}",
    ),
    (
        r"\bI'd\b(?= (?:been|had|got|said|told|made|left|lost|heard|met|paid|sent|done|gone|seen|(?!need)\w+ed|\w{3,}(?:en|wn|ught))\b)",
        "{name} had",
    ),
    (r"\bI'd\b", "{name} would"),
    (r"\bI don't\b", "{name} does not"),
    (
        r"\bI (?=(?:need|want|think|reckon|expect|hope|know|see|say|mean|get|like|prefer|suggest|propose|agree|believe|deliver|open|come|leave|forget|lose|remember|find|tell|ring|ask|send|move|order|draw|use|drive|work|start)\b)(\w+)",
        r"{name} \1s",
    ),
    (r"\b[Mm]y\b", "{name}'s"),
    (r"\bmyself\b", "{name}"),
)


def clean(text: str) -> str:
    """A sentence without fillers, false starts and openings, with a capital and an end."""
    made = text.replace("’", "'")
    for _ in range(2):
        made = cues.FILLER.sub("", made)
        made = re.sub(r"\s+([,.?!])", r"\1", re.sub(r"\s{2,}", " ", made))
        made = re.sub(r"([,])\s*(?=[,.?!])", "", made)
    made = _REPEAT.sub(r"\1", made)
    made = _EDGE.sub("", cues.LEADING.sub("", _EDGE.sub("", made))).rstrip(" ,;-…")
    made = in_digits(made)
    return framed(made)


def framed(text: str) -> str:
    """With a capital and an end."""
    if not text:
        return ""
    text = text[0].upper() + text[1:]
    return text if re.search(r"[.?!][\"”’)]?$", text) else text + "."


def statement(text: str) -> str:
    """`clean`, with a tag question (`, won't they?`) turned into the statement it is."""
    made = _TAG.sub(".", clean(text))
    return made


def resolution(text: str) -> str:
    """A decision without the words that proposed it: `Let's fill it this week` gives `Fill it this week.`

    "" where a question is left that no such words lead in.
    """
    made = _THINKING.sub("", _AND_THAT.sub(r"\1", _CALL.sub(".", statement(text))))
    if (instead := _INSTEAD.search(made)) is not None:
        made = framed(instead.group(1))
    match = _PROPOSED.match(made) or (_PROPOSED_LATE.search(made) if made.endswith("?") else None)
    rest = re.sub(r"^not\b", "do not", made[match.end() :].rstrip("?.! ")) if match else ""
    is_topic = bool(_ABOUT.match(made)) and not re.search(
        r"\d|day\b|\b(?:two|three|four|five|six|seven|eight|nine)\b", rest
    )  # `What about the night watch?`
    if len(rest.split()) > 1 and not is_topic:
        return framed(_AGREE.sub("", framed(rest)))
    if _PUT_AS_ASKED.match(made):
        return framed(made.rstrip("? "))
    return "" if made.endswith("?") else made


def ruled(text: str) -> str:
    """A decision without what it only has in speech: `No towel rails, then.` gives `No towel rails.`"""
    return framed(_PLEASE.sub("", _SPOKEN.sub("", text)))


def third_person(text: str, name: str) -> str:
    """First person singular turned into `name`; the text as it is where it stands there more than once, or stays."""
    if len(OWN.findall(text)) > 1:
        return text
    made = text
    for said, written in _FIRST_PERSON:
        made = re.sub(said, written.replace("{name}", name), made, count=1)
    return text if OWN.search(made) else made


def faithful(line: str, quotation: str) -> bool:
    """Whether figures, negations and names of `line` all stand in `quotation` (already in digits)."""
    said = in_digits(quotation.replace("’", "'"))
    numbers = re.findall(r"\d[\d.,:]*\d|\d", line)
    if any(number not in said for number in numbers):
        return False
    return len(_NEGATION.findall(line)) <= len(_NEGATION.findall(said)) and bool(_NEGATION.search(line)) == bool(
        _NEGATION.search(said)
    )
