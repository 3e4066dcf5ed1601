"""When an action is due: the day named with it, in its own sentence, its turn or the answers right behind it."""

import re
from collections.abc import Callable, Iterator
from dataclasses import replace
from datetime import date, timedelta

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import MONTHS, SaidDate, said_dates
from nuntius.core.language.en.other_days import BY_ANOTHER, within
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.days_named import NAMES_MONTH, in_sentence, named_before
from nuntius.core.minutes.findings import speaks_of_other
from nuntius.core.minutes.meeting_again import next_meeting
from nuntius.core.minutes.scene import Scene, passage

NOW = re.compile(r"\bi(?:'ll| will|'m going to|'d| can| could)\b.*(?<!from )\b((?:right )?now)\b(?! that| on\b)", re.I)
FROM_DAY = re.compile(r"\bfrom (?=the \w|\w+day\b|tomorrow|next )", re.I)  # when it is begun, if no other is named
LED_IN = re.compile(r"\W*(?:by|before|on|until|till|in|at|end|for|not)\b", re.I)
FOR_MONTH = re.compile(rf"\b(?:for|back in) ({'|'.join(MONTHS)})(?! the\b| \d)\b", re.I)  # in which they meet again
AGAIN_REACH = 3  # sentences before a task in which the next meeting may be named
BESIDE = 3  # turns behind an action in which its day may be asked for and named
BARE = 10  # words of a question or a turn that does not lead away from the action
BRIEF = 6  # words of a sentence behind a day that still belongs to it
EVENING = 18  # o'clock
BARE_DAY = 4  # words of a sentence that names a day and little else


def due(scene: Scene, sentence: Sentence, start: int = 0, own: bool = False) -> SaidDate | None:
    """The day by which the task of a sentence is due, with the words that name it; never an event's day.

    `start` is where in the sentence the task begins: a day behind it goes before one that stands ahead. `own` says
    that the speaker takes the task on, so that what others promise behind it is not about it.
    """
    ways: tuple[Callable[[], SaidDate | None], ...] = (
        lambda: by_next_meeting(scene, sentence),
        lambda: _supposed_for(scene, sentence) if own else None,
        lambda: _before_away(scene, sentence),
        lambda: _in_own_words(scene, sentence, start),
        lambda: _at_that_time(scene, sentence),
        lambda: _just_named(scene, sentence),
        lambda: _right_before(scene, sentence),
        lambda: _before_coming(scene, sentence),
        lambda: _there_then(scene, sentence),
        lambda: _said_behind(scene, sentence, own),
        lambda: _meeting_before(scene, sentence) if deadlines.BRING.search(sentence.text) else None,
        lambda: _begun(scene, sentence) if own else None,
        lambda: _hour_answered(scene, sentence),
        lambda: _time_answered(scene, sentence),
        lambda: _by_end_of_month(scene, sentence) if own else None,
        lambda: _at_hour(scene, sentence, own),
        lambda: _hour_before(scene, sentence) if own else None,
    )
    return next((day for way in ways if (day := way()) is not None), None)


def _in_own_words(scene: Scene, sentence: Sentence, start: int) -> SaidDate | None:
    found = in_sentence(scene, sentence, start)
    return _exactly(scene, sentence, found) if found is not None else None


def _before_away(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`I'm off from the twelfth to the nineteenth. I'll write it up before I go.`: the day on which the absence begins."""
    if not deadlines.BEFORE_I_GO.search(sentence.lower):
        return None
    near = [s for t in (*scene.preceding(sentence.turn, 2), sentence.turn) for s in scene.by_turn[t]]
    told = [(s, m) for s in near if s.speaker == sentence.speaker and (m := deadlines.I_AM_OFF.search(s.lower))]
    return next((d for s, m in told for d in said_dates(s.text, scene.facts.day) if d.start >= m.start()), None)


def _at_that_time(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day named before a sentence that says `before then` or `while you're there`."""
    says = deadlines.BEFORE_THAT.search(sentence.lower) and not deadlines.SO_THEN.search(sentence.lower)
    return named_before(scene, sentence) if says else None


def _said_behind(scene: Scene, sentence: Sentence, own: bool) -> SaidDate | None:
    """The day that the words behind a task give, but not what others promise behind one that the speaker takes on."""
    for other in _behind(scene, sentence):
        promised = deadlines.HAD_BY.search(other.lower) or cues.INTENT.search(other.lower)
        if own and promised and other.speaker != sentence.speaker:
            continue
        if (found := in_sentence(scene, other) or by_next_meeting(scene, other)) is not None:
            return found
    return None


def _begun(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day from which something is done, where no other is named: `I'll come in from Monday.`"""
    begun = FROM_DAY.search(sentence.text)
    days = said_dates(sentence.text, scene.facts.day) if begun else []
    return next((day for day in days if begun and day.start == begun.end()), None)


def _by_end_of_month(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`I'll clear out the shed in June.`: the end of that month."""
    month = deadlines.IN_MONTH_AT_END.search(sentence.text)
    end = said_dates(f"end of {sentence.text[month.end() :]}", scene.facts.day) if month else []
    return replace(end[0], said=sentence.text[month.start() :].rstrip(" .!")) if month and end else None


def _at_hour(scene: Scene, sentence: Sentence, own: bool) -> SaidDate | None:
    """The day of `now` or of an hour: `I'll ring them at nine`; of what is asked of others only `by four`."""
    if not own:
        hour = deadlines.BY_HOUR.search(sentence.text)
    elif deadlines.AND_WE_MEET.search(sentence.text):
        return None
    elif (now := NOW.search(sentence.text)) is not None:
        return SaidDate(scene.facts.day, now.group(1), now.start(), now.end())
    else:
        hour = deadlines.AT_HOUR.search(sentence.text)
    if hour is None:
        return None
    return SaidDate(_day_of_hour(scene, sentence, hour.group()), hour.group(), hour.start(), hour.end())


def _hour_before(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`The post goes at five. I'll put it in.`: the day of that hour."""
    before = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]
    said = next((m for s in before if (m := deadlines.GOES_AT.match(s.text)) is not None), None)
    if said is None:
        return None
    return SaidDate(_day_of_hour(scene, sentence, said["hour"]), said["hour"], said.start("hour"), said.end("hour"))


def _hour_answered(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`Then I sit with them. When's that?` `About nine.`: the day of that hour."""
    asked = deadlines.ASKED_WHEN.search(scene.by_turn[sentence.turn][-1].text)
    replies = [s for t in scene.following(sentence.turn, 1) for s in scene.by_turn[t][:1]] if asked else []
    said = next((s for s in replies if deadlines.BARE_HOUR.match(s.text)), None)
    if said is None:
        return None
    hour = said.text.strip(" .,")
    in_evening = scene.facts.begun is not None and scene.facts.begun.hour >= EVENING  # when nine is that of tonight
    day = scene.facts.day if in_evening else _day_of_hour(scene, said, hour)
    return SaidDate(day, hour, 0, len(said.text))


def _time_answered(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`I'll get the quotes in.` `How soon?` `Couple of days.`"""
    asked = [t for t in scene.following(sentence.turn, 1) if deadlines.ASKED_WHEN.search(scene.by_turn[t][-1].text)]
    replies = [t for turn in asked for t in scene.following(turn, 1) if scene.speaker(t) == sentence.speaker]
    return next((d for t in replies if (d := within(scene.by_turn[t][0].text, scene.facts.day))), None)


def _right_before(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day that the words right before a task give: `Wednesday's fine. I'll bring them in.`, `They come on Thursday. I'll let them in.`"""
    before = next(iter([s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]), None)
    if before is None or before.is_question:
        return None
    comes = deadlines.COMES.search(before.lower) and deadlines.LETS_IN.search(sentence.lower)
    hears = errands.HEAR_FROM_ME.search(before.lower)  # `You'll hear from us by Wednesday. I'll ring you myself.`
    days = said_dates(before.text, scene.facts.day)
    if days and deadlines.HAPPENS.search(before.text[: days[0].start]):
        return days[0]  # `We've got an open evening on the tenth. Somebody needs to do the door.`
    if not (comes or hears or deadlines.DAY_SUITS.match(before.lower) or deadlines.AT_THAT_TIME.search(sentence.lower)):
        return None
    return next(iter(days), None)


def _before_coming(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`They come on Monday.` `I'll have the room cleared before they come.`"""
    if not deadlines.BEFORE_COMING.search(sentence.lower):
        return None
    near = (s for t in (sentence.turn, *scene.preceding(sentence.turn, 2)) for s in reversed(scene.by_turn[t]))
    comes = (s for s in near if (s.turn, s.first) < (sentence.turn, sentence.first) and deadlines.COMES.search(s.lower))
    return next((d for s in comes for d in reversed(said_dates(s.text, scene.facts.day))), None)


def due_around(scene: Scene, sentence: Sentence, own: bool = False) -> SaidDate | None:
    """The day of a task that has none of its own: of what was demanded, or of where it is done."""
    return _demanded(scene, sentence, own) or _at_event(scene, sentence)


def _demanded(scene: Scene, sentence: Sentence, own: bool) -> SaidDate | None:
    """The day by which what is taken on has to be done, said right before: `They want an answer by Friday. I'll give them one.`

    `own` says that the speaker takes the task on, and so perhaps what another demanded.
    """
    earlier = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]
    if not earlier:
        earlier = [s for t in scene.preceding(sentence.turn, 1) for s in scene.by_turn[t][-2:]]
        asked = earlier[-1] if own and earlier and earlier[-1].is_question else None
        asks = asked is not None and (is_bare_day(asked) or asked.lower.lstrip().startswith("who"))
        if asked and asks and (day := in_sentence(scene, asked) or _just_named(scene, asked)) is not None:
            return day  # `A week on Friday?` `You'll have them.`
    for other in reversed(earlier):
        then = sentence.lower.lstrip().startswith(("then ", "so "))
        if not (
            other.is_question or then or deadlines.IT_AGAIN.search(sentence.lower) or _shares_things(sentence, other)
        ):
            continue
        wants = deadlines.WANTS.search(other.lower)
        if deadlines.IS_DEADLINE.search(other.text):
            return in_sentence(scene, other)
        if wants and BY_ANOTHER.search(other.text):
            return in_sentence(scene, other)  # `I need the slides the day before the conference.`
        if wants and deadlines.BEFORE_THAT.search(other.lower):
            return named_before(scene, other)
        if deadlines.AS_AGREED.search(other.lower) or deadlines.BARE_DEADLINE.match(other.lower):
            return in_sentence(scene, other)
        for day in said_dates(other.text, scene.facts.day):
            if deadlines.DEMANDS.search(other.text[: day.start]):
                return day
    return None


def _at_event(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day of what was spoken of right before somebody says that he goes there or brings something."""
    if not deadlines.GOES_THERE.search(sentence.lower):
        return None
    before = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first]
    before = [*(s for t in reversed(list(scene.preceding(sentence.turn, 2))) for s in scene.by_turn[t]), *before]
    days = (d for s in reversed(before) for d in reversed(said_dates(s.text, scene.facts.day)))
    return next(days, None)


def _shares_things(a: Sentence, b: Sentence) -> bool:
    """Whether two sentences speak of one thing."""
    of_a, of_b = ({t.lemma for t in s.tokens if t.pos in ("NOUN", "PROPN", "VERB")} for s in (a, b))
    return bool((of_a & of_b) - {"be", "have", "do", "get", "go", "need", "want"})


def _day_of_hour(scene: Scene, sentence: Sentence, said: str) -> date:
    """The day of the meeting, or the next one where the hour is past by then: `at nine`, said in the afternoon."""
    begun, hour = scene.facts.begun, deadlines.hour_of(said)
    if begun is None or hour is None:
        return scene.facts.day
    by_now = begun.hour + begun.minute / 60 + scene.transcript.turns[sentence.turn].start / 3600
    return scene.facts.day + timedelta(1 if hour <= by_now else 0)


def by_next_meeting(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day of the next meeting, where a sentence speaks of that or of its month: `I'll work it out for January.`"""
    if deadlines.NEXT_MEETING.search(sentence.text):
        return next_meeting(scene) or _which_is(scene, sentence)
    month = FOR_MONTH.search(sentence.text)
    again = next_meeting(scene) if month else None
    return again if month and again and month.group(1).lower() == MONTHS[again.day.month - 1] else None


def _which_is(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`By the next meeting.` `Which is the third of June.`"""
    behind = [s for t in (sentence.turn, *scene.following(sentence.turn, 1)) for s in scene.by_turn[t][:2]]
    told = (s for s in behind if s.turn > sentence.turn or s.first > sentence.first)
    named = (d for s in told if deadlines.THAT_IS.match(s.lower) for d in said_dates(s.text, scene.facts.day))
    return next(named, None)


def _meeting_before(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day of the next meeting, where it was named right before: `Next time's the eleventh. Lorna, you'll bring cake.`"""
    at = scene.index[sentence.turn, sentence.first]
    before = [
        s
        for s in scene.sentences[max(0, at - AGAIN_REACH) : at]
        if s.turn == sentence.turn or s is scene.sentences[at - 1]
    ]
    return next_meeting(scene) if any(deadlines.MEETING_AGAIN.search(s.text) for s in before) else None


def _exactly(scene: Scene, sentence: Sentence, found: SaidDate) -> SaidDate:
    """The day as the next words give it: `so the Monday after. The twenty-eighth.`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last][:1]
    if later and len(later[0].text.split()) <= BARE_DAY and not later[0].is_question:
        return in_sentence(scene, later[0]) or found
    return found


def _behind(scene: Scene, sentence: Sentence) -> Iterator[Sentence]:
    """Sentences that may name the day: the rest of the turn, then what answers `when?` or repeats a bare day."""
    for other in scene.by_turn[sentence.turn]:
        if other.first > sentence.first:
            begins = cues.INTENT.search(other.lower) or cues.REQUEST.search(other.lower)
            does = any(t.pos in ("VERB", "AUX") for t in other.tokens)  # as `Now, please.` does not
            if begins and does and not deadlines.HAVE_IT.search(other.lower):
                break  # another task begins
            if any(c.search(other.lower) for c in (deadlines.AWAY, deadlines.NOT_WANTED, deadlines.OF_WEATHER)):
                continue
            if not other.is_question or len(other.text.split()) <= BARE:
                yield other
    if deadlines.AND_WE_MEET.search(sentence.text):
        return  # a day behind it is when they meet
    asked = bool(deadlines.ASKED_WHEN.search(scene.by_turn[sentence.turn][-1].text))
    for turn in scene.following(sentence.turn, BESIDE):
        if deadlines.MEETING_AGAIN.search(scene.text(turn)):
            return
        asks = [other for other in scene.by_turn[turn] if cues.REQUEST.search(other.lower)]
        if any(speaks_of_other(scene, other, (passage(sentence),)) for other in asks):
            return  # another task begins
        brief = {other for other in scene.by_turn[turn] if is_bare_day(other) and not _opens_subject(scene, other)}
        told = [other for other in scene.by_turn[turn] if not other.is_question or (asked and other in brief)]
        yield from (other for other in told if asked or other in brief)
        when = [other for other in scene.by_turn[turn] if other.is_question and deadlines.ASKED_WHEN.search(other.text)]
        proposed = [other for other in scene.by_turn[turn] if other.is_question and _names_day(scene, other)]
        if any(speaks_of_other(scene, other, (passage(sentence),)) for other in [*when, *proposed]):
            return  # the next day is that of something else
        asked = bool(when)
        if not asked and len(scene.text(turn).split()) > BARE:
            return


def _names_day(scene: Scene, sentence: Sentence) -> bool:
    return bool(NAMES_MONTH.search(sentence.text) or said_dates(sentence.text, scene.facts.day))


def is_bare_day(sentence: Sentence) -> bool:
    """A few words that name a day and say nothing of it: `By Friday.`, `It's the fourth.`, not `Tuesday we've got none.`"""
    if len(deadlines.DEADLINE_FIRST.sub("", deadlines.ROUNDED_OFF.sub("", sentence.text)).split()) > BARE_DAY:
        return False
    things = (t for t in sentence.tokens if t.pos == "NOUN" and not cues.TIME_NOUN.fullmatch(t.lemma))
    of_other = any(not deadlines.OF_MEETING.fullmatch(t.lemma) for t in things)  # `Twelve pounds on Saturday.`
    return not of_other and not any(t.pos == "VERB" or t.lemma == "have" for t in sentence.tokens)


def _opens_subject(scene: Scene, sentence: Sentence) -> bool:
    """Whether a bare day is a heading: `The Saturday. The bride's mother has rung four times since ten.`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    return (
        not LED_IN.match(sentence.text)
        and bool(later)
        and len(later[0].text.split()) > BRIEF
        and not later[0].is_question
    )


def _supposed_for(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`I'll take a sample.` … `If I take it this afternoon, Monday`: the day on which it is done, not when it is known."""
    verbs = {t.lemma for t in sentence.tokens if t.pos == "VERB"}
    near = (sentence.turn, *scene.following(sentence.turn, BESIDE))
    for other in (s for turn in near if scene.speaker(turn) == sentence.speaker for s in scene.by_turn[turn]):
        match = errands.IF_I_DO_IT.search(other.lower)
        if other != sentence and match and match.group("verb") in verbs:
            return next((d for d in said_dates(other.text, scene.facts.day) if d.start >= match.end()), None)
    return None


def _just_named(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day that a few words right before a task name: `Saturday at ten. I'll pick you up.`"""
    earlier = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-2:]
    if not earlier or earlier[-1].is_question:
        return None
    says_more = any(t.pos in ("VERB", "AUX") for t in earlier[-1].tokens)  # than `Demo on Friday, three o'clock.`
    if len(earlier[-1].text.split()) > (BARE_DAY if says_more else BRIEF):
        return None
    heads = len(earlier) > 1 and is_bare_day(earlier[0]) and not said_dates(earlier[-1].text, scene.facts.day)
    if heads and not earlier[0].is_question and (day := in_sentence(scene, earlier[0])) is not None:
        return day  # `Saturday. The open day. Who can do ten till two?`
    again = any(said_dates(s.text, scene.facts.day) and not s.is_question for s in earlier[:-1])
    tells = again or deadlines.TELLS_OTHERS.search(sentence.lower)  # `Tuesday it is. The tenth. I'll tell Dee.`
    return None if tells else in_sentence(scene, earlier[-1])


def _there_then(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """When somebody is where a task is done: `You're in there this afternoon, aren't you? Could you ask?`, `I'm seeing him tomorrow.`"""
    turns = (
        sentence.turn,
        *(t for t in scene.following(sentence.turn, BESIDE) if scene.speaker(t) == sentence.speaker),
    )
    for other in (s for turn in turns for s in scene.by_turn[turn]):
        theirs = other.first < sentence.first and other.turn == sentence.turn
        cue = deadlines.YOU_THERE if theirs and not deadlines.I_THERE.search(other.lower) else deadlines.I_THERE
        sent = theirs and deadlines.SENDS_FOR.search(sentence.text) and deadlines.AWAY.search(other.lower)
        met = not theirs and deadlines.THEY_BACK.search(other.lower) and deadlines.MEETS_THEM.search(sentence.lower)
        there = other != sentence and (cue.search(other.lower) or sent or met)
        if there and (days := said_dates(other.text, scene.facts.day)):
            return days[0]
        if there and not theirs and (hour := deadlines.AT_HOUR.search(other.text)) is not None:
            return SaidDate(_day_of_hour(scene, other, hour.group()), hour.group(), hour.start(), hour.end())
    return None
