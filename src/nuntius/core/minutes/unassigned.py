"""What has to be done and is asked of nobody in particular: taken by whoever says so next, else nobody's."""

import re

from nuntius.core.language.en import cues, errands
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import (
    REACH,
    SHORTEST_TASK,
    dismissed_after,
    empty,
    exchange,
    reply_to,
    takes_on,
    unreal,
    we_could,
)
from nuntius.core.minutes.coreference import spoken_of
from nuntius.core.minutes.due import due
from nuntius.core.minutes.findings import Finding, is_bare
from nuntius.core.minutes.scene import Scene, passage

OPENING_TURNS = 12  # within which a meeting begins


def untaken(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Somebody's got to ring them`: taken by whoever says so next, else nobody's."""
    lower = sentence.lower
    match = cues.UNTAKEN.search(lower) or (errands.WHO_DOES.search(lower) if sentence.is_question else None)
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
        own = own or (not other and any(errands.ME_THEN.match(s.lower) for s in scene.by_turn[turn]))
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
