"""How what one voice names is received by the others: taken on, welcomed, refused, waved away."""

import re

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.en.names import is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due, due_around, is_bare_day
from nuntius.core.minutes.features import is_imperative
from nuntius.core.minutes.findings import Finding, speaks_of_other
from nuntius.core.minutes.scene import Scene, passage

SHORTEST_TASK = 2  # words
REACH = 4  # turns within which a request is taken or dismissed
BRIEF = 6  # words of a turn that takes something on by naming a day: `First thing tomorrow.`
WELCOME_REACH = 2  # turns within which an offer is welcomed


def takes_on(scene: Scene, turn: int) -> bool:
    """Whether a turn takes on what was asked: assent, an intention, or a day and little else."""
    said = scene.text(turn)
    intent = bool(cues.INTENT.search(said.lower()))
    if cues.REFUSAL.search(said) and not intent:
        return False
    away = bool(errands.ELSEWHERE.match(said))
    brief = len(said.split()) <= BRIEF and not scene.by_turn[turn][0].is_question and not away
    opening = scene.by_turn[turn][:2]
    agrees = any(cues.ASSENT.search(s.text) or (brief and cues.LATE_ASSENT.search(s.text)) for s in opening)
    if errands.EASILY.search(said):
        return True
    promised = bool(cues.PROMISED_YOU.search(said) or cues.TAKES_ME.search(said)) and not said.rstrip().endswith("?")
    promised = promised or bool(errands.AS_YOU_LIKE.match(said) or (not away and deadlines.I_THERE.search(said)))
    promised = promised or any(errands.READY_TO.match(s.text) for s in opening)
    promised = promised or bool(deadlines.WANTED_WHEN.search(said) or errands.HEAR_FROM_ME.search(said))
    return agrees or intent or promised or (brief and bool(said_dates(said, scene.facts.day)))


def echoes(scene: Scene, sentence: Sentence, turn: int) -> bool:
    """Whether a turn says again what was asked: `And send Vera the list.` `And send Vera the list, yes.`"""
    words, again = (re.findall(r"[\w']+", said.lower()) for said in (sentence.text, scene.text(turn)))
    if len(again) > 1 and not scene.text(turn).endswith("?") and set(again) <= set(words):
        return True  # `Send it to me by eight.` `By eight.`
    names = {part.lower() for person in scene.roster.people for part in person.split()}
    said = scene.content[sentence.turn, sentence.first] - names
    return (
        bool(said)
        and not scene.by_turn[turn][0].is_question
        and said <= scene.turn_content[turn]
        and not cues.REFUSAL.search(scene.text(turn))
    )


def takes(scene: Scene, sentence: Sentence, reply: int, asked: str | None) -> bool:
    """Whether a reply takes on what a sentence asks, or says it again; who was not `asked` by name may promise something else."""
    if asked is None and _begins_another(scene, sentence, reply):
        return False
    return takes_on(scene, reply) or echoes(scene, sentence, reply) or _finds_day(scene, reply)


def _finds_day(scene: Scene, reply: int) -> bool:
    """`Could you get it to me sooner?` `Thursday?` `Thursday would be wonderful.`: whether a day is put back that suits."""
    asked, *more = scene.by_turn[reply]
    day = in_sentence(scene, asked) if not more and asked.is_question and is_bare_day(asked) else None
    later = [s for t in scene.following(reply, 1) if scene.speaker(t) != asked.speaker for s in scene.by_turn[t][:1]]
    return day is not None and any(d.day == day.day for s in later if (d := in_sentence(scene, s)) is not None)


def _begins_another(scene: Scene, sentence: Sentence, reply: int) -> bool:
    """`Send it round before it goes.` `And I'll find a grandmother.`"""
    opening = scene.by_turn[reply][0]
    begins = cues.AND_ILL.match(opening.lower) or cues.ILL_SEND_YOU.match(opening.lower)
    return bool(begins) and speaks_of_other(scene, opening, (passage(sentence),))


def welcomed(scene: Scene, sentence: Sentence) -> int | None:
    """The turn by another voice that takes up an offer: `Would you?`, `Please do`, `I could ask her.` `Ask her.`"""
    offered = {t.lemma for t in sentence.tokens if t.tag == "VB"}
    near = set(scene.following(sentence.turn, WELCOME_REACH))
    for turn in scene.following(sentence.turn, REACH):
        if scene.speaker(turn) == scene.speaker(sentence.turn) or scene.backchannel[turn]:
            continue
        said = scene.text(turn)
        if cues.REFUSAL.search(said) or cues.DISMISSED.search(said):
            return None
        opening = scene.by_turn[turn][0]
        if cues.BARE_REQUEST.match(opening.text) or (turn in near and errands.SEALED.match(opening.text)):
            return turn
        if errands.SHALL_IT_BE_ME.search(sentence.lower) and turn == sentence.turn + 1 and _says_when(opening):
            return turn
        if turn in near and (cues.WELCOME.search(said) or any(_tells_to(s, offered) for s in scene.by_turn[turn])):
            return turn
    return None


def _says_when(sentence: Sentence) -> bool:
    """`Shall I ring him?` `After lunch.`"""
    brief = len(sentence.text.split()) <= BRIEF and not sentence.is_question
    return brief and bool(deadlines.AT_SUCH_TIME.match(sentence.text))


def we_could(scene: Scene, turn: int) -> bool:
    """Whether a turn offers what its voice and others could do, and that is welcomed: `We could do it tonight.` `Would you?`"""
    offers = any(cues.WE_COULD.search(s.lower) for s in scene.by_turn[turn])
    replies = (s for t in scene.following(turn, 1) for s in scene.by_turn[t][:1] if s.speaker != scene.speaker(turn))
    return offers and any(cues.BARE_REQUEST.match(s.text) for s in replies)


def _tells_to(sentence: Sentence, verbs: set[str]) -> bool:
    """`Then ask her, by all means.`, of one of these verbs."""
    return is_imperative(sentence) and any(t.dep == "ROOT" and t.lemma in verbs for t in sentence.tokens)


def reply_to(scene: Scene, turn: int, asked: str | None) -> int | None:
    """The turn that answers: by the one who was asked, else the next one by another voice."""
    speaker = scene.speaker(turn)
    others = [t for t in scene.following(turn, REACH) if scene.speaker(t) != speaker]
    if asked is not None and not is_label(scene.speaker(turn)):
        named = [t for t in others if scene.speaker(t) == asked]
        if named or any(scene.speaker(t) == asked for t in range(len(scene.transcript.turns))):
            return named[0] if named else None
    return others[0] if others else None


def all_others(scene: Scene, sentence: Sentence) -> tuple[str, ...]:
    """Everybody there but who speaks."""
    everybody = scene.facts.people or tuple(dict.fromkeys(turn.speaker for turn in scene.transcript.turns))
    return tuple(name for name in everybody if name != sentence.speaker)


def dismissed(scene: Scene, sentence: Sentence) -> bool:
    """Withdrawn by the speaker's next words or waved away by the next voice."""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    if any(re.search(r"\b(?:no,? forget|scrap that|actually,? no|never mind)\b", s.lower) for s in later[:2]):
        return True
    following = list(scene.following(sentence.turn, 1))
    return bool(following) and bool(
        cues.DISMISSED.search(scene.text(following[0])) and cues.REFUSAL.search(scene.text(following[0]))
    )


def dismissed_after(scene: Scene, turn: int) -> bool:
    return any(cues.DISMISSED.search(scene.text(t)) for t in scene.following(turn, 3))


def answers_request(scene: Scene, sentence: Sentence) -> bool:
    """Whether the turn before, by another voice, asks for something to be done."""
    for turn in scene.preceding(sentence.turn, 2):
        if scene.speaker(turn) == scene.speaker(sentence.turn) or errands.ELSEWHERE.match(scene.text(turn)):
            continue
        said = scene.text(turn).lower()
        return bool(
            cues.REQUEST.search(said)
            or errands.ASKS_TO_HAVE.search(said)
            or cues.UNTAKEN.search(said)
            or re.search(r"\bcan you\b", said)
        )
    return False


def exchange(scene: Scene, sentence: Sentence, reply: int, text: str, why: str) -> Finding:
    """What one voice names and another takes on in the turn `reply`; either may name the day."""
    answer = scene.by_turn[reply]
    does = {t.lemma for t in sentence.tokens if t.pos == "VERB"}
    same = [
        s for s in answer if does & {t.lemma for t in s.tokens if t.tag == "VB"}
    ]  # `Who asks the school?` `I'll ask the caretaker.`
    about = [s for s in answer if s is answer[0] or s in same or not speaks_of_other(scene, s, (passage(sentence),))]
    own = next((d for s in about if promises(s) and (d := in_sentence(scene, s))), None)
    day = _answered_day(scene, answer[0]) or own or due(scene, sentence)
    day = day or next((d for s in about if (d := due(scene, s, own=promises(s)))), None)
    day = day or _told_between(scene, sentence, reply) or due_around(scene, sentence)
    along = [t for s in scene.by_turn[reply] if (t := taken_along(scene, s)) is not None]
    turns = (reply, *along[:1])
    owner = tuple(scene.speaker(turn) for turn in turns)
    if cues.BOTH_OF_YOU.search(sentence.text):
        agreeing = (scene.speaker(t) for t in scene.following(reply, 1) if takes_on(scene, t))
        owner, text = last_two(scene, sentence, (*owner, *agreeing)), cues.BOTH_OF_YOU.sub("", text)
    return Finding(sentence, text, owner, (passage(sentence), *map(scene.whole, turns)), day, why)


def _answered_day(scene: Scene, answer: Sentence) -> SaidDate | None:
    """The day alone with which somebody answers: `Then you sign it before the tenth.` `By the ninth. All right.`"""
    asks = answer.is_question and not _finds_day(scene, answer.turn)
    day = in_sentence(scene, answer) if is_bare_day(answer) and not asks else None
    return None if day is None or deadlines.PART_OF_DAY.match(day.said.lower()) else day


def _told_between(scene: Scene, sentence: Sentence, reply: int) -> SaidDate | None:
    """`Who's meeting them?` `When's the train?` `Ten past four on Friday.` `I can do that.`: what was asked for first."""
    between = range(sentence.turn + 1, reply)
    asked = [t for t in between if scene.speaker(t) == scene.speaker(reply) and scene.by_turn[t][-1].is_question]
    told = [s for t in between if asked and t > asked[0] for s in scene.by_turn[t] if len(s.text.split()) <= BRIEF]
    return next((d for s in told if not s.is_question and (d := in_sentence(scene, s))), None)


def last_two(scene: Scene, sentence: Sentence, known: tuple[str, ...] = ()) -> tuple[str, ...]:
    """The two to whom `you two` is said: who is known, then the other voices that spoke last."""
    before = (scene.speaker(turn) for turn in scene.preceding(sentence.turn, REACH))
    return tuple(name for name in dict.fromkeys((*known, *before)) if name != sentence.speaker)[:2]


def promises(sentence: Sentence) -> bool:
    binds = cues.INTENT.search(sentence.lower) or cues.WE_COULD.search(sentence.lower)
    return bool(binds or cues.PROMISED_YOU.search(sentence.lower))


def taken_along(scene: Scene, sentence: Sentence) -> int | None:
    """The turn in which another agrees to do it, too: `I can do that with Lotte.` `Yep.`"""
    named = {name for name, at in scene.roster.find(sentence.text) if sentence.text[:at].endswith("with ")}
    replies = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) in named]
    return next((t for t in replies if takes_on(scene, t)), None)


def supposed(scene: Scene, sentence: Sentence) -> bool:
    """Whether it answers what would be done: `And if they're bigger?`, `What would you do today?`"""
    before = [scene.by_turn[t][-1] for t in scene.preceding(sentence.turn, 1) if scene.by_turn[t]]
    return any((s.is_question and cues.IF_FIRST.search(s.lower)) or cues.WHAT_WOULD.search(s.lower) for s in before)


def unreal(lower: str) -> bool:
    supposed = cues.CONDITIONAL.search(lower) or cues.IF_OTHERS.search(lower)
    return bool(supposed or cues.PAST.search(lower) or cues.PROCEDURE.search(lower))


def empty(rest: str) -> bool:
    """Whether the verb after a cue says nothing that can be done."""
    words = re.findall(r"[a-z']+", rest)
    while words and (words[0] in ("just", "then", "also", "all", "now", "to", "be") or words[0].endswith("ly")):
        if words[0] == "be":
            return not re.match(
                r"be (?:there|here)\b.*\bto (?:let|open|help|take|bring|fetch|meet|set|show|lock|sign|do)\b|be (?:on|back|in (?:touch|contact)|(?:writ|send|ring|call|order|print|bring|mak|mail|email|book|draft|prepar)ing)\b",
                " ".join(words),
            )
        words.pop(0)
    while words[:2] == ["have", "to"]:
        words = words[2:]
    if words[:1] == ["have"]:  # `have the list ready`, `have it sent` and `have the office ring` are tasks
        return not re.search(
            r"\bhave (?:it|them|that) (?:up )?(?:on|at|by) (?:the|your) |\b(?:out|ready|done|sent|finished|in|on (?:from|by|before)|up|off|round|a (?:\w+ )?(?:word|go|try)|a look (?:at|after|before|tomorrow|tonight|on \w+day)|with you|on your desk|by|\w{3,}ed|brought|taken|put|made|written|cut|built|seen|here)\b|"
            r"\bhave (?:him|her|them|(?:the|my|our) \w+) (?:go|look|check|send|call|ring|make|put|write|get|bring|take|fix|sort)\b",
            rest,
        )
    return not words or (words[0] in cues.EMPTY_VERBS and not cues.FILLED.match(" ".join(words)))
