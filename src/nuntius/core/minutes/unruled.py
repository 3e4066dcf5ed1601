"""Actions that no rule knows by their words: they are known by how likely they are, how they are said and received."""

import re

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import REACH, dismissed, empty, exchange, reply_to, supposed, takes, unreal
from nuntius.core.minutes.coreference import made_clear
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due, due_around
from nuntius.core.minutes.features import tells_to
from nuntius.core.minutes.findings import Finding
from nuntius.core.minutes.promising import gives_reason
from nuntius.core.minutes.scene import Scene, passage

LEAST_SAID = 4  # words of a task that no rule found
SURELY = 0.85  # likelihood from which what somebody is told to do by a day needs no answer


def likely_finding(scene: Scene, sentence: Sentence, likelihood: float) -> Finding | None:
    """An action known by how it is said and received: what the words leave, and whoever they point to."""
    lower = sentence.lower
    if sentence.is_question and likelihood >= SURELY:
        return _asked_by_day(scene, sentence)
    if sentence.is_question or unreal(lower) or dismissed(scene, sentence) or cues.REFUSAL.search(lower):
        return None
    if supposed(scene, sentence) and lower.lstrip().startswith("then "):
        return None  # `And if they won't?` `Then we ask the cyclists.`
    settles = cues.DECIDED.search(lower) and not cues.INTENT.search(lower)
    if (
        settles
        or errands.NO_TASK.search(lower)
        or errands.NOT_TO_DO.search(lower)
        or errands.HAVE_DONE.match(lower)
        or errands.NO_PROMISE.search(lower)
        or errands.WISHES.search(lower)
        or errands.ONLY_COULD.search(lower)
        or cues.IF_I_MUST.search(lower)
        or any(
            t.dep == "ROOT" and (t.tag == "VBD" or (t.lemma == "be" and likelihood < SURELY)) for t in sentence.tokens
        )
        or cues.ASKS_FIRST.search(lower)
        or deadlines.AWAY.search(lower)
        or gives_reason(scene, sentence)
    ):
        return None
    text = tasks.task(sentence, requested=False) or tasks.doing(sentence) or wording.resolution(sentence.text)
    if (cues.IF_FIRST.match(text) and "," not in text) or errands.IF_I_DO_IT.search(lower):
        return None  # a condition whose consequence is no task
    if len(text.split()) < LEAST_SAID or empty(text.lower()) or not any(t.pos == "VERB" for t in sentence.tokens):
        return None
    asked = scene.roster.addressee(sentence.text)
    reply = reply_to(scene, sentence.turn, asked)
    if cues.OFFER.search(lower) and not _is_let(scene, sentence, reply):
        return None
    if cues.NEEDS.search(lower):
        said = scene.text(reply) if reply is not None else ""
        taken = cues.INTENT.search(said.lower()) or errands.GLADLY.search(said)
        return exchange(scene, sentence, reply, text, "taken up") if taken and reply is not None else None
    tells = tells_to(sentence) or (likelihood >= SURELY and bool(errands.YOU_GO.match(lower)))
    if tells and (asked or "please" in lower or errands.IF_YOU_WOULD.search(lower)):
        return _told_to(scene, sentence, text, asked) or _told_by_day(scene, sentence, likelihood)
    own = re.search(r"\b(?:i|i'\w+|we|we'\w+)\b", lower) or cues.PROMISED_YOU.search(lower)
    if tells or not own:
        said = scene.text(reply) if reply is not None else ""
        agreed = (cues.ASSENT.search(said) or errands.ASKS_HOW.match(said)) and not cues.REFUSAL.search(said)
        if agreed and reply is not None:
            return exchange(scene, sentence, reply, text, "said as one")
        return _told_by_day(scene, sentence, likelihood) if tells else None
    day = due(scene, sentence, own=True) or due_around(scene, sentence, own=True)
    return Finding(sentence, text, (sentence.speaker,), (passage(sentence),), day, "said as one")


def _told_to(scene: Scene, sentence: Sentence, text: str, asked: str | None) -> Finding | None:
    """What somebody is told to do: by name, or taken on a little later: `Send him down, please.` `He's on lates.` `Then at two.` `Okay.`"""
    for turn in scene.following(sentence.turn, REACH):
        if scene.speaker(turn) == sentence.speaker or asked not in (None, scene.speaker(turn)):
            continue
        if cues.REFUSAL.search(scene.text(turn)):
            return None
        if takes(scene, sentence, turn, asked):
            return exchange(scene, sentence, turn, text, "told and taken")
    if asked is None and errands.IF_YOU_WOULD.search(sentence.lower):
        reply = reply_to(scene, sentence.turn, None)  # `Bring your own mug, if you would.` `I never go without it.`
        return exchange(scene, sentence, reply, text, "told and taken") if reply is not None else None
    if asked is None or all(turn.speaker != asked for turn in scene.transcript.turns):
        return None
    return Finding(sentence, text, (asked,), (passage(sentence),), due(scene, sentence), "assignment")


def _asked_by_day(scene: Scene, sentence: Sentence) -> Finding | None:
    """What somebody is asked by name for a day and does not refuse: `Obi, can you have it out by Friday?` `It's written, I only …`"""
    asked, day = scene.roster.addressee(sentence.text), in_sentence(scene, sentence)
    reply = reply_to(scene, sentence.turn, asked) if asked else None
    if asked is None or reply is None or day is None or not cues.REQUEST.search(sentence.lower):
        return None
    text = tasks.task(sentence, requested=True)
    if cues.REFUSAL.search(scene.text(reply)) or len(text.split()) < LEAST_SAID or empty(text.lower()):
        return None
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(sentence, made_clear(scene, sentence, text), (asked,), evidence, day, "request")


def _told_by_day(scene: Scene, sentence: Sentence, likelihood: float) -> Finding | None:
    """What whoever spoke before is told to do: `It's in the car.` `Bring it to the store by tonight.`, `Send me the list and I'll …`"""
    before = [scene.speaker(t) for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    day = in_sentence(scene, sentence)
    dated = day is not None and day.start > 0
    trades = " me " in sentence.lower and bool(cues.AND_I.search(sentence.lower))
    if likelihood < SURELY or not (dated or trades) or not before or deadlines.GIVE_TIME.search(sentence.lower):
        return None
    return Finding(sentence, tasks.order(sentence.text), (before[0],), (passage(sentence),), day, "assignment")


def _is_let(scene: Scene, sentence: Sentence, reply: int | None) -> bool:
    """Whether an offer stands: with a day or what is only wanted for it, or where it is agreed to, and never refused."""
    said = scene.text(reply) if reply is not None else ""
    stands = in_sentence(scene, sentence) is not None or bool(errands.IF_YOU_GIVE.search(sentence.lower))
    return not cues.REFUSAL.search(said) and (stands or bool(cues.ASSENT.search(said)))
