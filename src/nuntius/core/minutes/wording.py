"""From spoken to written: fillers and false starts out, tasks in the infinitive, numbers in digits.

Nothing here changes a number's value, a name or a negation; `faithful` checks that and the callers fall
back to the plain quotation where it does not hold.
"""

import re

from nuntius.core.language.en import cues
from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.sentence import Sentence

_REPEAT = re.compile(r"\b(\w+(?:'\w+)?(?:\s+\w+(?:'\w+)?){0,3})(?:[,.…-]*\s+\1\b)+", re.I)
_NEGATION = re.compile(r"\b(?:no|not|never|nobody|none|nothing|without|neither|nor|cannot)\b|n't\b", re.I)
_TAG = re.compile(
    r",?\s+(?:isn't|aren't|wasn't|won't|doesn't|don't|can't|haven't|hasn't|shouldn't|wouldn't) (?:it|they|he|she|we|you|i|that)\?$",
    re.I,
)
_TASK_HEAD = re.compile(
    r"\b(?:i|we|you|he|she|they|it)(?:'ll| will|'m going to|'re going to|'m gonna| am going to| are going to| shall"
    r"| can| could|'ve got to| have to| need to|'d better| must| should| ought to| want to|'d)\s+(?:just |then |probably |also |all |now |definitely )?"
    r"|^(?:\w+,? )?let me\s+(?:just )?",
    re.I,
)
_REQUEST_HEAD = re.compile(
    r"\b(?:can|could|will|would) you\s+(?:please |just |possibly |perhaps |maybe )?|\bwould you mind\s+|\bdo you want to\s+|\bi(?:'d| would) like you to\s+|\bi need you to\s+|\bplease\s+",
    re.I,
)
_UNTAKEN_HEAD = re.compile(
    r"\b(?:some ?(?:body|one)|who)(?: else)?(?:'s|'ll|'d)?(?: is| has| should| needs| must| ought| will| would| can| could)?"
    r"(?: got| going| like| have| wants?)?(?: to)?\s+",
    re.I,
)
_WANTED = re.compile(  # `I'd like the sawmill done next week, then …`
    r"\bi(?:'d| would) (?:like|want) ((?:the |that |this |them|it)[\w ]{0,30}\b(?:done|finished|sent|gone|ready|fixed)\b[\w ]*)",
    re.I,
)
_CLEFT = re.compile(r"\bwhat (I|we)('ll| will| can| could|'d) do is (?:to )?", re.I)  # `What I'll do is ask them.`
_OFFER_HEAD = re.compile(
    r"\b(?:i (?:can|could|might be able to)|i(?:'m| am|'d be| would be) (?:\w+ )?(?:happy|glad) to|(?:shall|should) i|want me to|i'd)\s+",
    re.I,
)
_PROPOSED = re.compile(
    r"^(?:(?:i|i'd) (?:suggest|propose|move|say)(?: that)?(?: we)?|(?:the|my) (?:proposal|motion|suggestion) is (?:that we|to)|(?:shall|should|could|can) we|why don't we|let's|"
    r"(?:how|what) about(?: we)?|what if we|we(?:'ll| will| shall| could| should))\s+(?:just |then |all )?",
    re.I,
)
_PROPOSED_LATE = re.compile(
    r"[,;]\s+(?:so\s+|then\s+)?(?:shall|should|could|can) we\s+", re.I
)  # behind the reason for it
_ABOUT = re.compile(r"^(?:how|what) about\b", re.I)
_DOING = re.compile(r"I'm (\w+ing)\s+(.{4,})$")
_CALL = re.compile(
    r"[,.]?\s+(?:anybody|anyone|everybody|everyone|all) (?:against|happy|agreed|okay|opposed)\W*$|[,.]\s+agreed\W*\?\W*$",
    re.I,
)
_INSTEAD = re.compile(r"(?<=[a-z] )\b(we \w+ .{3,60}\binstead)\b", re.I)  # behind words that no full stop parts from it
_BACK = re.compile(
    r"[,;]?\s*\b(?:no bother|no problem|if (?:you like|that helps|i can)|or so|i think|i suppose|though|okay|ok|all right|(?<!that )(?<!it )(?<!it's )(?<!them )right)\W*$",
    re.I,
)
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
)


def clean(text: str) -> str:
    """A sentence without fillers, false starts and openings, with a capital and an end."""
    made = text.replace("’", "'")
    for _ in range(2):
        made = cues.FILLER.sub("", made)
        made = re.sub(r"\s+([,.?!])", r"\1", re.sub(r"\s{2,}", " ", made))
        made = re.sub(r"([,])\s*(?=[,.?!])", "", made)
    made = _REPEAT.sub(r"\1", made)
    made = cues.LEADING.sub("", made).strip(" ,;-…")
    made = in_digits(made)
    return framed(made)


def framed(text: str) -> str:
    """With a capital and an end."""
    if not text:
        return ""
    text = text[0].upper() + text[1:]
    return text if text[-1] in ".?!" else text + "."


def statement(text: str) -> str:
    """`clean`, with a tag question (`, won't they?`) turned into the statement it is."""
    made = _TAG.sub(".", clean(text))
    return made


def resolution(text: str) -> str:
    """A decision without the words that proposed it: `Let's fill it this week` gives `Fill it this week.`

    "" where a question is left that no such words lead in.
    """
    made = _CALL.sub(".", statement(text))
    if (instead := _INSTEAD.search(made)) is not None:
        made = framed(instead.group(1))
    match = _PROPOSED.match(made) or (_PROPOSED_LATE.search(made) if made.endswith("?") else None)
    rest = re.sub(r"^not\b", "do not", made[match.end() :].rstrip("?.! ")) if match else ""
    is_topic = bool(_ABOUT.match(made)) and not re.search(r"\d|day\b", rest)  # `What about the night watch?`
    if len(rest.split()) > 1 and not is_topic:
        return framed(rest)
    return "" if made.endswith("?") else made


def task(sentence: Sentence, requested: bool) -> str:
    """The task of a commitment or request in the infinitive, or "" where no verb follows the cue."""
    if (wanted := _WANTED.search(sentence.text)) is not None and requested:
        return framed(in_digits(f"Get {wanted.group(1)}"))
    text = _CLEFT.sub(r"\1\2 ", clean(sentence.text).rstrip(".?!"))
    heads = (_REQUEST_HEAD, _UNTAKEN_HEAD, _TASK_HEAD) if requested else (_TASK_HEAD, _REQUEST_HEAD)
    for head in heads:
        found = list(head.finditer(text))
        own = (match for match in found if re.match(r"(?:i|we)\b|let me\b", match.group(), re.I))
        match = next(own, found[0] if found else None)  # `Write it the way you'd want it and I'll sign it`
        if match and re.match(r"it\b", match.group(), re.I):
            return ""  # `It'll be in the post tonight` is no task that can be put in the infinitive
        if match and (rest := _trimmed(text[match.end() :])) and _is_done(sentence, rest):
            return framed(in_infinitive(sentence, rest))
    return ""


def _is_done(sentence: Sentence, task: str) -> bool:
    """Whether a task begins with what is done: `Could somebody from the office go down` leaves `from the office go down`."""
    first = task.split()[0].lower()
    token = next((t for t in sentence.tokens if t.text.lower() == first), None)
    return token is None or token.pos not in ("ADP", "DET", "PRON", "SCONJ", "CCONJ")


def offer(sentence: Sentence) -> str:
    """What somebody offers to do: `Shall I have a word?` gives `Have a word.`; "" where no verb follows."""
    text = clean(sentence.text).rstrip(".?!")
    match = _OFFER_HEAD.search(text)
    rest = _trimmed(text[match.end() :]) if match else ""
    return framed(in_infinitive(sentence, rest)) if rest else ""


def in_infinitive(sentence: Sentence, task: str) -> str:
    """A task that begins with another form of its verb, in the infinitive: `fills in the form` (who?) is `fill in the form`."""
    first, _, rest = task.partition(" ")
    if first == "be" and (
        doing := next((t for t in sentence.tokens if rest.startswith(t.text) and t.tag == "VBG"), None)
    ):
        return doing.lemma + rest[len(doing.text) :]
    second = rest.partition(" ")[0]
    if first == "have" and (done := next((t for t in sentence.tokens if t.text == second and t.tag == "VBN"), None)):
        return done.lemma + rest[len(second) :]  # `I'll have spoken to her by then`
    verb = next((t for t in sentence.tokens if t.text.lower() == first.lower() and t.tag == "VBZ"), None)
    return f"{verb.lemma} {rest}" if verb is not None and verb.lemma != first.lower() else task


def wished(text: str) -> str:
    """`Could somebody from the office go down?` as what is wanted: `Somebody from the office go down.`"""
    rest = re.sub(r"^(?:can|could|will|would) ", "", text.rstrip("?"), flags=re.I)
    return framed(rest) if text.endswith("?") else text


def doing(sentence: Sentence) -> str:
    """`I'm putting a sign on the door` as a task: `Put a sign on the door.`; "" for other words."""
    match = _DOING.match(clean(sentence.text))
    verb = next((t for t in sentence.tokens if match and t.text == match.group(1) and t.tag == "VBG"), None)
    if match is None or verb is None or verb.lemma in ("go", "be", "think", "wonder", "hope"):
        return ""
    return framed(f"{verb.lemma} {_trimmed(match.group(2)) or match.group(2)}")


def with_thing(text: str, thing: str) -> str:
    """`Draft something.` with what it is: `Draft half a page.`"""
    named = clean(thing).rstrip(".")
    if not named:
        return text
    return re.sub(r"\bsomething\b", lambda _: named[0].lower() + named[1:], text, count=1)


def order(text: str) -> str:
    """What somebody is told to do: `Milos, get it to them today, please.` gives `Get it to them today.`"""
    made = re.sub(r"^(?:[A-Z]\w+(?: [A-Z]\w+)?,\s+|please,?\s+|then\s+|just\s+)+", "", clean(text))
    return framed(re.sub(r",?\s+please\b", "", made).strip(" ,;.!"))


def _trimmed(text: str) -> str:
    text = re.sub(r"^(?:to|be able to|go and|try and|then)\s+", "", text.strip(), flags=re.I)
    text = re.sub(r"^(\w+)ing\b", lambda m: _infinitive(m.group(1)), text) if re.match(r"^\w{3,}ing\b", text) else text
    text = _BACK.sub("", text)
    text = re.sub(r"\s+(?=[,;])", "", re.sub(r"\bmyself\b\s*", "", text))
    return text.strip(" ,;") if len(text.split()) > 1 else ""


def _infinitive(stem: str) -> str:
    """`giv` (of giving) is give, `runn` is run; a rough rule for the few verbs after `would you mind`."""
    if len(stem) > 2 and stem[-1] == stem[-2] and stem[-1] not in "ls":
        return stem[:-1]
    return stem + "e" if re.search(r"(?:[^aeiou][aeiou][vckgsz]|at|iv|ak|rit|os)$", stem) else stem


def third_person(text: str, name: str) -> str:
    """First person singular turned into `name`, where no `I` is left then and the name does not stand there too often."""
    made = text
    for said, written in _FIRST_PERSON:
        made = re.sub(said, written.replace("{name}", name), made, count=1)
    made = re.sub(r"\bmyself\b", "themselves", made)
    return made if not re.search(r"\bI\b", made) and made.count(name) <= 2 else text


def faithful(line: str, quotation: str) -> bool:
    """Whether figures, negations and names of `line` all stand in `quotation` (already in digits)."""
    said = in_digits(quotation.replace("’", "'"))
    numbers = re.findall(r"\d[\d.,:]*\d|\d", line)
    if any(number not in said for number in numbers):
        return False
    return len(_NEGATION.findall(line)) <= len(_NEGATION.findall(said)) and bool(_NEGATION.search(line)) == bool(
        _NEGATION.search(said)
    )
