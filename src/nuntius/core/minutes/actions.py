"""Actions: what somebody took on, was asked and agreed to do, or what nobody took."""

import re
from dataclasses import replace
from datetime import date

from nuntius.core.language.en import cues
from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.due import due, in_sentence
from nuntius.core.minutes.findings import Finding, is_bare, merged
from nuntius.core.minutes.judges import Likely
from nuntius.core.minutes.line import Line, Passage
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.signs import is_imperative

REACH = 4  # turns within which a request is taken or dismissed
SHORTEST_TASK = 2  # words
CLEAR_ENOUGH = 9  # words of a task that needs nothing made clear
OBJECTS = frozenset({"it", "him", "her", "them", "that", "this", "those", "these", "you", "us", "one", "both", "all"})
JOINING_REACH = 3  # turns within which somebody joins in a task
LEAST_SAID = 4  # words of a task that no rule found

LEAST = 0.10  # likelihood below which what a rule found is no action
LEAST_UNTAKEN = 0.08  # the same where nobody took it on
ENOUGH = 0.5  # likelihood from which a sentence is an action though no rule found it


def find_actions(scene: Scene, likely: Likely) -> list[Line]:
    """Actions in the order of the talk, repeats joined.

    `likely` says for each sentence how likely it is the heart of an action: what the rules find is dropped where
    that is low, and a sentence with a high one is an action though no rule knows its words.
    """
    findings: list[Finding] = []
    taken: set[int] = set()  # turns that already answered a request
    for number, sentence in enumerate(scene.sentences):
        found = _request(scene, sentence, taken) or _order(scene, sentence, taken) or _untaken(scene, sentence, taken)
        if found is None and sentence.turn not in taken:
            found = _assignment(scene, sentence) or _commitment(scene, sentence)
        if found is not None and _likelihood(scene, found, likely) < (LEAST if found.owner else LEAST_UNTAKEN):
            found = None
        if found is None and likely[number] >= ENOUGH and sentence.turn not in taken:
            found = _judged(scene, sentence)
        changed = _deadline_set(scene, sentence, findings) or _joining_in(scene, sentence, findings)
        if changed is not None:
            findings[-1] = changed
        elif found is not None:
            findings.append(found)
    return [_line(scene, finding) for finding in merged(scene, findings) if _says_what(finding)]


def _says_what(finding: Finding) -> bool:
    """Whether a task names something that is done, and not only `Do it` or `Go along`."""
    if is_bare(finding.text):
        return False
    things = {t.text.lower() for t in finding.sentence.tokens if t.pos in ("NOUN", "PROPN", "NUM", "X")}
    own = set(re.findall(r"[\w'-]+", finding.text.lower()))
    return bool((things | OBJECTS) & own) or len(own) > CLEAR_ENOUGH


def _deadline_set(scene: Scene, sentence: Sentence, findings: list[Finding]) -> Finding | None:
    """The last finding with the day that `I'd need them by the fourth` sets for it."""
    if not findings or sentence.turn - findings[-1].evidence[-1].turn > REACH:
        return None
    last = findings[-1]
    own = last.owner == (sentence.speaker,) or last.sentence.turn == sentence.turn
    says = cues.WANTED_BY.search(sentence.lower) or (own and cues.HAD_BY.search(sentence.lower))
    if not says or (day := in_sentence(scene, sentence)) is None:
        return None
    return replace(last, due=day, evidence=tuple(sorted({*last.evidence, passage(sentence)})))


def _joining_in(scene: Scene, sentence: Sentence, findings: list[Finding]) -> Finding | None:
    """The last finding with another voice that takes a part in it: `I'll hold your tape`, `I'll go with him`."""
    if not findings or not findings[-1].owner or sentence.turn - findings[-1].evidence[-1].turn > JOINING_REACH:
        return None
    last = findings[-1]
    says = cues.JOINING_IN.search(sentence.lower)
    if sentence.is_question or says is None or sentence.speaker in last.owner or is_label(last.owner[0]):
        return None
    if _unreal(sentence.lower) or cues.REFUSAL.search(sentence.lower):
        return None
    own = in_sentence(scene, sentence)
    evidence = tuple(sorted({*last.evidence, passage(sentence)}))
    return replace(last, owner=(*last.owner, sentence.speaker), due=own or last.due, evidence=evidence)


def _likelihood(scene: Scene, finding: Finding, likely: Likely) -> float:
    """The highest of the sentences that a finding rests on."""
    return max(float(likely[scene.index[s.turn, s.first]]) for s in scene.inside(finding.evidence))


def _judged(scene: Scene, sentence: Sentence) -> Finding | None:
    """An action known by how it is said and received: what the words leave, and whoever they point to."""
    lower = sentence.lower
    if sentence.is_question or _unreal(lower) or _dismissed(scene, sentence) or cues.REFUSAL.search(lower):
        return None
    text = wording.task(sentence, requested=False) or wording.resolution(sentence.text)
    if len(text.split()) < LEAST_SAID or _empty(text.lower()):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = _reply(scene, sentence.turn, asked)
    if re.search(r"\b(?:i|i'\w+|we|we'\w+)\b", lower):
        owner: tuple[str, ...] = (sentence.speaker,)
    elif reply is not None and cues.ASSENT.search(said := scene.text(reply)) and not cues.REFUSAL.search(said):
        return _exchange(scene, sentence, reply, text, "said as one")
    else:
        owner = (asked,) if asked else ()
    return Finding(sentence, text, owner, (passage(sentence),), due(scene, sentence), "said as one")


def _commitment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'll empty the shed`; with a date also `I can get it to you by Friday`, `it goes in this afternoon`."""
    lower = sentence.lower
    if sentence.is_question or _unreal(lower) or _dismissed(scene, sentence):
        return None
    strong, weak = cues.INTENT.search(lower), cues.PROMISE.search(lower)
    if weak and not strong and not _is_bound(scene, sentence):
        weak = None
    match = strong or weak
    if match is None or _empty(lower[match.end() :]) or _negated(lower, match.end()):
        return None
    day = due(scene, sentence)
    text = wording.task(sentence, requested=False) or (wording.statement(sentence.text) if weak or day else "")
    if len(text.split()) < SHORTEST_TASK:
        return None
    evidence = _with_prompt(scene, sentence)
    return Finding(sentence, _made_clear(scene, sentence, text), (sentence.speaker,), evidence, day, "commitment")


def _is_bound(scene: Scene, sentence: Sentence) -> bool:
    """Whether `I can` is a promise: with a day, as an answer to a request, or with the question when it is needed."""
    asks_when = bool(cues.ASKED_WHEN.search(scene.by_turn[sentence.turn][-1].text))
    return in_sentence(scene, sentence) is not None or asks_when or _answers_request(scene, sentence)


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
                return Finding(sentence, text, (name,), (passage(sentence),), due(scene, sentence), "assignment")
    return None


def _request(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Could you try again?` that the one who was asked takes on within a few turns."""
    lower = sentence.lower
    match = cues.REQUEST.search(lower)
    if match is None or _unreal(lower) or cues.RHETORICAL.search(lower):
        return None
    asked = scene.roster.addressee(sentence.text)
    if (own := _agreed_at_once(scene, sentence, asked)) is not None:
        return own
    reply = _reply(scene, sentence.turn, asked)
    if reply is None or (cues.REFUSAL.search(scene.text(reply)) and not cues.INTENT.search(scene.text(reply).lower())):
        return None
    if not (cues.ASSENT.search(scene.text(reply)) or cues.INTENT.search(scene.text(reply).lower())):
        return None
    if _dismissed_after(scene, sentence.turn):
        return None
    text = wording.task(sentence, requested=True) or wording.order(sentence.text[match.start() :])
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    taken.add(reply)
    return _exchange(scene, sentence, reply, _made_clear(scene, sentence, text), "request")


def _exchange(scene: Scene, sentence: Sentence, reply: int, text: str, why: str) -> Finding:
    """What one voice names and another takes on in the turn `reply`; either may name the day."""
    day = due(scene, sentence) or next((d for s in scene.by_turn[reply] if (d := due(scene, s))), None)
    return Finding(sentence, text, (scene.speaker(reply),), (passage(sentence), scene.whole(reply)), day, why)


def _agreed_at_once(scene: Scene, sentence: Sentence, asked: str | None) -> Finding | None:
    """A request whose answer stands in the same turn, where the recogniser did not hear the voices change."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last]
    if asked is None or not later or not sentence.is_question or not cues.SHORT_ASSENT.match(later[0].text):
        return None
    text = wording.task(sentence, requested=True)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    evidence = (passage(sentence), passage(later[0]))
    return Finding(sentence, text, (asked,), evidence, due(scene, sentence), "request")


def _order(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Milos, get a sketch to them today.`, `Do it today, please.` with assent by the one who is told."""
    lower = sentence.lower
    if sentence.is_question or _unreal(lower) or not is_imperative(sentence):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = _reply(scene, sentence.turn, asked)
    dated = in_sentence(scene, sentence) is not None
    if reply is None or not (asked or dated or "please" in lower or " me " in lower):
        return None
    said = scene.text(reply)
    if not cues.ASSENT.search(said) or cues.REFUSAL.search(said) or reply - sentence.turn > 2:
        return None
    text = wording.order(sentence.text)
    if len(text.split()) < LEAST_SAID or _empty(text.lower()):
        return None
    taken.add(reply)
    return _exchange(scene, sentence, reply, text, "told and taken")


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
            and not cues.PROCEDURE.search(said.lower())
            and not cues.REFUSAL.search(said)
            and not scene.by_turn[turn][0].is_question
        )
        if offered and scene.speaker(turn) != scene.speaker(sentence.turn) and _takes(scene, sentence, turn):
            taken.add(turn)
            return _exchange(scene, sentence, turn, text, "taken up")
    if not re.search(
        r"\bsome ?(?:body|one)|\bwho(?:'d like to|'s going to|'ll| can| could| will| wants)|\bought to be\b", lower
    ):
        return None
    if _dismissed_after(scene, sentence.turn) or len(sentence.text.split()) < 5:
        return None
    return Finding(sentence, text, (), (passage(sentence),), due(scene, sentence), "nobody took it")


def _takes(scene: Scene, sentence: Sentence, turn: int) -> bool:
    """Whether an offer is of the task that was named: right behind it, without a task of its own, or of the same things."""
    if turn - sentence.turn == 1:
        return True
    offers = [s for s in scene.by_turn[turn] if cues.TAKING.search(s.lower)]
    own = frozenset().union(*(scene.content[s.turn, s.first] for s in offers))
    refers = any(re.search(r"\b(?:it|them|that|those|her|him)\b", s.lower) for s in offers)
    return len(own) <= 1 or refers or bool(own & scene.content[sentence.turn, sentence.first])


def _unreal(lower: str) -> bool:
    return bool(cues.CONDITIONAL.search(lower) or cues.PAST.search(lower) or cues.PROCEDURE.search(lower))


def _empty(rest: str) -> bool:
    """Whether the verb after a cue says nothing that can be done."""
    words = re.findall(r"[a-z']+", rest)
    while words and words[0] in ("just", "then", "probably", "also", "all", "now", "definitely", "to", "be"):
        if words[0] == "be":
            return not (len(words) > 1 and words[1] in ("on", "back", "in"))
        words.pop(0)
    if words[:1] == ["have"]:  # `have the list ready` and `have it sent` are tasks
        return not re.search(r"\b(?:out|ready|done|sent|finished|in|up|off|with you|by|\w{3,}ed)\b", rest)
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
    """Adds in square brackets what `it` or `them` stands for, where the sentence before names just one such thing."""
    match = re.search(r"\b(it|them)\b", text, re.I)
    if match is None or len(text.split()) > CLEAR_ENOUGH:
        return text
    thing = _antecedent(scene, sentence, plural=match.group().lower() == "them")
    return f"{text[: match.end()]} [{thing}]{text[match.end() :]}" if thing else text


def _antecedent(scene: Scene, sentence: Sentence, plural: bool) -> str:
    """The one thing that the sentence before is about: its object, or what a passive speaks of; "" where unsure."""
    number = scene.index[sentence.turn, sentence.first] - 1
    if number < 0 or scene.sentences[number].turn < sentence.turn - 1:
        return ""
    before = scene.sentences[number]
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


def _line(scene: Scene, finding: Finding) -> Line:
    day: date | None = finding.due.day if finding.due else None
    said = finding.due.said if finding.due else None
    state = "superseded" if _done_at_once(scene, finding) else "open"
    why = "done in the meeting" if state == "superseded" else finding.why
    return Line(
        "action", finding.text, finding.evidence, owner=finding.owner, due=day, due_said=said, state=state, why=why
    )


def _done_at_once(scene: Scene, finding: Finding) -> bool:
    """Whether the one who said `I'll text her now` tells later on that she has answered; never with a later day."""
    begun = finding.owner == (finding.sentence.speaker,) and cues.ORDERED_NOW.search(finding.sentence.lower)
    if not begun or (finding.due is not None and finding.due.day > scene.facts.day):
        return False
    later = [s for s in scene.sentences if s.turn > finding.sentence.turn and s.speaker == finding.sentence.speaker]
    return any(cues.CAME_BACK.search(s.lower) for s in later)
