"""Actions: what somebody took on, was asked and agreed to do, or what nobody took."""

import re
from dataclasses import dataclass, replace
from datetime import date

from nuntius.core.language.en import cues
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.line import Line, Passage
from nuntius.core.minutes.scene import Scene, passage

REACH = 4  # turns within which a request is taken or dismissed
DATE_REACH = 3  # turns around an action in which its date may stand
MERGE_REACH = 9  # turns within which two findings may be one action
ALIKE = 0.45  # cosine above which two findings of one owner are one action
SHORTEST_TASK = 2  # words

EVENT_BEFORE = re.compile(
    r"\b(?:for|from|since|of|was|were|comes?|came|opens?|starts?|happened|met|on)\s*(?:the\s*)?$", re.I
)
DEADLINE = re.compile(
    r"\b(?:by|before|until|till|no later than|at the (?:latest|outside)|due|deadline|not after|on|have (?:it|them|that)|this|"
    r"can have it)\b",
    re.I,
)


@dataclass(frozen=True, slots=True)
class Finding:
    """A candidate: the sentence with the task, who, the passages, and by which rule."""

    sentence: Sentence
    text: str
    owner: tuple[str, ...]
    evidence: tuple[Passage, ...]
    due: SaidDate | None
    why: str


def find_actions(scene: Scene) -> list[Line]:
    """Actions in the order of the talk, repeats joined."""
    findings: list[Finding] = []
    taken: set[int] = set()  # turns that already answered a request
    for sentence in scene.sentences:
        found = _request(scene, sentence, taken) or _untaken(scene, sentence, taken)
        if found is None and sentence.turn not in taken:
            found = _assignment(scene, sentence) or _commitment(scene, sentence)
        if found is not None:
            findings.append(found)
    return [_line(finding) for finding in _merged(scene, findings)]


def _commitment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'll empty the shed`; with a date also `I can get it to you by Friday`, `it goes in this afternoon`."""
    lower = sentence.lower
    if sentence.is_question or _unreal(lower) or _dismissed(scene, sentence):
        return None
    strong = cues.INTENT.search(lower)
    due = _due(scene, sentence)
    weak = cues.PROMISE.search(lower) if due is not None or _answers_request(scene, sentence) else None
    match = strong or weak
    if match is None or _empty(lower[match.end() :]) or _negated(lower, match.end()):
        return None
    text = wording.task(sentence, requested=False) or (wording.statement(sentence.text) if weak or due else "")
    if len(text.split()) < SHORTEST_TASK:
        return None
    owner = _subject(scene, sentence, match)
    return Finding(
        sentence, _made_clear(scene, sentence, text), owner, _with_prompt(scene, sentence), due, "commitment"
    )


def _subject(scene: Scene, sentence: Sentence, match: re.Match[str]) -> tuple[str, ...]:
    """The speaker, or everybody behind `we`; others' promises belong to nobody here."""
    return (scene.speaker(sentence.turn),)


def _assignment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Priya will send it`, said of somebody on the roster."""
    if sentence.is_question or _unreal(sentence.lower):
        return None
    for name, at in scene.roster.find(sentence.text):
        if name == scene.speaker(sentence.turn):
            continue
        match = re.match(
            r"\w+(?:'ll| will| gets to| is going to|'s going to| to| has to| takes)\s+(?=\w)", sentence.text[at:]
        )
        if match and not _empty(sentence.lower[at + match.end() :]):
            text = wording.clean(sentence.text[at + match.end() :])
            if len(text.split()) >= SHORTEST_TASK:
                return Finding(sentence, text, (name,), (passage(sentence),), _due(scene, sentence), "assignment")
    return None


def _request(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Could you try again?` that the one who was asked takes on within a few turns."""
    lower = sentence.lower
    match = cues.REQUEST.search(lower)
    if match is None or _unreal(lower) or cues.RHETORICAL.search(lower):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = _reply(scene, sentence.turn, asked)
    if reply is None or (cues.REFUSAL.search(scene.text(reply)) and not cues.INTENT.search(scene.text(reply).lower())):
        return None
    if not (cues.ASSENT.search(scene.text(reply)) or cues.INTENT.search(scene.text(reply).lower())):
        return None
    if _dismissed_after(scene, sentence.turn):
        return None
    text = wording.task(sentence, requested=True)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    taken.add(reply)
    due = _due(scene, sentence) or next((d for s in scene.by_turn[reply] if (d := _due(scene, s))), None)
    owner = scene.speaker(reply)
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(sentence, _made_clear(scene, sentence, text), (owner,), evidence, due, "request")


def _reply(scene: Scene, turn: int, asked: str | None) -> int | None:
    """The turn that answers: by the one who was asked, else the next one by another voice."""
    speaker = scene.speaker(turn)
    others = [t for t in scene.following(turn, REACH) if scene.speaker(t) != speaker]
    if asked is not None and not is_label(scene.speaker(turn)):
        named = [t for t in others if scene.speaker(t) == asked]
        if named or any(scene.speaker(t) == asked for t in range(len(scene.transcript.turns))):
            return named[0] if named else None
    return others[0] if others else None


def _untaken(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Somebody's got to ring them`: taken by whoever says so next, else nobody's."""
    lower = sentence.lower
    match = cues.UNTAKEN.search(lower)
    if match is None or _unreal(lower) or cues.PAST.search(lower):
        return None
    if not re.search(r"\b(?:some ?(?:body|one)|who)\b|\b(?:ought to|has to|needs to|has got to)\b", match.group()):
        return None
    text = wording.task(sentence, requested=True) or wording.statement(sentence.text)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    for turn in scene.following(sentence.turn, REACH):
        said = scene.text(turn)
        offered = (
            cues.TAKING.search(said.lower())
            and not cues.REFUSAL.search(said)
            and not scene.by_turn[turn][0].is_question
        )
        if offered and scene.speaker(turn) != scene.speaker(sentence.turn):
            taken.add(turn)
            due = _due(scene, sentence) or next((d for s in scene.by_turn[turn] if (d := _due(scene, s))), None)
            return Finding(
                sentence, text, (scene.speaker(turn),), (passage(sentence), scene.whole(turn)), due, "taken up"
            )
    if not re.search(
        r"\bsome ?(?:body|one)|\bwho(?:'d like to|'s going to|'ll| can| could| will| wants)|\bought to be\b", lower
    ):
        return None
    if _dismissed_after(scene, sentence.turn) or len(sentence.text.split()) < 5:
        return None
    return Finding(sentence, text, (), (passage(sentence),), _due(scene, sentence), "nobody took it")


def _unreal(lower: str) -> bool:
    return bool(cues.CONDITIONAL.search(lower) or cues.PAST.search(lower))


def _empty(rest: str) -> bool:
    """Whether the verb after a cue says nothing that can be done."""
    words = re.findall(r"[a-z']+", rest)
    while words and words[0] in ("just", "then", "probably", "also", "all", "now", "definitely", "to", "be"):
        if words[0] == "be":
            return not (len(words) > 1 and words[1] in ("on", "back", "in"))
        words.pop(0)
    return not words or words[0] in cues.EMPTY_VERBS


def _negated(lower: str, at: int) -> bool:
    return bool(re.match(r"\s*(?:not|never|n't)\b", lower[at:])) or lower[max(0, at - 1) :].startswith("n't")


def _dismissed(scene: Scene, sentence: Sentence) -> bool:
    """Withdrawn by the speaker's next words or waved away by the next voice."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    if any(re.search(r"\b(?:no,? forget|scrap that|actually,? no|never mind)\b", s.lower) for s in later[:2]):
        return True
    following = list(scene.following(sentence.turn, 1))
    return bool(following) and bool(
        cues.DISMISSED.search(scene.text(following[0])) and cues.REFUSAL.search(scene.text(following[0]))
    )


def _dismissed_after(scene: Scene, turn: int) -> bool:
    return any(cues.DISMISSED.search(scene.text(t)) for t in scene.following(turn, 3))


def _answers_request(scene: Scene, sentence: Sentence) -> bool:
    """Whether the turn before, by another voice, asks for something to be done."""
    for turn in scene.preceding(sentence.turn, 2):
        if scene.speaker(turn) == scene.speaker(sentence.turn):
            continue
        said = scene.text(turn).lower()
        return bool(cues.REQUEST.search(said) or cues.UNTAKEN.search(said) or re.search(r"\bcan you\b", said))
    return False


def _with_prompt(scene: Scene, sentence: Sentence) -> tuple[Passage, ...]:
    """The sentence, with the request or question right before it when it answers one."""
    own = passage(sentence)
    if sentence.first > 0 and sentence != scene.by_turn[sentence.turn][0]:
        return (own,)
    before = next(iter(scene.preceding(sentence.turn, 1)), None)
    if (
        before is not None
        and scene.by_turn[before]
        and scene.by_turn[before][-1].is_question
        and scene.speaker(before) != scene.speaker(sentence.turn)
    ):
        return (passage(scene.by_turn[before][-1]), own)
    return (own,)


def _made_clear(scene: Scene, sentence: Sentence, text: str) -> str:
    """Adds in square brackets what `it` or `them` stands for, where the words before name just one thing."""
    match = re.search(r"\b(it|them|that|those|this)\b(?! \w+(?:s|ing)?\b(?<=\w{3}))", text, re.I)
    if match is None or len(text.split()) > 9:
        return text
    thing = _antecedent(scene, sentence)
    return f"{text[: match.end()]} [{thing}]{text[match.end() :]}" if thing else text


def _antecedent(scene: Scene, sentence: Sentence) -> str:
    earlier = [s for s in scene.by_turn[sentence.turn] if s.first < sentence.first][::-1]
    for turn in scene.preceding(sentence.turn, 2):
        earlier += scene.by_turn[turn][::-1]
    for other in earlier[:3]:
        for token in reversed(other.tokens):
            if (
                token.dep in ("dobj", "nsubj", "nsubjpass", "pobj", "attr")
                and token.pos == "NOUN"
                and len(token.text) > 3
            ):
                return _phrase(other, token.text, token.start)
    return ""


def _phrase(sentence: Sentence, noun: str, start: int) -> str:
    """A noun with the article and adjectives right before it."""
    index = next(i for i, token in enumerate(sentence.tokens) if token.start == start)
    first = index
    while first > 0 and sentence.tokens[first - 1].pos in ("ADJ", "NOUN", "PROPN", "NUM"):
        first -= 1
    words = [token.text for token in sentence.tokens[first : index + 1]]
    return "the " + " ".join(words)


def _due(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The date by which a sentence's task is due: one behind `by`, `before`, `on` first, never an event's."""
    found = [item for item in said_dates(sentence.text, scene.facts.day) if not _event(sentence.text, item)]
    pressing = [item for item in found if DEADLINE.search(sentence.text[max(0, item.start - 14) : item.start])]
    return (pressing or found or [None])[0]  # type: ignore[list-item]


def _event(text: str, item: SaidDate) -> bool:
    return bool(
        re.search(
            r"\b(?:for|from|since|of|was|were|met|came|comes? (?:on|back)|booked for)\s+(?:the\s+)?$",
            text[: item.start],
            re.I,
        )
    )


def _merged(scene: Scene, findings: list[Finding]) -> list[Finding]:
    """Joins findings that are one action; the later date wins, all passages are kept."""
    kept: list[Finding] = []
    for finding in findings:
        match = next((i for i in range(len(kept) - 1, -1, -1) if _same(scene, kept[i], finding)), None)
        if match is None:
            kept.append(finding)
        else:
            kept[match] = _joined(kept[match], finding)
    return kept


def _same(scene: Scene, a: Finding, b: Finding) -> bool:
    if b.sentence.turn - a.evidence[-1].turn > MERGE_REACH:
        return False
    if {p.turn for p in a.evidence} & {p.turn for p in b.evidence} and (a.owner == b.owner or not a.owner):
        return True
    if a.owner != b.owner and a.owner and b.owner:
        return False
    near = b.sentence.turn - a.evidence[-1].turn <= 2
    return scene.alike(a.sentence, b.sentence) > (ALIKE if near else ALIKE + 0.15)


def _joined(a: Finding, b: Finding) -> Finding:
    evidence = tuple(sorted({*a.evidence, *b.evidence}))
    text = a.text if len(a.text.split()) >= len(b.text.split()) or not b.owner else b.text
    return replace(a, text=text, owner=b.owner or a.owner, evidence=evidence, due=b.due or a.due)


def _line(finding: Finding) -> Line:
    due: date | None = finding.due.day if finding.due else None
    said = finding.due.said if finding.due else None
    return Line("action", finding.text, finding.evidence, owner=finding.owner, due=due, due_said=said, why=finding.why)
