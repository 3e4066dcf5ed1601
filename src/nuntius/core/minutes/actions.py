"""Actions: what somebody took on, was asked and agreed to do, or what nobody took."""

import re
from dataclasses import replace
from datetime import date

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import (
    REACH,
    SHORTEST_TASK,
    dismissed,
    empty,
    exchange,
    reply_to,
    takes_on,
    unreal,
    we_could,
    welcomed,
)
from nuntius.core.minutes.asking import OF_ALL, ORDERED, asked_of
from nuntius.core.minutes.changing import deadline_set, joining_in
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.coreference import (
    CLEAR_ENOUGH,
    beside,
    made_clear,
    spoken_of,
    to_speaker,
    to_whom,
    with_reference,
)
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due, is_bare_day
from nuntius.core.minutes.findings import Finding, is_bare, merged, speaks_of_other
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.promising import commitment
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.recast import recast
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.stating import left_unsaid_by_task
from nuntius.core.minutes.unruled import LEAST_SAID, likely_finding

OBJECTS = frozenset({"it", "him", "her", "them", "that", "this", "those", "these", "you", "us", "one", "both", "all"})

TAKEN_UP, ASSIGNED = "offer taken up", "assignment"  # why
CLEARLY = 0.5  # likelihood from which `Do it` is kept with what it refers to
LEAST = 0.1  # likelihood below which what a rule found is no action
LEAST_ORDER = 0.15  # the same of the words by which somebody is told to do something
ENOUGH = 0.7  # likelihood from which a sentence is an action though no rule found it


def find_actions(scene: Scene, likely: Likely) -> list[Line]:
    """Actions in the order of the talk, repeats joined.

    `likely` says for each sentence how likely it is the heart of an action: what the rules find is dropped where
    that is low, and a sentence with a high one is an action though no rule knows its words.
    """
    return [_line(scene, _said_fully(scene, finding)) for finding in told_tasks(scene, likely)]


def told_tasks(scene: Scene, likely: Likely) -> list[Finding]:
    """The findings that actions are made from, in the words in which they are minuted, without what these leave unsaid."""
    findings: list[Finding] = []
    taken: set[int] = set()  # turns that already answered a request
    for number, sentence in enumerate(scene.sentences):
        found = _found(scene, number, likely, findings, taken)
        parts = _parts(scene, found) if found is not None else ()
        if len(parts) > 1:
            findings += parts
            continue
        at = _spoken_to(sentence, findings)
        changed = deadline_set(scene, sentence, findings[: at + 1]) or joining_in(scene, sentence, findings)
        if changed is not None:
            findings[at if changed.sentence is findings[at].sentence else -1] = changed
        else:
            findings += parts
    told = (
        _told(scene, finding, scene.highest_inside(likely, finding.evidence)) for finding in merged(scene, findings)
    )
    return [finding for finding in told if finding is not None]


def _spoken_to(sentence: Sentence, findings: list[Finding]) -> int:
    """The number of the finding whose day a sentence may set: the last one, or of the last two the speaker's own."""
    last = len(findings) - 1
    others = last > 0 and sentence.speaker not in findings[last].owner
    return last - 1 if others and findings[last - 1].owner == (sentence.speaker,) else last


def _found(scene: Scene, number: int, likely: Likely, findings: list[Finding], taken: set[int]) -> Finding | None:
    """What a sentence gives by a rule, where it is likely enough, else by its likelihood alone."""
    sentence = scene.sentences[number]
    found = asked_of(scene, sentence, taken)
    other = findings and speaks_of_other(scene, sentence, findings[-1].evidence)
    promises = sentence == scene.by_turn[sentence.turn][0] and bool(cues.PROMISED_YOU.search(sentence.lower))
    answers = sentence.turn in taken and (not other or promises)
    if found is None and not answers:
        found = _assignment(scene, sentence, taken) or _offered(scene, sentence) or _let(scene, sentence)
        found = found or commitment(scene, sentence)
    if found is not None:
        ordered = found.why == ORDERED and likely[number] < LEAST_ORDER
        supposed = cues.IF_FIRST.search(sentence.lower) and likely[number] < CLEARLY
        found = None if ordered or supposed or scene.highest_inside(likely, found.evidence) < LEAST else found
    answers = answers or (bool(findings) and _tells_when(scene, sentence, findings[-1]))
    if found is None and likely[number] >= ENOUGH and not answers:
        found = likely_finding(scene, sentence, float(likely[number]))
    return found


def _parts(scene: Scene, found: Finding) -> tuple[Finding, ...]:
    """A finding, or two where its sentence gives each of two people a task: `Raise it today and I'll sign it.`"""
    sentence = found.sentence
    if (shares := _shared_out(scene, sentence)) is not None:
        return shares
    if found.why == ASSIGNED and (shares := _also_assigned(scene, found)) is not None:
        return shares
    both = errands.BOTH_PART.search(sentence.text) if found.why == OF_ALL else None
    if both and cues.INTENT.search(sentence.lower[: both.start()]) and (own := commitment(scene, sentence)) is not None:
        text = wording.framed(errands.BOTH_PART.sub("", own.text).rstrip("."))
        return replace(own, text=text, due=None), found
    conditional = found.why == ASSIGNED and cues.IF_I.match(sentence.lower)
    if found.owner == (sentence.speaker,) or not (conditional or cues.AND_I.search(sentence.lower)):
        return (found,)
    if cues.AND_I.search(sentence.lower) and errands.NO_TASK.search(sentence.lower):  # `… and I'll tell you it's good`
        return (replace(found, text=tasks.until_own(found.text)),)
    own = commitment(scene, sentence)
    if own is None:
        return (found,)
    text = tasks.own_part(sentence.text)
    own = replace(own, text=made_clear(scene, sentence, text)) if text else own
    day = found.due if found.due and found.due.said not in text else None  # `Put a tag on it and I'll look after lunch`
    return replace(found, text=tasks.until_own(found.text), due=day), own


def _also_assigned(scene: Scene, found: Finding) -> tuple[Finding, Finding] | None:
    """The tasks of two who are named in a row: `Tobias to chase the insurers, Ines to book the surveyor.`"""
    match = errands.AND_NAME_TO.search(found.text)
    named = [name for name, _ in scene.roster.find(match["name"])] if match else []
    if match is None or not named:
        return None
    theirs = replace(found, text=tasks.order(found.text[match.end() :]), owner=(named[0],))
    return replace(found, text=tasks.order(found.text[: match.start()])), theirs


def _shared_out(scene: Scene, sentence: Sentence) -> tuple[Finding, Finding] | None:
    """The speaker's part and another's: `I'll have it unblocked and then, Ollie, you order four.`"""
    match = errands.AND_YOU.search(sentence.text)
    if match is None or not cues.INTENT.search(sentence.lower[: match.start()]):
        return None
    called = [scene.roster.addressee(sentence.text)]
    named = [name for name, at in scene.roster.find(match.group())] or [name for name in called if name]
    reply = reply_to(scene, sentence.turn, next(iter(named), None))
    own = commitment(scene, sentence)
    if own is None or reply is None or not (named or takes_on(scene, reply)):
        return None
    own = replace(own, text=tasks.order(errands.AND_YOU.split(own.text)[0]), owner=(sentence.speaker,))
    theirs = exchange(scene, sentence, reply, tasks.order(sentence.text[match.end() :]), "told and taken")
    return own, replace(theirs, due=next((d for s in scene.by_turn[reply] if (d := in_sentence(scene, s))), None))


def _tells_when(scene: Scene, sentence: Sentence, last: Finding) -> bool:
    """`I'll ask my cousin.` `By when?` `I see her on Sunday.`: when a task can be done, and none of its own."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    goes_on = any(cues.INTENT.search(s.lower) for s in later)
    near = last.owner == (sentence.speaker,) and sentence.turn - last.evidence[-1].turn <= REACH
    return near and not goes_on and bool(deadlines.I_THERE.search(sentence.lower))


def _told(scene: Scene, finding: Finding, likelihood: float) -> Finding | None:
    """A finding that says what is to be done: `Do it` with what it refers to, where it is likely enough; else None."""
    if cues.THANKS.match(finding.text):
        return None
    if cues.NO_TASK.match(finding.text):
        return replace(finding, text=recast(quoted(finding.sentence), finding.sentence))
    if _says_what(finding):
        return _finished(scene, finding)
    received = finding.why in (TAKEN_UP, "request", "taken up", "told and taken")
    known = (likelihood >= CLEARLY or received) and not cues.TAKES_IT.match(finding.text)
    about = spoken_of(scene, finding.sentence, finding.text) if known else None
    if about is None:
        return _finished(scene, finding) if likelihood >= ENOUGH and known else None
    if about is finding.sentence:  # which says it better than a few words cut out of it
        brief = len(finding.text.split()) < LEAST_SAID or is_bare(finding.text)
        brief = brief and not cues.IF_I.match(finding.sentence.text)  # which `tasks.under_condition` words
        return replace(finding, text=recast(quoted(about), about)) if brief else _finished(scene, finding)
    told = finding.text if finding.sentence.speaker in finding.owner else tasks.without_you(finding.text)
    told = tasks.without_calls(told, scene.roster.words)
    text = beside(to_speaker(finding.sentence, told), about)
    return replace(finding, text=text, evidence=tuple(sorted({*finding.evidence, passage(about)})))


def _finished(scene: Scene, finding: Finding) -> Finding:
    """A finding in the words in which it is minuted, with what it refers to but does not name."""
    sentence = finding.sentence
    text = tasks.finished(finding.text, sentence, finding.owner, scene.roster.words)
    if (day := finding.due) is not None:
        text = tasks.undated(text, day.said)
        other = next((d for d in said_dates(text, scene.facts.day) if text.endswith(f" on {d.said}.")), day)
        text = tasks.undated(text, other.said)  # `Have them here on Monday.`, where it is Tuesday in the end
    text = to_whom(scene, sentence, text) if sentence.speaker in finding.owner else to_speaker(sentence, text)
    if not is_label(sentence.speaker):
        text = wording.third_person(text, first_name(sentence.speaker))
    text, about = with_reference(scene, sentence, text)
    evidence = {*finding.evidence, passage(about)} if about is not None else finding.evidence
    return replace(finding, text=text, evidence=tuple(sorted(evidence)))


def _said_fully(scene: Scene, finding: Finding) -> Finding:
    """A finding with the sentence beside it that says what its words leave unsaid."""
    about = left_unsaid_by_task(scene, finding.sentence, finding.text)
    if about is None:
        return finding
    evidence = tuple(sorted({*finding.evidence, passage(about)}))
    return replace(finding, text=beside(finding.text, about), evidence=evidence)


def _says_what(finding: Finding) -> bool:
    """Whether a task names something that is done, and not only `Do it` or `Go along`."""
    if is_bare(finding.text) or len(finding.text.split()) < SHORTEST_TASK:
        return False
    things = {t.text.lower() for t in finding.sentence.tokens if t.pos in ("NOUN", "PROPN", "NUM", "X")}
    own = set(re.findall(r"[\w'-]+", finding.text.lower()))
    return bool((things | OBJECTS) & own) or len(own) > CLEAR_ENOUGH


def _assignment(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Priya will send it`, said of somebody on the roster, who may take it on in the next turn."""
    if sentence.is_question or unreal(sentence.lower):
        return None
    for name, at in scene.roster.find(sentence.text):
        if name == scene.speaker(sentence.turn):
            continue
        match = cues.ASSIGNED.match(sentence.text[at:]) or _does(scene, sentence, name, at)
        if match and _is_past(sentence, at + match.end()):
            continue  # `Mattis, you had them out on Saturday.`
        if match and not empty(sentence.lower[at + match.end() :]):
            text = tasks.in_infinitive(sentence, wording.clean(sentence.text[at + match.end() :]))
            if len(text.split()) >= SHORTEST_TASK:
                replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) == name]
                if any(cues.PROMISED_YOU.search(scene.text(t)) for t in replies):
                    taken.add(replies[0])
                    return exchange(scene, sentence, replies[0], text, ASSIGNED)
                condition = cues.IF_I.match(sentence.text)
                inside = said_dates(sentence.text[: condition.end()], scene.facts.day) if condition else []
                day = next((d for d in inside if d.start > at), None) or due(scene, sentence)
                return Finding(sentence, text, (name,), (passage(sentence),), day, ASSIGNED)
    return None


def _is_past(sentence: Sentence, at: int) -> bool:
    return any(token.start == at and token.tag == "VBD" for token in sentence.tokens)


def _does(scene: Scene, sentence: Sentence, name: str, at: int) -> re.Match[str] | None:
    """`Jutta puts it on the board`, where she agrees or a day is named."""
    verb = next(
        (t for i, t in enumerate(sentence.tokens) if i and t.tag == "VBZ" and sentence.tokens[i - 1].start == at), None
    )
    if (by_day := errands.DOES_DAY.match(sentence.text[at:])) is not None:
        return by_day
    if verb is None or verb.lemma in cues.EMPTY_VERBS or verb.lemma in ("be", "have", "do"):
        return None
    replies = [t for t in scene.following(sentence.turn, 2) if scene.speaker(t) == name]
    if not any(takes_on(scene, t) for t in replies[:1]) and in_sentence(scene, sentence) is None:
        return None
    return re.match(r"\w+\s+(?=\w)", sentence.text[at:])


def _offered(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I could ask the shop`, `Shall I have a word?`, taken up by another voice."""
    planned = errands.WAS_GOING_TO.search(sentence.lower)
    ours = planned or (cues.WE_COULD.search(sentence.lower) and we_could(scene, sentence.turn))
    if (
        not (cues.OFFER.search(sentence.lower) or ours or errands.HOW_ABOUT_I.match(sentence.lower))
        or cues.IF_I_MUST.search(sentence.lower)
        or cues.CONDITIONAL.search(sentence.lower)
        or (cues.PAST.search(sentence.lower) and not planned)
        or dismissed(scene, sentence)
    ):
        return None
    taker = welcomed(scene, sentence)
    offers = (errands.HOW_ABOUT_I, errands.HAPPY_TO, errands.I_CAN)
    if taker is None and any(offer.match(sentence.lower) for offer in offers):
        taker = next((t for t in scene.following(sentence.turn, 1) if errands.SUITS.match(scene.text(t))), None)
    if taker is None and errands.THEN_ID.match(sentence.lower):
        agreed = (t for t in scene.following(sentence.turn, 1) if cues.ASSENT.search(scene.text(t)))
        taker = next(agreed, None)
    if taker is None:
        return None
    text = tasks.offer(sentence)
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()):
        return None
    asked = [s for s in scene.by_turn[taker] if in_sentence(scene, s) is not None]
    replies = [t for t in scene.following(taker, 1) if scene.speaker(t) == sentence.speaker]
    told = [s for t in replies for s in scene.by_turn[t] if not s.is_question]
    bare = [s for s in told if is_bare_day(s)]
    named = next((d for s in [*bare, sentence, *asked, *told] if (d := in_sentence(scene, s))), None)
    day = named or due(scene, sentence)
    evidence = (passage(sentence), scene.whole(taker), *(scene.whole(t) for t in replies if takes_on(scene, t)))
    return Finding(sentence, made_clear(scene, sentence, text), (sentence.speaker,), evidence, day, TAKEN_UP)


def _let(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Can I write that on the card?`, `Please do.`: what somebody asks leave for and is let do."""
    match = errands.MAY_I.match(sentence.lower)
    replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    if match is None or not replies or not errands.LETS.match(scene.text(replies[0])):
        return None
    text = tasks.order(sentence.text[match.end() :])
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()):
        return None
    day = due(scene, sentence) or next((d for s in scene.by_turn[replies[0]] if (d := in_sentence(scene, s))), None)
    evidence = (passage(sentence), scene.whole(replies[0]))
    return Finding(sentence, made_clear(scene, sentence, text), (sentence.speaker,), evidence, day, TAKEN_UP)


def _line(scene: Scene, finding: Finding) -> Line:
    day: date | None = finding.due.day if finding.due else None
    said = finding.due.said if finding.due else None
    state = LineState.SUPERSEDED if _done_at_once(scene, finding) else LineState.OPEN
    why = "done in the meeting" if state == LineState.SUPERSEDED else finding.why
    return Line(
        LineKind.ACTION,
        finding.text,
        finding.evidence,
        owner=finding.owner,
        due=day,
        due_said=said,
        state=state,
        why=why,
    )


def _done_at_once(scene: Scene, finding: Finding) -> bool:
    """Whether the one who said `I'll text her now` tells later on that she has answered; never with a later day."""
    begun = finding.owner == (finding.sentence.speaker,) and cues.ORDERED_NOW.search(finding.sentence.lower)
    if not begun or (finding.due is not None and finding.due.day > scene.facts.day):
        return False
    later = [s for s in scene.sentences if s.turn > finding.sentence.turn and s.speaker == finding.sentence.speaker]
    beside = [s for s in scene.by_turn[finding.sentence.turn] if s.first > finding.sentence.last]
    return any(cues.CAME_BACK.search(s.lower) for s in later) or any(errands.IS_DONE.match(s.lower) for s in beside)
