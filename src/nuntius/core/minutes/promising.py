"""What a voice takes on itself: `I'll do it`, and `I can do it by Friday` where that binds."""

import re

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import (
    SHORTEST_TASK,
    answers_request,
    dismissed,
    empty,
    supposed,
    taken_along,
    unreal,
)
from nuntius.core.minutes.coreference import made_clear
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due, due_around, is_bare_day
from nuntius.core.minutes.findings import Finding
from nuntius.core.minutes.line import Passage
from nuntius.core.minutes.scene import Scene, passage

BRIEF = 8  # words of a turn that only asks or says when


def commitment(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I'll empty the shed`; with a date also `I can get it to you by Friday`, `it goes in this afternoon`."""
    lower = sentence.lower
    overtaken = cues.OVERTAKEN.search(lower)  # `I was going to … so I'll do them now`
    if errands.BE_THERE.match(lower):
        return _comes(scene, sentence)
    asks = (
        sentence.is_question
        and not errands.TAGGED.search(lower)
        and not errands.SO_ILL.match(lower)
        and not _is_let(scene, sentence)
    )
    if asks or (unreal(lower) and not overtaken) or dismissed(scene, sentence):
        return None
    if cues.IF_I_MUST.search(lower) or errands.NO_PROMISE.search(lower):
        return None
    if cues.MOVES.search(lower) and any(cues.SECONDED.search(scene.text(t)) for t in scene.following(sentence.turn, 2)):
        return None
    strong = _intent(scene, sentence)
    weak = None if strong else _promise(scene, sentence)
    match = strong or weak
    if match is None or _says_nothing(lower, match) or _negated(lower, match.end()):
        return None
    if supposed(scene, sentence) and (weak or lower.lstrip().startswith("then ")):
        return None
    day = due(scene, sentence, match.start(), own=True) or due_around(scene, sentence, own=True)
    text = errands.SHALL_I.sub("", tasks.task(sentence, requested=False)) or tasks.taken_on_then(sentence)
    text = text or (wording.statement(sentence.text) if weak or cues.PROMISE.search(lower) or day else "")
    if len(text.split()) < SHORTEST_TASK:
        bare = cues.BARE_INTENT.search(lower)
        if bare is None or bare.group(1) in cues.EMPTY_VERBS:
            return None
        text = f"{bare.group(1).capitalize()}."
    evidence = _with_prompt(scene, sentence)
    beside = errands.BESIDE_ME.search(sentence.text)
    others = [name for name, _ in scene.roster.find(beside["name"])] if beside else []
    owner: tuple[str, ...] = (sentence.speaker, *others[:1])
    if (other := taken_along(scene, sentence)) is not None:
        owner, evidence = (*owner, scene.speaker(other)), (*evidence, scene.whole(other))
    return Finding(sentence, made_clear(scene, sentence, text), owner, evidence, day, "commitment")


def _comes(scene: Scene, sentence: Sentence) -> Finding | None:
    """`I need you for a fitting.` `When?` `Thursday at four.` `I'll be there.`"""
    before = list(scene.preceding(sentence.turn, 2))
    if len(before) < 2 or scene.speaker(before[1]) != sentence.speaker or scene.speaker(before[0]) == sentence.speaker:
        return None
    days = [d for s in scene.by_turn[before[0]] if (d := in_sentence(scene, s)) is not None]
    if not days or not scene.by_turn[before[1]][-1].is_question:
        return None
    evidence = (scene.whole(before[0]), passage(sentence))
    return Finding(sentence, "Be there.", (sentence.speaker,), evidence, days[-1], "commitment")


def _is_let(scene: Scene, sentence: Sentence) -> bool:
    """`I'll book it, shall I?` `Please.`"""
    replies = scene.following(sentence.turn, 1) if errands.SHALL_I.search(sentence.lower) else ()
    return any(cues.WELCOME.search(scene.text(t)) or cues.ASSENT.search(scene.text(t)) for t in replies)


def _intent(scene: Scene, sentence: Sentence) -> re.Match[str] | None:
    """The words that bind by themselves: `I'll`, `Then I`, `I'd be glad to` where it was asked whether it should be done."""
    before = [scene.text(turn) for turn in scene.preceding(sentence.turn, 1)]
    glad = cues.GLAD_TO.match(sentence.lower) if any(map(cues.SHOULD_WE.search, before)) else None
    own_words = (errands.ID_BETTER, errands.FROM_ME, errands.OWN_TURN, errands.PUT_ME_DOWN)
    said = (
        glad,
        *cues.INTENT.finditer(sentence.lower),
        *(words.search(sentence.lower) for words in own_words),
        cues.THEN_I.match(sentence.lower),
    )
    return next((match for match in said if match and not _says_nothing(sentence.lower, match)), None)


def _says_nothing(lower: str, match: re.Match[str]) -> bool:
    """Whether the words of a promise are followed by nothing that can be done; `we'll let you know` is the whole of it."""
    if errands.ONLY_COULD.match(lower, match.start()):
        return True
    if errands.GET_BACK.match(lower, match.end()):
        return False
    whole = errands.LET_KNOW.match(lower, match.start()) or match.re is errands.PUT_ME_DOWN
    return empty(lower[match.end() :]) and not whole


def _promise(scene: Scene, sentence: Sentence) -> re.Match[str] | None:
    """The words that bind with a day or as an answer to a request: `I can`, `it goes in`."""
    lower = sentence.lower
    if (
        cues.REPORTED.search(lower)
        or cues.RISES.search(lower)
        or cues.OF_ALL.search(lower)
        or errands.NOT_TO_DO.search(lower)
        or errands.HAVE_DONE.match(lower)
    ):
        return None
    found = cues.PROMISE.search(lower)
    if found is None and answers_request(scene, sentence) and not cues.ON_SUCH_DAYS.search(lower):
        found = cues.PLAIN_PRESENT.search(lower)
    if found is None or not _is_bound(scene, sentence):
        return None
    return None if _asks_for_another_day(scene, sentence) or _excuses(scene, sentence) else found


def _asks_for_another_day(scene: Scene, sentence: Sentence) -> bool:
    """`I'm in Hull on the eighteenth. Could it be the twenty-fourth?`: the first day is none on which it is done."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    names = in_sentence(scene, sentence) is not None
    return names and any(s.is_question and in_sentence(scene, s) is not None for s in later)


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
    brief = [t for t in following if _is_brief(scene, t)]
    asked = [scene.by_turn[sentence.turn][-1].text, *(scene.text(t) for t in brief)]
    by_day = any(
        s.is_question and is_bare_day(s) and said_dates(s.text, scene.facts.day)
        for t in brief
        for s in scene.by_turn[t][:1]
    )
    return (
        dated
        or by_day
        or any(deadlines.GIVE_TIME.search(s.lower) for s in later)
        or any(deadlines.ASKED_WHEN.search(text) for text in asked)
        or (answers_request(scene, sentence) and not gives_reason(scene, sentence))
    )


def _is_brief(scene: Scene, turn: int) -> bool:
    return len(scene.text(turn).split()) <= BRIEF


def gives_reason(scene: Scene, sentence: Sentence) -> bool:
    """`Please send me the numbers. I have to put them into the system.`: why something is asked of another."""
    earlier = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first]
    return bool(cues.HAVE_TO.search(sentence.lower)) and any(cues.REQUEST.search(s.lower) for s in earlier[-1:])


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
