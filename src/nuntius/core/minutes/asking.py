"""Tasks that are asked of somebody: requests, orders, what nobody in particular is to do."""

import re
from dataclasses import replace

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.en.names import first_name
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.clearer import made_clear, spoken_of
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due
from nuntius.core.minutes.findings import Finding, is_bare
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.signs import tells_to
from nuntius.core.minutes.taking import (
    BRIEF,
    REACH,
    SHORTEST_TASK,
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
    we_could,
)
from nuntius.core.minutes.wanting import wanted_of

ASKED_BACK = 2  # turns behind a question that is asked back within which a task is taken on
LEAST_ORDERED = 2  # words of what somebody is told to do
OPENING_TURNS = 12  # within which a meeting begins
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
        or _untaken(scene, sentence, taken)
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
    if deadlines.NOT_BEFORE.match(lower) or errands.NO_ORDER.match(lower):
        return None  # `Not before the sprouts are in, please.`
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
    """The turn that takes on what was asked, where the one who is asked only asks back at first: `All sixty pages?` … `Very well.`"""
    if reply is None or not all(s.is_question for s in scene.by_turn[reply]):
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
    others = _all_others(scene, sentence)
    spoken_to = last_two(scene, sentence) if cues.OF_TWO.search(match.group()) else others
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
    owner = _all_others(scene, sentence)
    return Finding(sentence, made_clear(scene, sentence, text), owner, (passage(sentence),), day, OF_ALL)


def _all_others(scene: Scene, sentence: Sentence) -> tuple[str, ...]:
    """Everybody there but who speaks."""
    everybody = scene.facts.people or tuple(dict.fromkeys(turn.speaker for turn in scene.transcript.turns))
    return tuple(name for name in everybody if name != sentence.speaker)


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
    if not (takes_on(scene, reply) or errands.KNOWS.match(scene.by_turn[reply][0].text)):
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
    if sentence.is_question or unreal(lower) or not tells_to(sentence) or cues.PLEASE_DO.match(sentence.text):
        return None
    if errands.NO_ORDER.match(lower):
        return None
    if cues.LETTING.search(lower) or cues.DISMISSED.search(lower) or deadlines.GIVE_TIME.search(lower):
        return None
    if deadlines.MAKES_IT.match(lower) and in_sentence(scene, sentence) is not None:
        return None  # it sets a day
    asked = scene.roster.addressee(sentence.text)
    reply = reply_to(scene, sentence.turn, asked)
    if reply is None or reply - sentence.turn > 2 or _passes_on(scene, sentence, reply, asked):
        return None
    if not (takes(scene, sentence, reply, asked) or (asked and _asks_how(scene, reply))):
        return None
    echoed = echoes(scene, sentence, reply)
    said = scene.text(reply)
    taking = cues.TAKING.search(said.lower()) or cues.WILL_DO.match(said) or said_dates(said, scene.facts.day)
    again = "again" in lower and scene.speaker(reply) in [scene.speaker(t) for t in scene.preceding(sentence.turn, 1)]
    if not (taking or again or echoed or _is_pressed(scene, sentence, asked)):
        return None
    text = made_clear(scene, sentence, tasks.order(sentence.text))
    if len(text.split()) < LEAST_ORDERED or empty(text.lower()):
        return None
    taken.add(reply)
    return exchange(scene, sentence, reply, text, "told and taken" if asked else ORDERED)


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


def _untaken(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Somebody's got to ring them`: taken by whoever says so next, else nobody's."""
    lower = sentence.lower
    match = cues.UNTAKEN.search(lower)
    if match is None or unreal(lower) or cues.PAST.search(lower) or cues.NOBODYS_TASK.search(lower):
        return None
    if cues.IF_FIRST.search(lower):
        return None  # `If they want it they can have it, but it has to be gone by then`
    if not re.search(
        r"\b(?:some ?(?:body|one)|one of you|who)\b|\b(?:ought to|has to|needs to|has got to)\b", match.group()
    ):
        return None
    text = tasks.task(sentence, requested=True) or tasks.wished(wording.statement(sentence.text))
    if cues.LEFT_OPEN.search(lower) and (about := spoken_of(scene, sentence, sentence.text)) is not None:
        text = wording.statement(about.text)
    says_nothing = empty(text.lower()) and not is_bare(text)  # `Find it` gets what it refers to
    says_nothing = says_nothing or bool(cues.BARE_SEARCH.match(text))
    if len(text.split()) < SHORTEST_TASK or says_nothing or _is_settled(scene, sentence):
        return None
    if (turn := _appointed(scene, sentence)) is not None:
        taken.add(turn)
        return exchange(scene, sentence, turn, text, "taken up")
    if (turn := _taker(scene, sentence)) is not None:
        taken.add(turn)
        own = (tasks.task(s, requested=False) for s in scene.by_turn[turn] if cues.INTENT.search(s.lower))
        text = next(filter(None, own), text) if text.lower().startswith("who") else text  # `Who's showing?`
        text = _offered_instead(scene, sentence, turn) or text
        return exchange(scene, sentence, turn, text, "taken up")
    if not re.search(
        r"\bsome ?(?:body|one)|\bone of you|\bwho(?:'d like to|'s going to|'ll| can| could| will| wants)|\bought to be\b",
        lower,
    ):
        return None
    if dismissed_after(scene, sentence.turn) or len(sentence.text.split()) < 5 or _is_before_it_begins(scene, sentence):
        return None
    return Finding(sentence, text, (), (passage(sentence),), due(scene, sentence), "nobody took it")


def _appointed(scene: Scene, sentence: Sentence) -> int | None:
    """The turn in which somebody agrees who was named at once: `Who briefs them?` `You do, Patrick, at five.` `Right.`"""
    if not sentence.is_question:
        return None
    for turn in scene.following(sentence.turn, 1):
        said = scene.by_turn[turn][0]
        reply = reply_to(scene, turn, scene.roster.addressee(said.text))
        if errands.APPOINTS.match(said.lower) and reply is not None and takes_on(scene, reply):
            return reply
    return None


def _taker(scene: Scene, sentence: Sentence) -> int | None:
    """The turn that takes on what somebody has to do: another's offer of it, or the promise of whoever said so."""
    for turn in scene.following(sentence.turn, REACH):
        said = scene.text(turn).lower()
        offered = (
            cues.TAKING.search(said)
            and not cues.PROCEDURE.search(said)
            and not cues.REFUSAL.search(said)
            and not scene.by_turn[turn][0].is_question
            and not cues.IF_FIRST.search(said)
        )
        other = scene.speaker(turn) != scene.speaker(sentence.turn)
        promised = not other and cues.INTENT.search(said)
        own = promised and (cues.WILL_DO_IT.search(said) or _shares(scene, sentence, turn))
        theirs = other and ((offered and _takes(scene, sentence, turn)) or we_could(scene, turn))
        own_word = errands.I_AM.match(scene.by_turn[turn][0].text) and sentence.is_question
        ready = (
            own_word
            or errands.READY_TO.match(said)
            or errands.IS_THERE.match(said)
            or (sentence.is_question and errands.DOES_NOT_MIND.match(said))
        )
        theirs = theirs or (other and turn == sentence.turn + 1 and bool(ready))
        if own or theirs or cues.TAKING_SELF.search(said):
            return turn
    return None


def _offered_instead(scene: Scene, sentence: Sentence, turn: int) -> str:
    """What somebody offers a little later, in words of its own: `Who teaches that?` … `I could take the seminar.`; else empty."""
    if turn - sentence.turn < REACH:
        return ""
    named = scene.content[sentence.turn, sentence.first]
    offers = (
        s for s in scene.by_turn[turn] if cues.OFFER.search(s.lower) and not named & scene.content[s.turn, s.first]
    )
    return next(filter(None, map(tasks.offer, offers)), "")


def _is_before_it_begins(scene: Scene, sentence: Sentence) -> bool:
    """`Somebody should put a lifeguard on it. Right, shall we?`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    return sentence.turn < OPENING_TURNS and any(cues.BEGINS.search(s.lower) for s in later)


def _is_settled(scene: Scene, sentence: Sentence) -> bool:
    """Whether a question who does something is answered at once by what somebody always does: `I do that.`"""
    replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    return sentence.is_question and any(cues.DOES_ANYWAY.search(scene.text(t)) for t in replies)


def _shares(scene: Scene, sentence: Sentence, turn: int) -> bool:
    """Whether a turn speaks of the things that a sentence names, or of doing the same: `Somebody could go.` `I'll go.`"""
    does, did = (
        {t.lemma for s in part for t in s.tokens if t.tag == "VB"} for part in ([sentence], scene.by_turn[turn])
    )
    shared = scene.turn_content[turn] & scene.content[sentence.turn, sentence.first]
    return bool(shared or (does & did) - {"be", "have", "do"})


def _takes(scene: Scene, sentence: Sentence, turn: int) -> bool:
    """Whether an offer is of the task that was named: right behind it, without a task of its own, or of the same things."""
    if turn - sentence.turn == 1:
        return True
    offers = [s for s in scene.by_turn[turn] if cues.TAKING.search(s.lower)]
    own = frozenset().union(*(scene.content[s.turn, s.first] for s in offers))
    of_person = "|her|him" if re.search(r"\b(?:her|him)\b", sentence.lower) else ""
    refers = any(re.search(rf"\b(?:it|them|that|those{of_person})\b", s.lower) for s in offers)
    return len(own) <= 1 or refers or bool(own & scene.content[sentence.turn, sentence.first])
