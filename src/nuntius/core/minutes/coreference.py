"""What `it` and `them` in a task stand for, put beside them in square brackets."""

import re

from nuntius.core.language.en import cues
from nuntius.core.language.en.names import TITLE, first_name, is_label
from nuntius.core.language.en.nouns import MAN, PERSON, TITLE_OF_MAN, TITLE_OF_WOMAN, VAGUE, WOMAN
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.minutes import wording
from nuntius.core.minutes.context import LEAST_ANSWERING, referred
from nuntius.core.minutes.scene import Scene

_GIVING = r"\b(send|give|text|mail|e-?mail|ring|call|bring|show|tell|let|get|drop|pass|lend|copy|write|remind|add)"
TO_YOU = re.compile(
    r"^(\w+(?: (?:back|in|up|out))?) you\b(?! (?:all|both|two|can|could|will|would|want|need|are|have|think|like|know|do|might|should)\b)|"
    rf"{_GIVING} you\b(?! all\b| both\b)",
    re.I,
)
_WITH_YOU = re.compile(
    r"\b(to|for|with|from) you\b(?! (?:all|both|two|can|could|will|would|want|need|are|have|think|like|know|do)\b)"
)
YOUR = re.compile(r"\byour\b(?! own\b)")
UNTOLD = re.compile(
    r"\b(?:it(?! is\b|'s (?:on |the )?(?:\w+day\b|\d|not\b|all right|okay|fine|time\b))|them|that|those|these|this|(?<!next )one|ones|some|any(?! more\b)|him|her|they|both|do so)\b",
    re.I,
)
_SAYS_NO_THING = re.compile(
    r"^if\b|n't\b|\b(?:not|no|told|asked)\b|'ve got an?\b|\b(?:have|has|had) an?\b"
)  # of what is then done
_EXPLAINED = re.compile(r"\[[^\]]* ")
_DONE_TO_IT = re.compile(r"^\w+(?: \[?\w+\]?)? (it|that|this|them|those|these)\b", re.I)
HAZY = frozenset(
    "way look go word shout call note idea hand chance try bit thing touch copy ring second third first".split()
)
_LIGHT = frozenset(
    "be have do get go make take put let say come want need think know ring ask tell send okay fine one".split()
)
_REMARK = re.compile(
    r"^\W*(?:(?:and|but|so|well|oh|no|yes),? )?that(?:'s| is| was|'d be| would be) (?!the |where |why |what )", re.I
)
_ASIDE = re.compile(r"^\W*don't (?:look at|ask) me\b", re.I)
_DOING_IT = re.compile(r"Do (?:it|that)\b(.*?)\W*")
_ASKED_WHETHER = re.compile(  # a question whether something is done, or a request
    r"\b(?:do|should|shall|can|could|would|will|can't|couldn't) (?:we|you|some ?(?:body|one)|any ?(?:body|one)) (?:please |just |not |possibly )?(\w+ .{3,}?)(?:,? or (?:not|what))?(?:,? (?:then|please))?\?$",
    re.I,
)
_OF_US = re.compile(r"\b(?:i|my|you|your|our|us)\b", re.I)  # who is another where it is said by another
_CALLED = re.compile(r", [A-Z]\w+,? ")
_EITHER = re.compile(r"\bor (?!not\b|what\b|so\b)")
_ASKS_HOW = re.compile(r"\b(?:how|why|what|where|which)\W*$", re.I)  # and so for no deed: `How do you feel about it?`
_NOT_DONE = frozenset("be have know think say mean want like need see hear agree live mind start begin go come".split())
HIM = re.compile(r"\b(?:him|he)\b", re.I)
HER = re.compile(r"\b(?:her|she)\b", re.I)
TO_ME = re.compile(
    rf"{_GIVING} me\b|^\w+ me(?= (?:the|an?|some|one|two|three|all|both|\d+)\b)|\b(?:for|with|to) me\b", re.I
)
CLEAR_ENOUGH = 9  # words of a task that needs nothing made clear
LEAST_TELLING = 4  # words of a sentence that tells what `it` is
TELLS_ITSELF = 10  # words of a sentence that says itself what its `it` is
BACK = 6  # turns before a task in which such a sentence is looked for
SURELY_MEANT = 1.2  # logit by which what is referred to is likelier than the next; below it is wrong four times in ten
SURE_ENOUGH = 2.0  # the same where the words name something themselves; below it is wrong one time in three
FAR_BACK = 8  # the same of one that has a word in common with it
ASKED_BACK = 2  # the same of a question that it answers
MOST_BARE = 4  # words of a mere name
LONGEST_REMARK = 7  # words of a mere remark on what was said: `That's my whole family, then.`
MOST_SHOWN = 14  # words of it that are shown


def made_clear(scene: Scene, sentence: Sentence, text: str) -> str:
    """Adds in square brackets what `it` or `them` stands for, where the sentence before names just one such thing,
    and puts a name in place of `you`: `Send [Ines] the list.`"""
    text = to_whom(scene, sentence, text)
    match = re.search(r"\b(it|them)\b(?!')", text, re.I)
    if match is None or len(text.split()) > CLEAR_ENOUGH:
        return text
    thing = _antecedent(scene, sentence, plural=match.group().lower() == "them")
    return f"{text[: match.end()]} [{thing}]{text[match.end() :]}" if thing else text


def to_whom(scene: Scene, sentence: Sentence, text: str) -> str:
    """`me` is whoever speaks; `you` is whoever the sentence calls by name, else who spoke right before."""
    text = to_speaker(sentence, text)
    before = [scene.speaker(t) for t in scene.preceding(sentence.turn, 2) if scene.speaker(t) != sentence.speaker]
    name = scene.roster.addressee(sentence.text) or next(iter(before), "")
    if not name or is_label(name):
        return text
    made = TO_YOU.sub(lambda match: f"{match.group(1) or match.group(2)} [{first_name(name)}]", text, count=1)
    made = _WITH_YOU.sub(lambda match: f"{match.group(1)} [{first_name(name)}]", made, count=1)
    return YOUR.sub(f"[{first_name(name)}'s]", made, count=1)


def to_speaker(sentence: Sentence, text: str) -> str:
    """`Send me the list` with the name of whoever says so."""
    if is_label(sentence.speaker):
        return text
    return TO_ME.sub(lambda match: f"{match.group()[:-2]}[{first_name(sentence.speaker)}]", text, count=1)


def _antecedent(scene: Scene, sentence: Sentence, plural: bool) -> str:
    """The one thing that the sentence before is about: its object, or what a passive speaks of; "" where unsure."""
    number = scene.index[sentence.turn, sentence.first] - 1
    if number < 0 or scene.sentences[number].turn < sentence.turn - 1:
        return ""
    before = scene.sentences[number]
    if _SAYS_NO_THING.search(before.lower):
        return ""
    things = [t for t in before.tokens if t.pos == "NOUN" and t.dep in ("dobj", "nsubjpass") and len(t.text) > 3]
    things = [t for t in things if (t.tag == "NNS") == plural]
    return _phrase(before, things[0].text, things[0].start) if len(things) == 1 else ""


def _phrase(sentence: Sentence, noun: str, start: int) -> str:
    """A noun with the article and adjectives right before it."""
    index = next(i for i, token in enumerate(sentence.tokens) if token.start == start)
    first = index
    while first > 0 and sentence.tokens[first - 1].pos in ("ADJ", "NOUN", "PROPN", "NUM"):
        first -= 1
    words = [token.text for token in sentence.tokens[first : index + 1]]
    return "the " + " ".join(words)


def is_untold(scene: Scene, sentence: Sentence, text: str) -> bool:
    """Whether words made from a sentence refer to something that they do not name: `Chase them.`, `Ask him on Friday.`"""
    own = set(re.findall(r"[\w'-]+", text.lower()))
    own -= {part.lower() for person in scene.roster.people for part in person.split()}
    named = [t for t in sentence.tokens if t.text.lower() in own]
    says_nothing = len(text.split()) <= LEAST_TELLING or bool(UNTOLD.search(text))
    return says_nothing and not any(map(_tells, named)) and not is_explained(text)


def is_explained(text: str) -> bool:
    """Whether words stand in brackets behind what they make clear, and not only a name in place of `you`."""
    return bool(_EXPLAINED.search(text))


def _tells(token: Token) -> bool:
    """Whether a noun names a thing, and not a time or the way in which something is done."""
    if token.pos not in ("NOUN", "PROPN") or cues.TIME_NOUN.fullmatch(token.lemma):
        return False
    return token.lemma.lower() not in HAZY and not cues.DAY_OR_MONTH.fullmatch(token.text)


def with_reference(scene: Scene, sentence: Sentence, text: str) -> tuple[str, Sentence | None]:
    """Words that refer to something unnamed with the sentence that says what, and that sentence; else as they are."""
    if _DOING_IT.fullmatch(text) and (asked := _asked_before(scene, sentence)) is not None:
        return beside(text, asked), asked
    if not is_untold(scene, sentence, text):
        return _sure_of(scene, sentence, text)
    words = re.findall(r"[a-z']{4,}", text.lower())
    elsewhere = sum(word in sentence.lower for word in words) * 2 < len(words)  # `I need the list.` `I'll do that.`
    if elsewhere and any(map(_tells, sentence.tokens)):
        about: Sentence | None = sentence
    else:
        about = spoken_of(scene, sentence, text) if UNTOLD.search(text) else _taken_up(scene, sentence)
    if about is None or (about is sentence and not elsewhere):
        return text, None
    return beside(text, about), about


def _sure_of(scene: Scene, sentence: Sentence, text: str) -> tuple[str, Sentence | None]:
    """`Put that in the checklist`, which names something: what is put there stands beside it only where it is sure."""
    done_to = _DONE_TO_IT.match(text) if not is_explained(text) else None
    stands_alone = done_to and any(t.text.lower() == done_to[1].lower() and t.dep != "det" for t in sentence.tokens)
    near = likeliest_first(scene, sentence)[:1] if stands_alone and len(text.split()) <= CLEAR_ENOUGH else []
    if not near or sureness(scene, sentence, near[0]) < SURE_ENOUGH:
        return text, None
    return beside(text, near[0]), near[0]


def beside(text: str, about: Sentence) -> str:
    """Words with the sentence that says what they refer to behind them: `Ask him [My uncle has the drawing].`

    A mere name takes the place of `it`: `The grant claim?` `It goes in on Thursday.`; what was asked takes that of
    `do it`: `Do we write to the shops?` `I'll do that.`
    """
    done, asked = _DOING_IT.fullmatch(text), _asks_for(about)
    if done and asked and not _OF_US.search(asked.group(1)):
        words = to_speaker(about, _CALLED.sub(" ", asked.group(1)))
        return wording.framed(shortened(words) + done.group(1))
    bare = len(about.text.split()) <= MOST_BARE and not any(t.pos in ("VERB", "AUX") for t in about.tokens)
    if bare and re.match(r"It(?:'s)? (?!is\b)", text):
        return text.replace("It", wording.clean(about.text).rstrip(".?!"), 1)
    return f"{text.rstrip('.!')} [{shortened(wording.statement(about.text))}]."


def _asked_before(scene: Scene, sentence: Sentence) -> Sentence | None:
    """The question, in the turns right before, whether something is done that is done then."""
    near = (s for turn in scene.preceding(sentence.turn, ASKED_BACK) for s in reversed(scene.by_turn[turn]))
    return next((s for s in near if _asks_for(s)), None)


def _asks_for(sentence: Sentence) -> re.Match[str] | None:
    """Where a sentence asks whether something is done, or for it to be done."""
    match = _ASKED_WHETHER.search(sentence.text)
    first = match.group(1).split()[0].lower() if match else ""
    done = any(t.text.lower() == first and t.tag == "VB" and t.lemma not in _NOT_DONE for t in sentence.tokens)
    return match if match and done and not _ASKS_HOW.search(sentence.text[: match.start()]) else None


def spoken_of(scene: Scene, sentence: Sentence, text: str) -> Sentence | None:
    """The sentence up to this one that says what is spoken of: what a bare `I'll do it` or `Thirteen, then` refers to.

    It is the likeliest to a network that has learnt what is referred to: of those that name somebody, where the words made
    from the sentence say `him` or `her`, of all where they say `it`; and else, if there is one, that of which they take up a
    word or which asked for them.
    """
    if len(sentence.text.split()) >= TELLS_ITSELF and any(t.pos == "NOUN" for t in sentence.tokens):
        return sentence
    near = likeliest_first(scene, sentence)
    likeliest = next(iter(near), None)
    if HIM.search(text) or HER.search(text):
        return next((s for s in near if any(_may_mean(scene, s, t, text) for t in s.tokens)), likeliest)
    refers = UNTOLD.search(text) and not text.startswith("It's ")  # `It's the ninth` takes up `the second or the ninth`
    return likeliest if refers else _taken_up(scene, sentence) or likeliest


def likeliest_first(scene: Scene, sentence: Sentence) -> list[Sentence]:
    """The sentences close before one, first that which the network takes to say what this one refers to."""
    near = [s for s in telling(scene, sentence) if sentence.turn - s.turn <= BACK]
    logits = referred(scene, sentence) if near else {}
    return sorted(near, key=lambda s: -logits.get(scene.index[s.turn, s.first], LEAST_ANSWERING))


def sureness(scene: Scene, sentence: Sentence, about: Sentence) -> float:
    """The logit by which a sentence is likelier than any other to say what this one refers to; less than 0 if another is."""
    logits = referred(scene, sentence)
    own = scene.index[about.turn, about.first]
    others = (scene.index[s.turn, s.first] for s in telling(scene, sentence) if s is not about)
    return logits.get(own, LEAST_ANSWERING) - max(
        (logits.get(each, LEAST_ANSWERING) for each in others), default=LEAST_ANSWERING
    )


def _taken_up(scene: Scene, sentence: Sentence) -> Sentence | None:
    """The nearest sentence with a word of `Thirteen, then` or `Electric it is`, or the question right before it."""
    near = telling(scene, sentence)
    own = weighty(sentence)
    alike = next((s for s in near if own & weighty(s)), None)
    asked = (s for s in near if s.is_question and 0 < sentence.turn - s.turn <= ASKED_BACK)
    return alike or next(asked, None)


def chosen_from(scene: Scene, sentence: Sentence) -> Sentence | None:
    """The question right before that offers what few words take: `Should I order the oak or the pine?` of `Oak, then.`"""
    own = weighty(sentence)
    asked = (s for s in telling(scene, sentence) if s.is_question and sentence.turn - s.turn <= BACK)
    return next((s for s in asked if _EITHER.search(s.lower) and own & weighty(s)), None)


def telling(scene: Scene, sentence: Sentence) -> list[Sentence]:
    """The sentences before one that name a thing, the nearest first."""
    near = [s for turn in range(max(0, sentence.turn - FAR_BACK), sentence.turn + 1) for s in scene.by_turn[turn]]
    return [
        before
        for before in reversed(near)
        if (before.turn, before.first) < (sentence.turn, sentence.first)
        and any(_tells(t) and t.text.lower() not in scene.roster.words for t in before.tokens)
        and len(before.text.split()) >= LEAST_TELLING
        and not (_REMARK.match(before.text) and len(before.text.split()) <= LONGEST_REMARK)
        and not _ASIDE.match(before.text)
        and not scene.backchannel[before.turn]
    ]


def weighty(sentence: Sentence) -> set[str]:
    """Dictionary forms of what a sentence speaks of, figures and days included."""
    return {
        t.lemma.lower()
        for t in sentence.tokens
        if t.pos in ("NOUN", "PROPN", "ADJ", "VERB", "NUM")
        and t.lemma.lower() not in _LIGHT | VAGUE
        and not cues.TIME_NOUN.fullmatch(t.lemma)
    }


def _may_mean(scene: Scene, sentence: Sentence, token: Token, text: str) -> bool:
    """Whether a noun names whom a text means that says `him` or `her`."""
    him = HIM.search(text)
    if not _tells(token):
        return False
    word, name = token.lemma.lower(), token.text.lower()
    named = name in scene.roster.words and name not in (scene.roster.addressee(sentence.text) or "").lower()
    title = _title(sentence, token)
    somebody = named or bool(PERSON.fullmatch(word)) or bool(title)
    other = (TITLE_OF_WOMAN if him else TITLE_OF_MAN).fullmatch(title)
    return somebody and not other and not (WOMAN if him else MAN).fullmatch(word)


def _title(sentence: Sentence, token: Token) -> str:
    """The title before a name: `Mrs` of `Mrs Achterberg`; else empty."""
    before = sentence.text[: token.start].split()[-1:]
    return before[0] if token.pos == "PROPN" and before and TITLE.fullmatch(before[0]) else ""


def shortened(text: str) -> str:
    """A sentence without its end mark, cut behind some words."""
    words = text.rstrip(".?!").split()
    return " ".join(words[:MOST_SHOWN]) + ("…" if len(words) > MOST_SHOWN else "")
