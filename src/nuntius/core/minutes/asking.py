"""Tasks that are asked of somebody: requests and orders."""

import re
from dataclasses import replace

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.names import first_name
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import (
    BRIEF,
    SHORTEST_TASK,
    all_others,
    dismissed_after,
    echoes,
    empty,
    exchange,
    last_two,
    reply_to,
    supposed,
    takes,
    takes_on,
    unreal,
)
from nuntius.core.minutes.coreference import made_clear
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due
from nuntius.core.minutes.features import tells_to
from nuntius.core.minutes.findings import Finding
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.unassigned import untaken
from nuntius.core.minutes.wanting import wanted_of

ASKED_BACK = 2  # turns behind a question that is asked back within which a task is taken on
LEAST_ORDERED = 2  # words of what somebody is told to do
ORDERED, OF_ALL = "told and taken by the next voice", "asked of all"  # why


def asked_of(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """What is asked of somebody, or of whoever will."""
    if cues.BARE_REQUEST.match(sentence.text):
        return None  # `Would you?` takes up what was offered
    return (
        _asked_of_all(scene, sentence)
        or _request(scene, sentence, taken)
        or _asked_by_day(scene, sentence, taken)
        or wanted_of(scene, sentence, taken)
        or _answered_who(scene, sentence)
        or _told_each(scene, sentence)
        or _told_then(scene, sentence, taken)
        or _order(scene, sentence, taken)
        or _let_do(scene, sentence)
        or untaken(scene, sentence, taken)
    )


def _request(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Could you try again?` that the one who was asked takes on within a few turns."""
    lower = sentence.lower
    asked = scene.roster.addressee(sentence.text)
    polite = errands.POLITELY.search(lower)
    match = polite or cues.REQUEST.search(lower)
    match = match or (cues.YOU_DO.search(lower) if asked and sentence.is_question else None)
    if (
        match is None
        or (unreal(lower) and not polite)
        or cues.RHETORICAL.search(lower)
        or cues.PROMISED_YOU.search(lower)
    ):
        return None
    if deadlines.NOT_BEFORE.match(lower) or errands.NO_ORDER.match(lower) or cues.OF_ALL.search(lower):
        return None  # `Please nobody swings it.`, `Not before the sprouts are in, please.`
    if not any(token.pos in ("VERB", "AUX") for token in sentence.tokens):
        return None  # `Two adults and a dog, please.`
    if (own := _agreed_at_once(scene, sentence, asked)) is not None:
        return own
    reply = _in_the_end(scene, sentence, reply_to(scene, sentence.turn, asked))
    if reply is None or not takes(scene, sentence, reply, asked) or dismissed_after(scene, sentence.turn):
        return None
    tagged = not any(t.pos == "VERB" and t.start >= match.end() for t in sentence.tokens)  # `Ask them, would you?`
    told = sentence.text[: match.start()].rstrip(" ,") if tagged else sentence.text[match.start() :]
    text = tasks.task(sentence, requested=True) or tasks.order(told)
    text = re.sub(rf",\s+{first_name(asked)}\W*$", ".", text) if asked else text
    if (bare := cues.ASKED_BARELY.match(sentence.text)) is not None:
        text = f"{bare.group(1).capitalize()} it."
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()) or cues.GIVES_PURPOSE.match(text):
        return None
    taken.add(reply)
    also = errands.YOU_AND.search(sentence.text)
    beside = [name for name, _ in scene.roster.find(also.group("name"))] if also else []
    if also and beside:
        text = wording.framed(re.sub(rf"^and {also.group('name')} ", "", text, flags=re.I).rstrip("."))
    text = made_clear(scene, sentence, tasks.with_thing(text, _named_behind(scene, sentence)))
    made = exchange(scene, sentence, reply, text, "request")
    return replace(made, owner=tuple(dict.fromkeys((*made.owner, *beside[:1]))))


def _in_the_end(scene: Scene, sentence: Sentence, reply: int | None) -> int | None:
    """The turn that takes on what was asked, where the one who is asked only asks back at first, or sets a condition: `All sixty pages?` … `Very well.`"""
    if reply is None or takes_on(scene, reply):
        return reply
    opening = scene.by_turn[reply]
    if not all(s.is_question for s in opening) and not cues.IF_FIRST.match(opening[0].lower):
        return reply
    later = (t for t in scene.following(reply, ASKED_BACK) if scene.speaker(t) == scene.speaker(reply))
    return next((t for t in later if takes_on(scene, t)), reply)


def _named_behind(scene: Scene, sentence: Sentence) -> str:
    """What the next words of a turn name without a verb: `Could you draft something? Half a page.`; else empty."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last][:1]
    named = [s for s in later if not s.is_question and any(t.pos in ("NOUN", "PROPN") for t in s.tokens)]
    return next((s.text for s in named if not any(t.pos in ("VERB", "AUX") for t in s.tokens)), "")


def _asked_of_all(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Could everybody send me their hours by Friday?`: a task of all others, where a day is named or somebody agrees."""
    match = cues.ASKED_OF_ALL.search(sentence.lower)
    if match is None or unreal(sentence.lower) or cues.PROCEDURE.search(sentence.lower):
        return None
    day, reply = due(scene, sentence), reply_to(scene, sentence.turn, None)
    agreed = [reply] if reply is not None and takes_on(scene, reply) else []
    text = tasks.order(sentence.text[match.end() :]).replace("?", "")
    if not (day or agreed) or len(text.split()) < SHORTEST_TASK or empty(text.lower()) or cues.WHO_CAN.match(text):
        return None
    others = all_others(scene, sentence)
    spoken_to: tuple[str, ...] = others
    if cues.OF_TWO.search(match.group()):
        agreeing = tuple(scene.speaker(t) for t in scene.following(sentence.turn, 2) if takes_on(scene, t))
        spoken_to = last_two(scene, sentence, agreeing)
    owner = tuple(name for name in others if name in spoken_to)
    evidence = (passage(sentence), *map(scene.whole, agreed))
    return Finding(sentence, made_clear(scene, sentence, text), owner, evidence, day, OF_ALL)


def _told_each(scene: Scene, sentence: Sentence) -> Finding | None:
    """`You've each had the booklet. Read chapter three by Thursday.`: a task of all others by a day."""
    before = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]
    told = tells_to(sentence) and not sentence.is_question and any(errands.TO_EACH.search(s.lower) for s in before)
    if not told or unreal(sentence.lower) or (day := in_sentence(scene, sentence)) is None:
        return None
    text = tasks.order(sentence.text)
    owner = all_others(scene, sentence)
    return Finding(sentence, made_clear(scene, sentence, text), owner, (passage(sentence),), day, OF_ALL)


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
    text = tasks.order(sentence.text).replace("?", "")
    return Finding(sentence, text, (asked,), (passage(sentence), scene.whole(reply)), day, "asked for by a day")


def _agreed_at_once(scene: Scene, sentence: Sentence, asked: str | None) -> Finding | None:
    """A request whose answer stands in the same turn, where the recogniser did not hear the voices change."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last]
    if asked is None or not later or not sentence.is_question or not cues.SHORT_ASSENT.match(later[0].text):
        return None
    text = tasks.task(sentence, requested=True)
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()):
        return None
    evidence = (passage(sentence), passage(later[0]))
    return Finding(sentence, text, (asked,), evidence, due(scene, sentence), "request")


def _answered_who(scene: Scene, sentence: Sentence) -> Finding | None:
    """`Do I book it or do you?` `You book it and send me the bill.`"""
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    match = cues.YOU_DO_IT.match(sentence.text)
    asked = [s for t in before for s in scene.by_turn[t][-1:] if cues.YOU_OR_I.search(s.lower)]
    if match is None or not asked:
        return None
    text = made_clear(scene, sentence, tasks.order(sentence.text[match.end() :]))
    evidence = (passage(asked[0]), passage(sentence))
    return Finding(sentence, text, (asked[0].speaker,), evidence, due(scene, sentence), "request")


def _told_then(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`I'm away from the nineteenth.` `Then you pack on the eighteenth.` `All right.`, or `Lotte, you book it.` `It's as good as booked.`"""
    asked = scene.roster.addressee(sentence.text)
    match = errands.THEN_YOU.match(sentence.lower) or (errands.NAMED_YOU.match(sentence.lower) if asked else None)
    match = match or errands.YOU_NEED_TO.match(sentence.lower)
    reply = reply_to(scene, sentence.turn, asked) if match else None
    if match is None or sentence.is_question or reply is None:
        return None
    reply = _stand_in(scene, reply)
    dated = bool(asked and said_dates(scene.text(reply), scene.facts.day)) and not cues.REFUSAL.search(
        scene.text(reply)
    )
    if not (takes_on(scene, reply) or dated or errands.KNOWS.match(scene.by_turn[reply][0].text)):
        return None
    if supposed(scene, sentence):
        return None  # `What if he runs?` `Then you ring me.`
    text = tasks.order(sentence.text[match.end() :])
    if len(text.split()) < SHORTEST_TASK or empty(text.lower()):
        return None
    taken.add(reply)
    return exchange(scene, sentence, reply, made_clear(scene, sentence, text), "told and taken")


def _stand_in(scene: Scene, reply: int) -> int:
    """The turn of another who does it for somebody who cannot: `I'm at my mother's on Sunday.` `I can do that.`"""
    if not errands.ELSEWHERE.match(scene.text(reply)):
        return reply
    later = (t for t in scene.following(reply, 1) if scene.speaker(t) != scene.speaker(reply))
    return next((t for t in later if errands.STANDS_IN.match(scene.text(t))), reply)


def _order(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Milos, get a sketch to them today.`, `Do it today, please.` with assent by the one who is told."""
    lower = sentence.lower
    asked = scene.roster.addressee(sentence.text)
    told = tells_to(sentence) and not sentence.is_question
    told = told or bool(asked and errands.ORDER_ASKED.match(lower))
    if unreal(lower) or not told or cues.PLEASE_DO.match(sentence.text):
        return None
    if errands.NO_ORDER.match(lower):
        return None
    if errands.LEAVE_TO_ME.search(lower) or errands.PUT_ME_DOWN.match(lower):
        return None  # `Leave it with me till Wednesday.`
    if cues.LETTING.search(lower) or cues.DISMISSED.search(lower) or deadlines.GIVE_TIME.search(lower):
        return None
    if deadlines.MAKES_IT.match(lower) and in_sentence(scene, sentence) is not None:
        return None  # it sets a day
    reply = reply_to(scene, sentence.turn, asked)
    if reply is None or reply - sentence.turn > 2 or _passes_on(scene, sentence, reply, asked):
        return None
    if not (takes(scene, sentence, reply, asked) or (asked and _asks_how(scene, reply))):
        return None
    echoed = echoes(scene, sentence, reply)
    said = scene.text(reply)
    taking = cues.TAKING.search(said.lower()) or cues.WILL_DO.match(said) or said_dates(said, scene.facts.day)
    again = "again" in lower and scene.speaker(reply) in [scene.speaker(t) for t in scene.preceding(sentence.turn, 1)]
    easily = errands.EASILY.search(said)
    if not (taking or easily or again or echoed or _is_pressed(scene, sentence, asked)):
        return None
    text = made_clear(scene, sentence, tasks.order(sentence.text))
    if len(text.split()) < LEAST_ORDERED or empty(text.lower()):
        return None
    taken.add(reply)
    return exchange(scene, sentence, reply, text, "told and taken" if asked else ORDERED)


def _let_do(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'd put a mat under it.` `Order one.`: told to whoever has just said what could be done."""
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    could = [s for t in before for s in scene.by_turn[t][-1:] if errands.I_COULD.match(s.lower) and not s.is_question]
    refused = [t for t in scene.following(sentence.turn, 1) if cues.REFUSAL.search(scene.text(t))]
    if not could or refused or not errands.DO_IT_THEN.match(sentence.lower):
        return None
    evidence = (passage(could[0]), passage(sentence))
    day = due(scene, sentence)
    return Finding(sentence, tasks.order(sentence.text), (could[0].speaker,), evidence, day, "offer taken up")


def _passes_on(scene: Scene, sentence: Sentence, reply: int, asked: str | None) -> bool:
    """Whether who replies asks on, and a third voice answers: `Do the quick one.` `Yes. Today?` `Not today.`"""
    if asked or not scene.by_turn[reply][-1].is_question or cues.INTENT.search(scene.text(reply).lower()):
        return False
    later = [scene.speaker(t) for t in scene.following(reply, 1)]
    return any(speaker not in (sentence.speaker, scene.speaker(reply)) for speaker in later)


def _asks_how(scene: Scene, reply: int) -> bool:
    """Whether a reply only asks after a detail, which refuses nothing: `On what card?`"""
    said = scene.text(reply)
    return len(said.split()) <= BRIEF and said.endswith("?") and bool(errands.ASKS_HOW.match(said))


def _is_pressed(scene: Scene, sentence: Sentence, asked: str | None) -> bool:
    """Whether an order names somebody, a day, or asks politely, in its sentence or the next ones of its turn."""
    turn = scene.by_turn[sentence.turn]
    named = [s for s in turn if s.first >= sentence.first]
    dated = any(in_sentence(scene, s) is not None for s in named)
    return asked is not None or dated or any("please" in s.lower or " me " in s.lower for s in named)
