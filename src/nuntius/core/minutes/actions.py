"""Actions: what somebody took on, was asked and agreed to do, or what nobody took."""

import re
from dataclasses import replace
from datetime import date

from nuntius.core.language.en import cues, deadlines
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.asking import ORDERED, asked_of
from nuntius.core.minutes.changing import deadline_set, joining_in
from nuntius.core.minutes.clearer import (
    CLEAR_ENOUGH,
    beside,
    made_clear,
    spoken_of,
    to_speaker,
    to_whom,
    with_reference,
)
from nuntius.core.minutes.due import due, in_sentence
from nuntius.core.minutes.findings import Finding, is_bare, merged, speaks_of_other
from nuntius.core.minutes.judges import Likely
from nuntius.core.minutes.line import Line, Passage
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.signs import is_imperative
from nuntius.core.minutes.taking import (
    REACH,
    SHORTEST_TASK,
    answers_request,
    begins_another,
    dismissed,
    empty,
    exchange,
    reply_to,
    taken_along,
    takes_on,
    unreal,
    we_could,
    welcomed,
)

OBJECTS = frozenset({"it", "him", "her", "them", "that", "this", "those", "these", "you", "us", "one", "both", "all"})
LEAST_SAID = 4  # words of a task that no rule found
BRIEF = 8  # words of a turn that only asks or says when

TAKEN_UP = "offer taken up"  # why
CLEARLY = 0.5  # likelihood from which `Do it` is kept with what it refers to
LEAST = 0.1  # likelihood below which what a rule found is no action
LEAST_ORDER = 0.15  # the same of the words by which somebody is told to do something
ENOUGH = 0.7  # likelihood from which a sentence is an action though no rule found it


def find_actions(scene: Scene, likely: Likely) -> list[Line]:
    """Actions in the order of the talk, repeats joined.

    `likely` says for each sentence how likely it is the heart of an action: what the rules find is dropped where
    that is low, and a sentence with a high one is an action though no rule knows its words.
    """
    findings: list[Finding] = []
    taken: set[int] = set()  # turns that already answered a request
    for number, sentence in enumerate(scene.sentences):
        found = _found(scene, number, likely, findings, taken)
        if found is not None and found.owner != (sentence.speaker,) and cues.AND_I.search(sentence.lower):
            findings.append(replace(found, text=tasks.until_own(found.text)))
            found = _commitment(scene, sentence)
        changed = deadline_set(scene, sentence, findings) or joining_in(scene, sentence, findings)
        if changed is not None:
            findings[-1] = changed
        elif found is not None:
            findings.append(found)
    told = (_told(scene, finding, _likelihood(scene, finding, likely)) for finding in merged(scene, findings))
    return [_line(scene, finding) for finding in told if finding is not None]


def _found(scene: Scene, number: int, likely: Likely, findings: list[Finding], taken: set[int]) -> Finding | None:
    """What a sentence gives by a rule, where it is likely enough, else by its likelihood alone."""
    sentence = scene.sentences[number]
    found = asked_of(scene, sentence, taken)
    answers = sentence.turn in taken and not (findings and speaks_of_other(scene, sentence, findings[-1].evidence))
    if found is None and not answers:
        found = _assignment(scene, sentence) or _offered(scene, sentence) or _commitment(scene, sentence)
    if found is not None:
        ordered = found.why == ORDERED and likely[number] < LEAST_ORDER
        supposed = cues.IF_FIRST.search(sentence.lower) and likely[number] < CLEARLY
        found = None if ordered or supposed or _likelihood(scene, found, likely) < LEAST else found
    if found is None and likely[number] >= ENOUGH and not answers:
        found = _judged(scene, sentence)
    return found


def _told(scene: Scene, finding: Finding, likelihood: float) -> Finding | None:
    """A finding that says what is to be done: `Do it` with what it refers to, where it is likely enough; else None."""
    if cues.THANKS.match(finding.text):
        return None
    if cues.NO_TASK.match(finding.text):
        return replace(finding, text=quoted(finding.sentence))
    if _says_what(finding):
        return _finished(scene, finding)
    received = finding.why in (TAKEN_UP, "request", "taken up", "told and taken")
    known = (likelihood >= CLEARLY or received) and not cues.TAKES_IT.match(finding.text)
    about = spoken_of(scene, finding.sentence, finding.text) if known else None
    if about is None:
        return None
    if about is finding.sentence:  # which says it better than a few words cut out of it
        brief = len(finding.text.split()) < LEAST_SAID
        return replace(finding, text=quoted(about)) if brief else _finished(scene, finding)
    text = beside(to_speaker(finding.sentence, finding.text), about)
    return replace(finding, text=text, evidence=tuple(sorted({*finding.evidence, passage(about)})))


def _finished(scene: Scene, finding: Finding) -> Finding:
    """A finding in the words in which it is minuted, with what it refers to but does not name."""
    sentence = finding.sentence
    text = tasks.finished(finding.text, sentence, finding.owner, scene.roster.words)
    text = tasks.undated(text, finding.due.said) if finding.due else text
    text = to_whom(scene, sentence, text) if sentence.speaker in finding.owner else to_speaker(sentence, text)
    if not is_label(sentence.speaker):
        text = wording.third_person(text, first_name(sentence.speaker))
    text, about = with_reference(scene, sentence, text)
    evidence = {*finding.evidence, passage(about)} if about is not None else finding.evidence
    return replace(finding, text=text, evidence=tuple(sorted(evidence)))


def _says_what(finding: Finding) -> bool:
    """Whether a task names something that is done, and not only `Do it` or `Go along`."""
    if is_bare(finding.text) or len(finding.text.split()) < SHORTEST_TASK:
        return False
    things = {t.text.lower() for t in finding.sentence.tokens if t.pos in ("NOUN", "PROPN", "NUM", "X")}
    own = set(re.findall(r"[\w'-]+", finding.text.lower()))
    return bool((things | OBJECTS) & own) or len(own) > CLEAR_ENOUGH


def _likelihood(scene: Scene, finding: Finding, likely: Likely) -> float:
    """The highest of the sentences that a finding rests on."""
    return max(float(likely[scene.index[s.turn, s.first]]) for s in scene.inside(finding.evidence))


def _judged(scene: Scene, sentence: Sentence) -> Finding | None:
    """An action known by how it is said and received: what the words leave, and whoever they point to."""
    lower = sentence.lower
    if sentence.is_question or unreal(lower) or dismissed(scene, sentence) or cues.REFUSAL.search(lower):
        return None
    settles = cues.DECIDED.search(lower) and not cues.INTENT.search(lower)
    if (
        settles
        or cues.WE_DECIDE.search(lower)
        or cues.SHOULD_HAVE.search(lower)
        or cues.ASKS_FIRST.search(lower)
        or deadlines.AWAY.search(lower)
        or cues.LACKS.match(lower)
        or cues.SAY_SO.match(lower)
        or cues.SHALL_WE_SAY.search(lower)
        or cues.OWNS.match(lower)
        or _gives_reason(scene, sentence)
    ):
        return None
    text = tasks.task(sentence, requested=False) or tasks.doing(sentence) or wording.resolution(sentence.text)
    if len(text.split()) < LEAST_SAID or empty(text.lower()) or not any(t.pos == "VERB" for t in sentence.tokens):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = reply_to(scene, sentence.turn, asked)
    if cues.OFFER.search(lower) and not _is_let(scene, sentence, reply):
        return None
    if cues.NEEDS.search(lower):
        taken = reply is not None and cues.INTENT.search(scene.text(reply).lower())
        return exchange(scene, sentence, reply, text, "taken up") if taken and reply is not None else None
    tells = is_imperative(sentence)
    if tells and (asked or "please" in lower):
        return _told_to(scene, sentence, text, asked)
    own = re.search(r"\b(?:i|i'\w+|we|we'\w+)\b", lower) or cues.PROMISED_YOU.search(lower)
    if tells or not own:
        agreed = (
            reply is not None and cues.ASSENT.search(scene.text(reply)) and not cues.REFUSAL.search(scene.text(reply))
        )
        return exchange(scene, sentence, reply, text, "said as one") if agreed and reply is not None else None
    return Finding(
        sentence, text, (sentence.speaker,), (passage(sentence),), due(scene, sentence, own=True), "said as one"
    )


def _told_to(scene: Scene, sentence: Sentence, text: str, asked: str | None) -> Finding | None:
    """What somebody is told to do: by name, or taken on a little later: `Send him down, please.` `He's on lates.` `Then at two.` `Okay.`"""
    for turn in scene.following(sentence.turn, REACH):
        if scene.speaker(turn) == sentence.speaker or asked not in (None, scene.speaker(turn)):
            continue
        if cues.REFUSAL.search(scene.text(turn)):
            return None
        if takes_on(scene, turn) and not begins_another(scene, sentence, turn):
            return exchange(scene, sentence, turn, text, "told and taken")
    named = asked is not None and any(turn.speaker == asked for turn in scene.transcript.turns)
    return (
        Finding(sentence, text, (asked,), (passage(sentence),), due(scene, sentence), "assignment")
        if named and asked
        else None
    )


def _is_let(scene: Scene, sentence: Sentence, reply: int | None) -> bool:
    """Whether an offer stands: with a day, or where the answer to it is not about something else or a refusal."""
    said = scene.text(reply) if reply is not None else ""
    dated = in_sentence(scene, sentence) is not None
    return not cues.REFUSAL.search(said) and (dated or bool(cues.ASSENT.search(said)))


def _commitment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'll empty the shed`; with a date also `I can get it to you by Friday`, `it goes in this afternoon`."""
    lower = sentence.lower
    overtaken = cues.OVERTAKEN.search(lower)  # `I was going to … so I'll do them now`
    if sentence.is_question or (unreal(lower) and not overtaken) or dismissed(scene, sentence):
        return None
    strong, weak = cues.INTENT.search(lower) or cues.THEN_I.match(lower), cues.PROMISE.search(lower)
    if cues.MOVES.search(lower) and any(cues.SECONDED.search(scene.text(t)) for t in scene.following(sentence.turn, 2)):
        return None
    if not strong and cues.REPORTED.search(lower):
        return None
    if cues.GLAD_TO.match(lower) and any(
        cues.SHOULD_WE.search(scene.text(t)) for t in scene.preceding(sentence.turn, 1)
    ):
        strong = cues.GLAD_TO.match(lower)
    if not (strong or weak) and answers_request(scene, sentence):
        weak = cues.PLAIN_PRESENT.search(lower) if not cues.ON_SUCH_DAYS.search(lower) else None
    if (
        weak
        and not strong
        and (cues.RISES.search(lower) or cues.OF_ALL.search(lower) or not _is_bound(scene, sentence))
    ):
        weak = None
    match = strong or weak
    if match is None or empty(lower[match.end() :]) or _negated(lower, match.end()):
        return None
    before = [scene.by_turn[t][-1] for t in scene.preceding(sentence.turn, 1) if scene.by_turn[t]]
    supposed = any(s.is_question and cues.IF_FIRST.search(s.lower) for s in before)  # `And if they're bigger?`
    supposed = supposed or any(cues.WHAT_WOULD.search(s.lower) for s in before)  # `What would you do today?`
    if supposed and lower.lstrip().startswith("then "):
        return None
    if not strong and (supposed or _asks_for_another_day(scene, sentence) or _excuses(scene, sentence)):
        return None
    day = due(scene, sentence, match.start(), own=True)
    text = tasks.task(sentence, requested=False) or tasks.taken_on_then(sentence)
    text = text or (wording.statement(sentence.text) if weak or day else "")
    if len(text.split()) < SHORTEST_TASK:
        bare = cues.BARE_INTENT.search(lower)
        if bare is None or bare.group(1) in cues.EMPTY_VERBS:
            return None
        text = f"{bare.group(1).capitalize()}."
    evidence = _with_prompt(scene, sentence)
    owner: tuple[str, ...] = (sentence.speaker,)
    if (other := taken_along(scene, sentence)) is not None:
        owner, evidence = (*owner, scene.speaker(other)), (*evidence, scene.whole(other))
    return Finding(sentence, made_clear(scene, sentence, text), owner, evidence, day, "commitment")


def _asks_for_another_day(scene: Scene, sentence: Sentence) -> bool:
    """`I'm in Hull on the eighteenth. Could it be the twenty-fourth?`: the first day is none on which it is done."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    return any(s.is_question and in_sentence(scene, s) is not None for s in later)


def _excuses(scene: Scene, sentence: Sentence) -> bool:
    """`I'm draining pipes on the twentieth`, behind the proposal of that day: it tells why that day will not do."""
    days = {item.day for item in said_dates(sentence.text, scene.facts.day)}
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    asked = any(cues.REQUEST.search(scene.text(t)) or cues.UNTAKEN.search(scene.text(t)) for t in before)
    return not asked and any(item.day in days for t in before for item in said_dates(scene.text(t), scene.facts.day))


def _is_bound(scene: Scene, sentence: Sentence) -> bool:
    """Whether `I can` is a promise: with a day, as an answer to a request, or with the question when it is needed."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    if cues.IF.search(sentence.lower) or any(cues.ASKS_FIRST.search(s.lower) for s in later):
        return False
    following = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    if cues.OFFER.search(sentence.lower) and any(cues.REFUSAL.search(scene.text(t)) for t in following):
        return False
    day = in_sentence(scene, sentence)
    dated = day is not None and not day.said.lower().endswith("minutes")  # `in five minutes` is how long it takes
    asked = [scene.by_turn[sentence.turn][-1].text, *(scene.text(t) for t in following if _is_brief(scene, t))]
    return (
        dated
        or any(deadlines.ASKED_WHEN.search(text) for text in asked)
        or (answers_request(scene, sentence) and not _gives_reason(scene, sentence))
    )


def _is_brief(scene: Scene, turn: int) -> bool:
    return len(scene.text(turn).split()) <= BRIEF


def _gives_reason(scene: Scene, sentence: Sentence) -> bool:
    """`Please send me the numbers. I have to put them into the system.`: why something is asked of another."""
    earlier = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first]
    return bool(cues.HAVE_TO.search(sentence.lower)) and any(cues.REQUEST.search(s.lower) for s in earlier[-1:])


def _assignment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Priya will send it`, said of somebody on the roster."""
    if sentence.is_question or unreal(sentence.lower):
        return None
    for name, at in scene.roster.find(sentence.text):
        if name == scene.speaker(sentence.turn):
            continue
        match = cues.ASSIGNED.match(sentence.text[at:]) or _does(scene, sentence, name, at)
        if match and not empty(sentence.lower[at + match.end() :]):
            text = tasks.in_infinitive(sentence, wording.clean(sentence.text[at + match.end() :]))
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


def _offered(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I could ask the shop`, `Shall I have a word?`, taken up by another voice."""
    ours = cues.WE_COULD.search(sentence.lower) and we_could(scene, sentence.turn)
    if (
        not (cues.OFFER.search(sentence.lower) or ours)
        or cues.IF_I_MUST.search(sentence.lower)
        or cues.CONDITIONAL.search(sentence.lower)
        or cues.PAST.search(sentence.lower)
        or dismissed(scene, sentence)
    ):
        return None
    if (taker := welcomed(scene, sentence)) is None:
        return None
    text = tasks.offer(sentence)
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()):
        return None
    asked = [s for s in scene.by_turn[taker] if in_sentence(scene, s) is not None]
    replies = [t for t in scene.following(taker, 1) if scene.speaker(t) == sentence.speaker]
    told = [s for t in replies for s in scene.by_turn[t] if not s.is_question]
    day = due(scene, sentence) or next((d for s in [*asked, *told] if (d := in_sentence(scene, s))), None)
    evidence = (passage(sentence), scene.whole(taker), *(scene.whole(t) for t in replies if takes_on(scene, t)))
    return Finding(sentence, made_clear(scene, sentence, text), (sentence.speaker,), evidence, day, TAKEN_UP)


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
