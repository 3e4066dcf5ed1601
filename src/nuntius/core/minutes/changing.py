"""What later words change of an action: the day by which it is due, and who joins in."""

from dataclasses import replace

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.acceptance import REACH, unreal
from nuntius.core.minutes.days_named import in_sentence, named_before
from nuntius.core.minutes.due import by_next_meeting, is_bare_day
from nuntius.core.minutes.features import is_imperative
from nuntius.core.minutes.findings import Finding, speaks_of_other
from nuntius.core.minutes.line import Passage
from nuntius.core.minutes.scene import Scene, passage

JOINING_REACH = 3  # turns within which somebody joins in a task
MAY_ASK_OF_ALL = frozenset(  # verbs of `When do you want it?`, of whatever is done
    "want need like have do be know get see start finish manage hear expect can make come go say think suit".split()
)
BRIEF = 8  # words of a sentence that moves the day of a task and says little else


def deadline_set(scene: Scene, sentence: Sentence, findings: list[Finding]) -> Finding | None:
    """The last finding with the day that `I'd need them by the fourth` sets for it."""
    if not findings or sentence.turn - findings[-1].evidence[-1].turn > REACH:
        return None
    last = findings[-1]
    own = last.owner == (sentence.speaker,) or last.sentence.turn == sentence.turn
    brief = last.due is not None and len(sentence.text.split()) <= BRIEF
    again = any(
        deadlines.MEETING_AGAIN.search(scene.text(t)) for t in range(max(0, sentence.turn - 2), sentence.turn + 1)
    )
    between = range(last.evidence[-1].turn + 1, sentence.turn)
    other = any(deadlines.WHEN_WE.search(scene.text(turn)) for turn in between)  # another day is looked for
    other = other or sentence.speaker not in {*last.owner, *(scene.speaker(p.turn) for p in last.evidence)}
    moved = brief and not other and deadlines.DAY_MOVED.search(sentence.lower)
    told = any(cue.search(sentence.lower) for cue in (deadlines.HAD_BY, deadlines.GIVE_TIME, errands.HEAR_FROM_ME))
    asked_before = any(s.is_question for t in scene.preceding(sentence.turn, 1) for s in scene.by_turn[t][-1:])
    by_owner = (
        own
        and not cues.IF.search(sentence.lower)
        and (told or (not again and _names_other_day(scene, sentence, last.evidence)))
    )
    says = (
        (moved and not again)
        or by_owner
        or (deadlines.WANTED_BY.search(sentence.lower) and sentence.speaker not in last.owner)
        or cues.PLEASE_DO.match(sentence.text)
        or (last.due is None and not asked_before and deadlines.DAY_WILL_DO.search(sentence.lower))
    )
    says = (
        says
        or _wanted_then(scene, sentence, last)
        or (own and (_moved_on(scene, sentence) or _offers_other(scene, sentence)))
    )
    if sentence.speaker not in last.owner:
        pressed = deadlines.BARE_DEADLINE.match(sentence.lower)
        says = says or pressed or _sealed(scene, sentence, last) or _told_when(sentence, last)
    then = own and deadlines.DONE_BY_THEN.search(sentence.lower)
    day = in_sentence(scene, sentence) or by_next_meeting(scene, sentence)
    day = day or (named_before(scene, sentence) if then else None)
    if not (says or then) or day is None:
        return None
    if deadlines.PART_OF_DAY.match(day.said.lower()) and not (told or deadlines.WANTED_BY.search(sentence.lower)):
        return None  # `Thursday week. In the morning, please.`
    return replace(last, due=day, evidence=tuple(sorted({*last.evidence, passage(sentence)})))


def _moved_on(scene: Scene, sentence: Sentence) -> bool:
    """`I'll go on Saturday.` `Saturday's too late.` `Thursday morning, before it goes off.`"""
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    refused = any(deadlines.TOO_LATE.search(s.lower) for t in before for s in scene.by_turn[t][-1:])
    return refused and len(sentence.text.split()) <= BRIEF and not sentence.is_question


def _offers_other(scene: Scene, sentence: Sentence) -> bool:
    """`Can you do it this week?` `This week's no good. Tuesday?` `Tuesday's fine.`"""
    before = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]
    refused = any(deadlines.TOO_LATE.match(s.lower) for s in before)
    if not refused or not sentence.is_question or not is_bare_day(sentence):
        return False
    replies = [scene.by_turn[t][0] for t in scene.following(sentence.turn, 1)]
    return any(cues.ASSENT.search(s.text) or deadlines.DAY_SUITS.match(s.lower) for s in replies)


def _wanted_then(scene: Scene, sentence: Sentence, last: Finding) -> bool:
    """`I can dig it out.` `Send it round on Monday.`: the day of what was just taken on, said by another to whom took it."""
    named = in_sentence(scene, sentence)
    later = last.due is not None and (named is None or named.day >= last.due.day)
    if later or not errands.SENDS_IT.match(sentence.lower) or sentence.speaker in last.owner:
        return False
    replies = [scene.speaker(t) for t in scene.following(sentence.turn, 1)]
    return sentence.turn == last.evidence[-1].turn + 1 and tuple(replies) == last.owner


def _sealed(scene: Scene, sentence: Sentence, last: Finding) -> bool:
    """`I'll take your shift.` `Next Thursday? Deal.`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last][:1]
    near = sentence.is_question and is_bare_day(sentence) and sentence.turn == last.evidence[-1].turn + 1
    return near and any(errands.SEALED.match(s.lower) or cues.ASSENT.search(s.text) for s in later)


def _told_when(sentence: Sentence, last: Finding) -> bool:
    """`I'll have to change the poster.` … `Then change it tonight.`: the same again, and when."""
    does = {t.lemma for t in sentence.tokens if t.dep == "ROOT"} & {t.lemma for t in last.sentence.tokens}
    things = (t for t in sentence.tokens if t.pos in ("NOUN", "PROPN") and not cues.TIME_NOUN.fullmatch(t.lemma))
    return is_imperative(sentence) and bool(does) and not any(things)


def _names_other_day(scene: Scene, sentence: Sentence, evidence: tuple[Passage, ...]) -> bool:
    """Whether words name a day again: `That's the second of April`, or a few behind another's proposal of a day."""
    before = [t for t in scene.preceding(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    last = [scene.by_turn[t][-1] for t in before if scene.by_turn[t]]
    asked = [s for s in last if s.is_question and not speaks_of_other(scene, s, evidence)]
    if deadlines.THAT_IS.match(sentence.lower):
        return bool(asked) or not any(s.is_question for s in last)
    asked = [s for s in asked if not _of_other_doing(scene, s, evidence)]
    proposed = any(in_sentence(scene, s) is not None or deadlines.ASKED_WHEN.search(s.text) for s in asked)
    proposed = proposed or any(is_bare_day(s) and in_sentence(scene, s) is not None for s in last)
    verb = any(t.pos in ("VERB", "AUX") for t in sentence.tokens) and not deadlines.DEADLINE_FIRST.match(sentence.lower)
    return proposed and not verb and not sentence.is_question and len(sentence.text.split()) <= BRIEF


def _of_other_doing(scene: Scene, question: Sentence, evidence: tuple[Passage, ...]) -> bool:
    """`When do you want to walk round?`, behind a task that has nothing of that."""
    own = {t.lemma for t in question.tokens if t.pos == "VERB" and t.lemma not in MAY_ASK_OF_ALL}
    return bool(own) and not own & {t.lemma for s in scene.inside(evidence) for t in s.tokens}


def joining_in(scene: Scene, sentence: Sentence, findings: list[Finding]) -> Finding | None:
    """The last finding with another voice that takes a part in it: `I'll hold your tape`, `I'll go with him`."""
    if not findings or not findings[-1].owner or sentence.turn - findings[-1].evidence[-1].turn > JOINING_REACH:
        return None
    last = findings[-1]
    says = cues.JOINING_IN.search(sentence.lower)
    if sentence.is_question or says is None or sentence.speaker in last.owner or is_label(last.owner[0]):
        return None
    if unreal(sentence.lower) or cues.REFUSAL.search(sentence.lower):
        return None
    between = range(last.evidence[-1].turn + 1, sentence.turn)
    if cues.ME_TOO.match(sentence.lower) and any(s.is_question for t in between for s in scene.by_turn[t]):
        return None  # it answers that
    own = in_sentence(scene, sentence)
    evidence = tuple(sorted({*last.evidence, passage(sentence)}))
    return replace(last, owner=(*last.owner, sentence.speaker), due=own or last.due, evidence=evidence)
