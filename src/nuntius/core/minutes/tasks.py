"""Tasks in the words in which they are minuted: in the infinitive, without day, asides and those who are called by name."""

import re
from collections.abc import Collection

from nuntius.core.language.en import cues, errands
from nuntius.core.language.en.names import first_name
from nuntius.core.language.en.numbers import in_digits
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.recast import recast
from nuntius.core.minutes.wording import clean, framed

LEAST_UNDATED = 3  # words that a task keeps when the day is taken off it
_DAY = re.compile(
    r"day\b|tomorrow|week(?:end)?\b|\bend of \w+|\d|\b(?:\w+th|first|second|third|\w+-first|\w+-second|\w+-third)\b",
    re.I,
)
_POSSESSIVE = re.compile(r"\b(?:my|your|his|her|our|their|[A-Z]\w+'s)$")  # `my Friday evening` is no day by which
_HANGS = re.compile(  # what is left before a day that was taken off
    r"(?:,?\s+(?:the|a|one|two|three) (?:week|day|night|evening|fortnight)s? (?:before|after|ahead|earlier)|"
    r",?\s+(?:so|by|before|until|till?|of|about|around|all)|\s+(?:(?:by|on|before|until|till?|for|in|at|from|of)\s+)?(?:the|a))+$",
    re.I,
)
_LEADS_ON = re.compile(  # words that do not stand without the day behind them
    r"\b(?:and|or|than|but|to|onto|into|with|is|are|be|from(?: the)?|and (?:one|two|half|the rest|the others?))$", re.I
)
_ASIDE = re.compile(
    r"(?:,\s+(?=(?:he|she|it|they|we|i|you|there|that|those|these|this)(?:'(?:s|ll|d|re|ve|m)\b|\s+(?!way\b|one\b|time\b|week\b|month\b|year\b)\w))|"
    r",\s+(?=give me (?:till?|until|a|an|one|two|three)\b)|"
    r",\s+and (?:then )?(?=(?:we|nobody|no one|everybody|everyone) \w)|"
    r"\s+[–-]\s+(?=(?:he|she|it|they|there|that)(?:'|\b))|,?\s+(?:and|but)(?: then)? (?=(?:he|she|it|they|that|you)(?:'s|'re|'ll|'ve| is| are| will| can| could| never)\b(?! have\b| get\b)))",
    re.I,
)  # another clause that only a comma parts from it
_ON_MY_WAY = re.compile(r"\bon my way\b", re.I)
_LATE = re.compile(
    r",?\s+(?:(?<!by )(?<!till )(?<!until )(?<!since )(?<!before )(?<!now and )then|really|though)$", re.I
)
_WISH = re.compile(
    r"^(?:like|have|want|be (?:very |only too )?(?:glad|happy|delighted)) to (?=\w)|^please (?!the\b|a\b)", re.I
)
_AND_I = re.compile(r",? and (then )?I(?:'ll|'d| will| would) ")
_AND_WE = re.compile(r",? and (?:then )?we(?:'ll| will) ")
_AND_MY_NEED = re.compile(r",? and I(?:'d)? (?:need|want)\b.*")
_GIVEN_TO = {"all": "everybody", "both": "both", "each": "everybody", "they": "them", "he": "him", "she": "her"}
_AND_YOU_HAVE = re.compile(r"\band you(?:'ll| will) have\b")
_STATES = frozenset(
    "be have need want think hope know mean like reckon expect wonder".split()
)  # verbs that are no task
_TASK_HEAD = re.compile(
    r"\b(?:i|we|you|he|she|they|it)(?:'ll| will|'m going to|'re going to|'m gonna| am going to| are going to| shall"
    r"| can| could|'ve (?:got )?to| have to| need to|'m supposed to| am supposed to|'d better| must| mustn't| should| ought to| want to|'d)\s+(?:just |then |probably |also |all |now |definitely )?"
    r"|^(?:\w+,? )?let me\s+(?:just )?|\b(?:for|on) me(?:,? then,?)? (?:is )?to\s+|\bmy (?:turn|(?:next )?(?:job|task|part))(?: (?:now )?is)? to\s+",
    re.I,
)
_REQUEST_HEAD = re.compile(
    r"\bwould you mind\s+|\b(?:can|could|will|would) you\s+(?:(?:two|both) (?=\w))?(?:please |just |possibly |perhaps |maybe )?|\bdo you want to\s+|\bi(?:'d| would) like you to\s+|\bi(?:'d| would)? (?:suggest|recommend)(?: that)? you\s+|\bi need you to\s+|\bi want you to\s+|\bif you could\s+(?:just )?|\bif you(?:'d| would)\s+|\b(?:ask|leave|trouble) you to\s+|\bit (?:to|with) you to\s+|\bhow about you\s+|\bwhy don't you\s+|\bplease\s+",
    re.I,
)
_UNTAKEN_HEAD = re.compile(
    r"\b(?:(?:some|any) ?(?:body|one)|(?:which )?(?:one )?of (?:you|us)|who)(?: else)?(?:'s|'ll|'d)?(?: is| has| should| needs| must| ought| will| would| can| could)?"
    r"(?: got| going| like| have| wants?)?(?: to)?\s+",
    re.I,
)
_WANTED = re.compile(  # `I'd like the sawmill done next week, then …`
    r"\bi(?:'d| would) (?:like|want) ((?:the |that |this |them|it)[\w ]{0,30}\b(?:done|finished|sent|gone|ready|fixed|settled|sorted)\b[\w ]*)",
    re.I,
)
_LETS_HAVE = re.compile(  # said of what the speaker will bring: `You'll have it on Friday`
    r"you(?:'ll| will| can)( all| both| each)? (?:have|get) (?=(?:it|them|both|one|that|those|this|these|all|everything|the|an?|my|mine|ours|some|two|three|\d+)\b)",
    re.I,
)
_YOU_HAVE = re.compile(
    r"((?:The|That|Those|My|Our) [\w ]{2,30}?) you(?:'ll| can| will) have\b"
)  # `The logo you can have today`
_OWES = re.compile(r"\bI (?:still )?owe you (?=(?:an?|the|some|that|two|three|\d+)\b)")
_CLEFT = re.compile(r"\bwhat (I|we)('ll| will| can| could|'d) do is (?:to )?", re.I)  # `What I'll do is ask them.`
_OFFER_HEAD = re.compile(
    r"\b(?:i was (?:going|planning|hoping) to|i (?:can|could|might be able to)|i(?:'m| am|'d be| would be) (?:\w+ )?(?:happy|glad) to|(?:shall|should) i|want me to|(?:how about|what if) i|i'd)\s+",
    re.I,
)
_DOING = re.compile(r"I'm (\w+ing)\s+(.{4,})$")
_BACK = re.compile(
    r"[,;]?\s*\b(?:no bother|no problem|if (?:that's (?:all right|okay|fine)(?: with (?:you|everybody|everyone))?|you like|that helps|i can)|or so|i think|i suppose|though|okay|ok|all right|(?<!that )(?<!it )(?<!it's )(?<!them )right)\W*$",
    re.I,
)

_GERUND = re.compile(
    r"^(?!(?:br|str|spr|sw|cl|sl|fl|st|wr|th|s|r|k)ing\b)(\w{2,})ing\b"
)  # `would you mind ringing`, but `bring`
_PLEASE = re.compile(r",? please\W*$", re.I)


def task(sentence: Sentence, requested: bool) -> str:
    """The task of a commitment or request in the infinitive, or "" where no verb follows the cue."""
    if (wanted := _WANTED.search(sentence.text)) is not None and requested:
        return framed(in_digits(f"Get {wanted.group(1)}").replace(" to be ", " "))
    if (left := errands.LEAVE_TO_ME.search(sentence.text)) is not None and not requested:
        return framed(f"See to {left.group('thing')}")
    if (down := errands.PUT_ME_DOWN.match(sentence.text)) is not None and not requested:
        return framed(f"Take {down['thing']}")
    if (given := errands.FROM_ME.search(sentence.text)) is not None and not requested:
        whom = given["whom"].lower()
        return framed(
            f"Let {_GIVEN_TO.get(whom, whom)} have {given['thing']}{sentence.text[given.end() :].rstrip('.!')}"
        )
    if errands.HEAR_FROM_ME.search(sentence.lower) and not requested:
        return "Let you know."
    if errands.YOU_FIND.search(sentence.lower):
        return ""
    if (fronted := _YOU_HAVE.match(sentence.text)) is not None and not requested:
        return framed(f"Let you have {fronted.group(1)[0].lower()}{fronted.group(1)[1:]}")
    text = _OWES.sub("I'll give you ", _CLEFT.sub(r"\1\2 ", _PLEASE.sub("", clean(sentence.text).rstrip(".?!"))))
    heads = (_REQUEST_HEAD, _UNTAKEN_HEAD, _TASK_HEAD) if requested else (_TASK_HEAD, _REQUEST_HEAD)
    for head in heads:
        found = list(head.finditer(text))
        own = (match for match in found if re.match(r"(?:i|we)\b|let me\b", match.group(), re.I))
        match = next(own, found[0] if found else None)  # `Write it the way you'd want it and I'll sign it`
        if match and re.match(r"it\b", match.group(), re.I):
            return ""  # `It'll be in the post tonight` is no task that can be put in the infinitive
        if match and (given := _LETS_HAVE.match(text[match.start() :])):
            had = re.sub(r" from me\b", "", text[match.start() + given.end() :])
            return framed(f"Let {_GIVEN_TO.get((given.group(1) or '').strip(), 'you')} have {had}")
        rest = _trimmed(text[match.end() :]) if match else ""
        if rest.split(" ")[0].lower() in _STATES and (own_doing := doing(sentence)):
            return own_doing  # `I'm taking the papers in on Wednesday, and they'll want your figures`
        if rest and _is_done(sentence, rest):
            return framed(in_infinitive(sentence, rest))
    return ""


def _is_done(sentence: Sentence, task: str) -> bool:
    """Whether a task begins with what is done: `Could somebody from the office go down` leaves `from the office go down`."""
    first = task.split()[0].lower()
    token = next((t for t in sentence.tokens if t.text.lower() == first), None)
    return token is None or token.pos not in ("ADP", "DET", "PRON", "SCONJ", "CCONJ")


def taken_on_then(sentence: Sentence) -> str:
    """`Then I scan it, first thing.` gives `Scan it, first thing.`; "" where nothing is taken on so."""
    match = cues.THEN_I.match(sentence.text)
    return framed(clean(sentence.text[match.start("verb") :]).rstrip(".")) if match else ""


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
    if verb is None or verb.lemma == first.lower():
        return task
    for also in (t for t in sentence.tokens if t.tag == "VBZ"):
        rest = re.sub(rf"\band {re.escape(also.text)}\b", f"and {also.lemma}", rest)  # `who goes round and asks them`
    return f"{verb.lemma} {rest}"


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
    made = re.sub(
        r"^(?:[A-Z]\w+(?: [A-Z]\w+)?,\s+|please,?\s+|then\s+|just\s+|(?:[Ww]ould|[Cc]ould|[Cc]an|[Ww]ill) you (?=\w))+",
        "",
        clean(text),
    ).rstrip("?")
    return framed(re.sub(r",?\s+please\b", "", made).strip(" ,;.!"))


def _trimmed(text: str) -> str:
    text = re.sub(
        r"^(?:to|remember to|forget to|not forget to|be able to|have to|need to|(?:go|try) and(?= \w+ \w)|then)\s+",
        "",
        text.strip(),
        flags=re.I,
    )
    text = _GERUND.sub(lambda m: _infinitive(m.group(1)), text)
    text = _BACK.sub("", text)
    text = re.sub(r"\s+(?=[,;])", "", re.sub(r"(?<!put )\bmyself\b\s*", "", text))
    return text.strip(" ,;") if len(text.split()) > 1 else ""


def _infinitive(stem: str) -> str:
    """`giv` (of giving) is give, `runn` is run; a rough rule for the few verbs after `would you mind`."""
    if len(stem) > 2 and stem[-1] == stem[-2] and stem[-1] not in "ls":
        return stem[:-1]
    return stem + "e" if re.search(r"(?:[^aeiou][aeiou][vckgsz]|at|iv|ak|rit|os)$", stem) else stem


def finished(text: str, sentence: Sentence, owner: Collection[str], names: Collection[str]) -> str:
    """A task of `owner` that was made from a sentence, with the forms of talk turned into those of minutes.

    `names` are the first names and surnames of all who are known, in small letters.
    """
    text = _ON_MY_WAY.sub("on the way", without_aside(text))
    text = framed(cues.AND_IF.split(text)[0].rstrip("."))
    if sentence.speaker not in owner:
        text = without_you(text)
    elif cues.IF_FIRST.search(sentence.lower):
        text = under_condition(text, sentence.text)
    text = impersonal(text, sentence, [first_name(name) for name in owner if name])
    return recast(without_calls(text, names), sentence)


def impersonal(text: str, sentence: Sentence, owner: Collection[str]) -> str:
    """`I'm sending the lot`, `Ravi sees their chairman`, said of whoever owns it: `Send the lot`, `See their chairman`."""
    whom = "|".join(["I", *map(re.escape, owner)])
    rest = _AND_YOU_HAVE.sub("and let you have", _AND_MY_NEED.sub("", _WISH.sub("", text)))
    rest = _AND_I.sub(lambda match: f" and {match.group(1) or ''}", rest)
    if first_name(sentence.speaker) in owner:
        rest = _AND_WE.sub(" and ", rest)
    match = re.match(
        rf"(?:(?:today|tonight|tomorrow),? )?(?:{whom})(?:'m|'s| am| is)? (?:going to )?(?:just |then |also )?(\w+) ",
        rest,
    )
    verb = next((t for t in sentence.tokens if match and t.text == match.group(1)), None)
    if match is not None and verb is not None and _is_told(verb.tag, rest[: match.start(1)]):
        rest = rest if verb.lemma in _STATES else verb.lemma + rest[match.end(1) :]
    return framed(rest.replace("?", "."))


def _is_told(tag: str, before: str) -> bool:
    """Whether a verb behind its subject tells what is done now or next: `I'm sending`, `I send`, `I'm going to send`."""
    is_ahead = before.endswith("going to ")
    is_now = bool(re.search(r"(?:'m|'s| am| is) $", before))
    return (tag == "VB" and is_ahead) or (tag == "VBG" and is_now) or (tag in ("VBP", "VBZ") and not is_now)


def without_calls(text: str, names: Collection[str]) -> str:
    """`Order them, Ife.`, `Book the coach, then.`: without whoever is called by name and what only rounds off."""

    def uncalled(pattern: str, instead: str, said: str) -> str:
        return re.sub(pattern, lambda match: instead if match.group(1).lower() in names else match.group(), said)

    rest = uncalled(r",\s+([A-Z]\w+),\s+", " ", text.rstrip(".!"))
    for _ in range(2):
        rest = _LATE.sub("", uncalled(r",\s+([A-Z]\w+)$", "", rest))
    rest = uncalled(r"^([A-Z]\w+),\s+", "", rest)
    return framed(rest) if rest != text.rstrip(".!") and len(rest.split()) > 1 else text


def without_aside(text: str) -> str:
    """A task without what is told of it behind a comma: `Get old Pratt, he owes me a marrow.` gives `Get old Pratt.`"""
    head = _ASIDE.split(text, maxsplit=1)[0]
    return framed(head.rstrip(" ,.")) if head != text and len(head.split()) > 1 else text


def undated(text: str, said: str) -> str:
    """A task without the day at its end, which stands beside it: `Ask her by Thursday.` gives `Ask her.`"""
    match = re.search(rf",?\s+(on |by |before |until |till? |for )?{re.escape(said)}\W*$", text, re.I)
    if match is None or (match.group(1) is None and _POSSESSIVE.search(text[: match.start()])):
        return text
    rest = text[: match.start()]
    leads_on = _LEADS_ON.search(rest)
    rest = _HANGS.sub("", rest)
    rest = rest.rstrip(" ,")
    whole = len(rest.split()) >= LEAST_UNDATED and not (leads_on or _LEADS_ON.search(rest))
    return framed(rest) if rest != text.rstrip(" ,") and whole and _DAY.search(said) else text


def without_you(text: str) -> str:
    """`You write to them.`, said to whoever is to do it: `Write to them.`; so is `Get it and you put it on`."""
    text = re.sub(
        r"\band you (?!know|have|see|think|get|want|need|can|could)(?=\w+ (?:it|them|that|those|me|the|an?)\b)",
        "and ",
        text,
    )
    rest = re.sub(
        r"^(?:(?:first thing )?(?:tomorrow|today|tonight|on \w+day),? )?you(?:'ll| will| can| could| should|'d better)? (?=\w+ \w)",
        "",
        text,
        flags=re.I,
    )
    return rest[0].upper() + rest[1:]


def under_condition(text: str, sentence: str) -> str:
    """A task with the condition that stands ahead of it in its sentence: `Stay as well, if it's time and a half.`"""
    match = cues.IF_I.match(clean(sentence))
    return framed(f"{text.rstrip('.')}, {match.group(1)[0].lower()}{match.group(1)[1:]}") if match else text


def own_part(sentence: str) -> str:
    """The speaker's own part behind what another is to do: `Raise it today and I'll sign it.` gives `Sign it.`; else empty."""
    match = cues.AND_I.search(clean(sentence)) or cues.IF_I.match(clean(sentence))
    rest = _trimmed(clean(sentence)[match.end() :].rstrip(".")) if match else ""
    return framed(rest) if rest else ""


def until_own(text: str) -> str:
    """What another is to do, without the speaker's own part: `Raise it today and I'll sign it.` gives `Raise it today.`"""
    return framed(cues.AND_I.split(text)[0].strip(" ,.;"))
