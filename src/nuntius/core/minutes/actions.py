"""Actions: what somebody took on, was asked and agreed to do, or what nobody took."""

import re
from dataclasses import replace
from datetime import date

from nuntius.core.language.en import cues
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.clearer import CLEAR_ENOUGH, made_clear, shortened, spoken_of
from nuntius.core.minutes.due import due, in_sentence, next_meeting
from nuntius.core.minutes.findings import Finding, is_bare, merged, speaks_of_other
from nuntius.core.minutes.judges import Likely
from nuntius.core.minutes.line import Line, Passage
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.signs import is_imperative
from nuntius.core.minutes.taking import (
    REACH,
    answers_request,
    dismissed,
    dismissed_after,
    reply_to,
    takes_on,
    welcomed,
)

SHORTEST_TASK = 2  # words
OBJECTS = frozenset({"it", "him", "her", "them", "that", "this", "those", "these", "you", "us", "one", "both", "all"})
JOINING_REACH = 3  # turns within which somebody joins in a task
LEAST_ORDERED = 2  # words of what somebody is told to do
LEAST_SAID = 4  # words of a task that no rule found
ORDERED = "told and taken by the next voice"  # why
BRIEF = 8  # words of a sentence that moves the day of a task and says little else

CLEARLY = 0.5  # likelihood from which `Do it` is kept with what it refers to
LEAST = 0.08  # likelihood below which what a rule found is no action
LEAST_ORDER = 0.15  # the same of the words by which somebody is told to do something
LEAST_UNTAKEN = 0.08  # the same where nobody took it on
ENOUGH = 0.6  # likelihood from which a sentence is an action though no rule found it


def find_actions(scene: Scene, likely: Likely) -> list[Line]:
    """Actions in the order of the talk, repeats joined.

    `likely` says for each sentence how likely it is the heart of an action: what the rules find is dropped where
    that is low, and a sentence with a high one is an action though no rule knows its words.
    """
    findings: list[Finding] = []
    taken: set[int] = set()  # turns that already answered a request
    for number, sentence in enumerate(scene.sentences):
        found = _asked(scene, sentence, taken)
        answers = sentence.turn in taken and not (findings and speaks_of_other(scene, sentence, findings[-1].evidence))
        if found is None and not answers:
            found = _assignment(scene, sentence) or _offered(scene, sentence) or _commitment(scene, sentence)
        if found is not None and _likelihood(scene, found, likely) < (LEAST if found.owner else LEAST_UNTAKEN):
            found = None
        if found is not None and found.why == ORDERED and likely[number] < LEAST_ORDER:
            found = None
        if found is None and likely[number] >= ENOUGH and not answers:
            found = _judged(scene, sentence)
        if found is not None and found.owner != (sentence.speaker,) and cues.AND_I.search(sentence.lower):
            findings.append(replace(found, text=wording.until_own(found.text)))
            found = _commitment(scene, sentence)
        changed = _deadline_set(scene, sentence, findings) or _joining_in(scene, sentence, findings)
        if changed is not None:
            findings[-1] = changed
        elif found is not None:
            findings.append(found)
    told = [
        (finding, _told(scene, finding, _likelihood(scene, finding, likely))) for finding in merged(scene, findings)
    ]
    return [_line(scene, clear) for _, clear in told if clear is not None]


def _told(scene: Scene, finding: Finding, likelihood: float) -> Finding | None:
    """A finding that says what is to be done: `Do it` with what it refers to, where it is likely enough; else None."""
    if _says_what(finding):
        return finding
    known = likelihood >= CLEARLY and not cues.TAKES_IT.match(finding.text)
    about = spoken_of(scene, finding.sentence) if known else None
    if about is None:
        return None
    text = f"{finding.text.rstrip('.')} [{shortened(wording.statement(about.text))}]."
    return replace(finding, text=text, evidence=tuple(sorted({*finding.evidence, passage(about)})))


def _asked(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """What is asked of somebody, of everybody, or of whoever will."""
    if cues.BARE_REQUEST.match(sentence.text):
        return None  # `Would you?` takes up what was offered
    return (
        _request(scene, sentence, taken)
        or _asked_by_day(scene, sentence, taken)
        or _order(scene, sentence, taken)
        or _untaken(scene, sentence, taken)
    )


def _says_what(finding: Finding) -> bool:
    """Whether a task names something that is done, and not only `Do it` or `Go along`."""
    if is_bare(finding.text) or len(finding.text.split()) < SHORTEST_TASK:
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
    moved = last.due is not None and len(sentence.text.split()) <= BRIEF and cues.DAY_MOVED.search(sentence.lower)
    says = moved or cues.WANTED_BY.search(sentence.lower) or (own and cues.HAD_BY.search(sentence.lower))
    if not says or (day := in_sentence(scene, sentence) or _by_next_meeting(scene, sentence)) is None:
        return None
    return replace(last, due=day, evidence=tuple(sorted({*last.evidence, passage(sentence)})))


def _by_next_meeting(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day of the next meeting, where a sentence names it: `I'll have an answer by our next meeting.`"""
    return next_meeting(scene) if cues.NEXT_MEETING.search(sentence.text) else None


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
    if sentence.is_question or _unreal(lower) or dismissed(scene, sentence) or cues.REFUSAL.search(lower):
        return None
    text = wording.task(sentence, requested=False) or wording.resolution(sentence.text)
    if len(text.split()) < LEAST_SAID or _empty(text.lower()) or not any(t.pos == "VERB" for t in sentence.tokens):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = reply_to(scene, sentence.turn, asked)
    if not re.search(r"\b(?:i|i'\w+|we|we'\w+)\b", lower):
        agreed = (
            reply is not None and cues.ASSENT.search(scene.text(reply)) and not cues.REFUSAL.search(scene.text(reply))
        )
        return _exchange(scene, sentence, reply, text, "said as one") if agreed and reply is not None else None
    return Finding(sentence, text, (sentence.speaker,), (passage(sentence),), due(scene, sentence), "said as one")


def _commitment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'll empty the shed`; with a date also `I can get it to you by Friday`, `it goes in this afternoon`."""
    lower = sentence.lower
    if sentence.is_question or _unreal(lower) or dismissed(scene, sentence):
        return None
    strong, weak = cues.INTENT.search(lower), cues.PROMISE.search(lower)
    if weak and not strong and not _is_bound(scene, sentence):
        weak = None
    match = strong or weak
    if match is None or _empty(lower[match.end() :]) or _negated(lower, match.end()):
        return None
    if not strong and _asks_for_another_day(scene, sentence):
        return None
    day = due(scene, sentence, match.start())
    text = wording.task(sentence, requested=False) or (wording.statement(sentence.text) if weak or day else "")
    if len(text.split()) < SHORTEST_TASK:
        bare = cues.BARE_INTENT.search(lower)
        if bare is None or bare.group(1) in cues.EMPTY_VERBS:
            return None
        text = f"{bare.group(1).capitalize()}."
    evidence = _with_prompt(scene, sentence)
    owner: tuple[str, ...] = (sentence.speaker,)
    if (other := _taken_along(scene, sentence)) is not None:
        owner, evidence = (*owner, scene.speaker(other)), (*evidence, scene.whole(other))
    return Finding(sentence, made_clear(scene, sentence, text), owner, evidence, day, "commitment")


def _taken_along(scene: Scene, sentence: Sentence) -> int | None:
    """The turn in which another agrees to do it, too: `I can do that with Lotte.` `Yep.`"""
    named = {name for name, at in scene.roster.find(sentence.text) if sentence.text[:at].endswith("with ")}
    replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) in named]
    return next((t for t in replies if takes_on(scene, t)), None)


def _asks_for_another_day(scene: Scene, sentence: Sentence) -> bool:
    """`I'm in Hull on the eighteenth. Could it be the twenty-fourth?`: the first day is none on which it is done."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    return any(s.is_question and in_sentence(scene, s) is not None for s in later)


def _is_bound(scene: Scene, sentence: Sentence) -> bool:
    """Whether `I can` is a promise: with a day, as an answer to a request, or with the question when it is needed."""
    asks_when = bool(cues.ASKED_WHEN.search(scene.by_turn[sentence.turn][-1].text))
    if cues.IF.search(sentence.lower):
        return False
    day = in_sentence(scene, sentence)
    dated = day is not None and not day.said.lower().endswith("minutes")  # `in five minutes` is how long it takes
    return dated or asks_when or answers_request(scene, sentence)


def _assignment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Priya will send it`, said of somebody on the roster."""
    if sentence.is_question or _unreal(sentence.lower):
        return None
    for name, at in scene.roster.find(sentence.text):
        if name == scene.speaker(sentence.turn):
            continue
        match = cues.ASSIGNED.match(sentence.text[at:]) or _does(scene, sentence, name, at)
        if match and not _empty(sentence.lower[at + match.end() :]):
            text = wording.in_infinitive(sentence, wording.clean(sentence.text[at + match.end() :]))
            if len(text.split()) >= SHORTEST_TASK:
                return Finding(sentence, text, (name,), (passage(sentence),), due(scene, sentence), "assignment")
    return None


def _does(scene: Scene, sentence: Sentence, name: str, at: int) -> re.Match[str] | None:
    """`Jutta puts it on the board`, where she agrees or a day is named."""
    verb = next(
        (t for i, t in enumerate(sentence.tokens) if i and t.tag == "VBZ" and sentence.tokens[i - 1].start == at), None
    )
    if verb is None or verb.lemma in cues.EMPTY_VERBS or verb.lemma in ("be", "have", "do"):
        return None
    replies = [t for t in scene.following(sentence.turn, 2) if scene.speaker(t) == name]
    if not any(takes_on(scene, t) for t in replies[:1]) and in_sentence(scene, sentence) is None:
        return None
    return re.match(r"\w+\s+(?=\w)", sentence.text[at:])


def _request(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Could you try again?` that the one who was asked takes on within a few turns."""
    lower = sentence.lower
    match = cues.REQUEST.search(lower)
    if match is None or _unreal(lower) or cues.RHETORICAL.search(lower) or cues.PROMISED_YOU.search(lower):
        return None
    asked = scene.roster.addressee(sentence.text)
    if (own := _agreed_at_once(scene, sentence, asked)) is not None:
        return own
    reply = reply_to(scene, sentence.turn, asked)
    if reply is None or not takes_on(scene, reply) or dismissed_after(scene, sentence.turn):
        return None
    tagged = not re.search(r"\w", sentence.text[match.end() :])  # `Ask them, would you?`
    told = sentence.text[: match.start()].rstrip(" ,") if tagged else sentence.text[match.start() :]
    text = wording.task(sentence, requested=True) or wording.order(told)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    taken.add(reply)
    return _exchange(scene, sentence, reply, made_clear(scene, sentence, text), "request")


def _asked_by_day(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Priya, a first draft by the twentieth?`: a thing and its day put to somebody, without a verb."""
    asked = scene.roster.addressee(sentence.text)
    if asked is None or not sentence.is_question or (day := in_sentence(scene, sentence)) is None:
        return None
    if any(t.pos in ("VERB", "AUX") for t in sentence.tokens) or not cues.DEADLINE.search(sentence.lower):
        return None
    reply = reply_to(scene, sentence.turn, asked)
    if reply is None or cues.REFUSAL.search(scene.text(reply)):
        return None
    taken.add(reply)
    text = wording.order(sentence.text).replace("?", "")
    return Finding(sentence, text, (asked,), (passage(sentence), scene.whole(reply)), day, "asked for by a day")


def _offered(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I could ask the shop`, `Shall I have a word?`, taken up by another voice."""
    if (
        cues.OFFER.search(sentence.lower) is None
        or cues.CONDITIONAL.search(sentence.lower)
        or dismissed(scene, sentence)
    ):
        return None
    if (taker := welcomed(scene, sentence)) is None:
        return None
    text = wording.offer(sentence)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()):
        return None
    asked = [s for s in scene.by_turn[taker] if in_sentence(scene, s) is not None]
    replies = [t for t in scene.following(taker, 1) if scene.speaker(t) == sentence.speaker]
    told = [s for t in replies for s in scene.by_turn[t] if not s.is_question]
    day = due(scene, sentence) or next((d for s in [*asked, *told] if (d := in_sentence(scene, s))), None)
    evidence = (passage(sentence), scene.whole(taker), *(scene.whole(t) for t in replies if takes_on(scene, t)))
    return Finding(sentence, made_clear(scene, sentence, text), (sentence.speaker,), evidence, day, "offer taken up")


def _exchange(scene: Scene, sentence: Sentence, reply: int, text: str, why: str) -> Finding:
    """What one voice names and another takes on in the turn `reply`; either may name the day."""
    day = due(scene, sentence) or next((d for s in scene.by_turn[reply] if (d := due(scene, s))), None)
    along = [t for s in scene.by_turn[reply] if (t := _taken_along(scene, s)) is not None]
    turns = (reply, *along[:1])
    owner = tuple(scene.speaker(turn) for turn in turns)
    return Finding(sentence, text, owner, (passage(sentence), *map(scene.whole, turns)), day, why)


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
    if sentence.is_question or _unreal(lower) or not is_imperative(sentence) or cues.LETTING.search(lower):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = reply_to(scene, sentence.turn, asked)
    if reply is None or reply - sentence.turn > 2 or not takes_on(scene, reply):
        return None
    taking = cues.TAKING.search(scene.text(reply).lower()) or said_dates(scene.text(reply), scene.facts.day)
    if not (taking or _is_pressed(scene, sentence, asked)):
        return None
    text = made_clear(scene, sentence, wording.order(sentence.text))
    if len(text.split()) < LEAST_ORDERED or _empty(text.lower()):
        return None
    taken.add(reply)
    return _exchange(scene, sentence, reply, text, "told and taken" if asked else ORDERED)


def _is_pressed(scene: Scene, sentence: Sentence, asked: str | None) -> bool:
    """Whether an order names somebody, a day, or asks politely, in its sentence or the next ones of its turn."""
    turn = scene.by_turn[sentence.turn]
    named = [s for s in turn if s.first >= sentence.first]
    dated = any(in_sentence(scene, s) is not None for s in named)
    return asked is not None or dated or any("please" in s.lower or " me " in s.lower for s in named)


def _untaken(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Somebody's got to ring them`: taken by whoever says so next, else nobody's."""
    lower = sentence.lower
    match = cues.UNTAKEN.search(lower)
    if match is None or _unreal(lower) or cues.PAST.search(lower) or cues.WISHED_BY_OTHERS.search(lower):
        return None
    if not re.search(r"\b(?:some ?(?:body|one)|who)\b|\b(?:ought to|has to|needs to|has got to)\b", match.group()):
        return None
    text = wording.task(sentence, requested=True) or wording.statement(sentence.text)
    if cues.LEFT_OPEN.search(lower) and (about := spoken_of(scene, sentence)) is not None:
        text = wording.statement(about.text)
    if len(text.split()) < SHORTEST_TASK or _empty(text.lower()) or _is_settled(scene, sentence):
        return None
    for turn in scene.following(sentence.turn, REACH):
        said = scene.text(turn)
        offered = (
            cues.TAKING.search(said.lower())
            and not cues.PROCEDURE.search(said.lower())
            and not cues.REFUSAL.search(said)
            and not scene.by_turn[turn][0].is_question
        )
        other = scene.speaker(turn) != scene.speaker(sentence.turn)
        if (offered and other and _takes(scene, sentence, turn)) or cues.TAKING_SELF.search(said.lower()):
            taken.add(turn)
            return _exchange(scene, sentence, turn, text, "taken up")
    if not re.search(
        r"\bsome ?(?:body|one)|\bwho(?:'d like to|'s going to|'ll| can| could| will| wants)|\bought to be\b", lower
    ):
        return None
    if dismissed_after(scene, sentence.turn) or len(sentence.text.split()) < 5:
        return None
    return Finding(sentence, text, (), (passage(sentence),), due(scene, sentence), "nobody took it")


def _is_settled(scene: Scene, sentence: Sentence) -> bool:
    """Whether a question who does something is answered at once by what somebody always does: `I do that.`"""
    replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    return sentence.is_question and any(cues.DOES_ANYWAY.search(scene.text(t)) for t in replies)


def _takes(scene: Scene, sentence: Sentence, turn: int) -> bool:
    """Whether an offer is of the task that was named: right behind it, without a task of its own, or of the same things."""
    if turn - sentence.turn == 1:
        return True
    offers = [s for s in scene.by_turn[turn] if cues.TAKING.search(s.lower)]
    own = frozenset().union(*(scene.content[s.turn, s.first] for s in offers))
    of_person = "|her|him" if re.search(r"\b(?:her|him)\b", sentence.lower) else ""
    refers = any(re.search(rf"\b(?:it|them|that|those{of_person})\b", s.lower) for s in offers)
    return len(own) <= 1 or refers or bool(own & scene.content[sentence.turn, sentence.first])


def _unreal(lower: str) -> bool:
    return bool(cues.CONDITIONAL.search(lower) or cues.PAST.search(lower) or cues.PROCEDURE.search(lower))


def _empty(rest: str) -> bool:
    """Whether the verb after a cue says nothing that can be done."""
    words = re.findall(r"[a-z']+", rest)
    while words and (words[0] in ("just", "then", "also", "all", "now", "to", "be") or words[0].endswith("ly")):
        if words[0] == "be":
            return not (len(words) > 1 and words[1] in ("on", "back", "in"))
        words.pop(0)
    if words[:1] == ["have"]:  # `have the list ready` and `have it sent` are tasks
        return not re.search(r"\b(?:out|ready|done|sent|finished|in|up|off|round|a word|with you|by|\w{3,}ed)\b", rest)
    return not words or (words[0] in cues.EMPTY_VERBS and not cues.FILLED.match(" ".join(words)))


def _negated(lower: str, at: int) -> bool:
    return bool(re.match(r"\s*(?:not|never|n't)\b", lower[at:])) or lower[max(0, at - 1) :].startswith("n't")


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
