"""When an action is due: the day named with it, in its own sentence, its turn or the answers right behind it."""

import calendar
import re
from collections.abc import Iterator
from dataclasses import replace
from datetime import date, timedelta

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import MONTHS, SaidDate, coming, said_dates
from nuntius.core.language.en.numbers import ORDINAL_WORDS
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.findings import speaks_of_other
from nuntius.core.minutes.scene import Scene, passage

BARE_NTH = re.compile(
    rf"the\s+(?:\d{{1,2}}(?:st|nd|rd|th)|{ORDINAL_WORDS})", re.I
)  # a day of a month that is not named
THE_DAY = re.compile(r"the\s+\w+day", re.I)
NAMES_NUMBER = re.compile(rf"\d|{ORDINAL_WORDS}|\bweek (?:of|in) \w", re.I)
IN_MONTH = re.compile(rf"\bin ({'|'.join(MONTHS)})\b", re.I)
NAMES_MONTH = re.compile("|".join(MONTHS), re.I)
WEEK_REACH = 30  # turns before `the Thursday` in which the day of an event in that week was named
NOW = re.compile(r"\bi(?:'ll| will|'m going to|'d| can| could)\b.*(?<!from )\b((?:right )?now)\b(?! that| on\b)", re.I)
FROM_DAY = re.compile(r"\bfrom (?=the \w|\w+day\b|tomorrow|next )", re.I)  # when it is begun, if no other is named
LED_IN = re.compile(r"\W*(?:by|before|on|until|till|in|at|end|for|not)\b", re.I)
NOT_DUE = re.compile(r" of (?:every|each) | off\b", re.I)  # behind a day: `the first of every month`, `the Monday off`
OF_THAT_DAY = re.compile(  # behind a day of the week: `the Wednesday call`
    r" (?:call|meeting|class|group|shift|round|numbers|figures|list|market|crew|team|quiz|service|train|"
    r"bus|boat|delivery|order|lady|people|paper)s?\b",
    re.I,
)
FOR_MONTH = re.compile(rf"\bfor ({'|'.join(MONTHS)})(?! the\b| \d)\b", re.I)  # in which they meet again
AND_ALSO = re.compile(r",? and (?:on )?", re.I)
ALSO_CALLED = re.compile(r"(?: before| after)?, ")  # behind a day that is named again
AGAIN_REACH = 3  # sentences before a task in which the next meeting may be named
BESIDE = 3  # turns behind an action in which its day may be asked for and named
BARE = 10  # words of a question or a turn that does not lead away from the action
BRIEF = 6  # words of a sentence behind a day that still belongs to it
EVENING = 18  # o'clock
BARE_DAY = 4  # words of a sentence that names a day and little else
PARTING = 2  # turns at the end, in which a mere day is when they meet again
CLOSING = 0.75  # share of the talk behind which its end is taken to be near
BEFORE_DAY = 18  # characters before a day in which a word like `by` makes it pressing


def due(scene: Scene, sentence: Sentence, start: int = 0, own: bool = False) -> SaidDate | None:
    """The day by which the task of a sentence is due, with the words that name it; never an event's day.

    `start` is where in the sentence the task begins: a day behind it goes before one that stands ahead. `own` says
    that the speaker takes the task on, so that what others promise behind it is not about it.
    """
    if (again := by_next_meeting(scene, sentence)) is not None:
        return again
    if own and (found := _supposed_for(scene, sentence)) is not None:
        return found
    if (found := in_sentence(scene, sentence, start)) is not None:
        return _exactly(scene, sentence, found)
    at_that_time = deadlines.BEFORE_THAT.search(sentence.lower) and not deadlines.SO_THEN.search(sentence.lower)
    if at_that_time and (before := _named_before(scene, sentence)) is not None:
        return before
    if (found := _just_named(scene, sentence)) is not None:
        return found
    if (found := _there_then(scene, sentence)) is not None:
        return found
    for other in _behind(scene, sentence):
        promised = deadlines.HAD_BY.search(other.lower) or cues.INTENT.search(other.lower)
        if own and promised and other.speaker != sentence.speaker:
            continue
        if (found := in_sentence(scene, other) or by_next_meeting(scene, other)) is not None:
            return found
    if deadlines.BRING.search(sentence.text) and (again := _meeting_before(scene, sentence)) is not None:
        return again
    begun = FROM_DAY.search(sentence.text) if own else None
    if begun and (days := [d for d in said_dates(sentence.text, scene.facts.day) if d.start == begun.end()]):
        return days[0]
    if (hour := _hour_answered(scene, sentence)) is not None:
        return hour
    own = own and not deadlines.AND_WE_MEET.search(sentence.text)
    now = (NOW.search(sentence.text) or deadlines.AT_HOUR.search(sentence.text)) if own else None
    if now is None:
        return None
    if now.re is NOW:
        return SaidDate(scene.facts.day, now.group(1), now.start(), now.end())
    return SaidDate(_day_of_hour(scene, sentence, now.group()), now.group(), now.start(), now.end())


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
        return next_meeting(scene)
    month = FOR_MONTH.search(sentence.text)
    again = next_meeting(scene) if month else None
    return again if month and again and month.group(1).lower() == MONTHS[again.day.month - 1] else None


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


def in_sentence(scene: Scene, sentence: Sentence, start: int = 0) -> SaidDate | None:
    """The day that a sentence names: one behind `by`, `before`, `on` first, never an event's.

    Days behind `start`, and before the next clause, go before others.
    """
    found = [item for item in said_dates(sentence.text, scene.facts.day) if not _of_event(sentence.text, item)]
    found = [item for item in found if not _only_names(sentence, item) and not _is_today(scene, sentence, item)]
    found = [item for item in found if not cues.AND_IF.search(sentence.text[: item.start])]
    found = [item for item in found if not deadlines.AND_WE_MEET.search(sentence.text[: item.start])]
    if (inner := errands.THEN_I_WILL.search(sentence.text)) is not None:
        found = [item for item in found if not inner.start() <= item.start < inner.end()] or found
    if (condition := cues.IF_I.match(sentence.text)) is not None:
        found = [item for item in found if item.start >= condition.end()] or found
    behind = [item for item in found if item.start >= start]
    found = behind if behind or cues.OVERTAKEN.search(sentence.lower) else found
    if found and (clause := deadlines.NEXT_CLAUSE.search(sentence.text, found[0].end)):
        found = [item for item in found if item.start < clause.start()]
    pressing = [
        item for item in found if deadlines.PRESSING.search(sentence.text[max(0, item.start - BEFORE_DAY) : item.start])
    ]
    last = [item for item in pressing if deadlines.AT_LATEST.search(sentence.text[: item.start])]
    chosen = next(iter([*last, *pressing, *found]), None)
    chosen = _day_after(sentence, _last_of_two(sentence, found, chosen)) if chosen else None
    if chosen and THE_DAY.fullmatch(chosen.said):
        return _in_week_spoken_of(scene, sentence, chosen)
    return _in_its_month(scene, sentence, chosen) if chosen and BARE_NTH.fullmatch(chosen.said) else chosen


def _only_names(sentence: Sentence, item: SaidDate) -> bool:
    """Whether a day is a part of what something is called: `the Wednesday call`, `the first of every month`."""
    behind = sentence.text[item.end :]
    if deadlines.TOO_SOON.match(behind):
        return True  # `Tomorrow's a push. Saturday.`
    named = THE_DAY.fullmatch(item.said) or item.said.lower().endswith("day")
    return bool(NOT_DUE.match(behind) or (named and OF_THAT_DAY.match(behind)))


def _last_of_two(sentence: Sentence, found: list[SaidDate], chosen: SaidDate) -> SaidDate:
    """The second of two days on which a task is done, or of two names of one: `tomorrow and Friday`, `the Friday before, the ninth`."""
    later = next((item for item in found if item.start > chosen.start), None)
    if later is None:
        return chosen
    between = sentence.text[chosen.end : later.start]
    if deadlines.VAGUELY.fullmatch(chosen.said) and not between.rstrip().endswith("not"):
        return later
    again = ALSO_CALLED.fullmatch(between) and BARE_NTH.fullmatch(later.said)
    return later if again or AND_ALSO.fullmatch(between) else chosen


def _day_after(sentence: Sentence, chosen: SaidDate) -> SaidDate:
    """`They're on the tenth, I'll tell you the day after.`"""
    after = deadlines.DAY_AFTER.search(sentence.text, chosen.end)
    return SaidDate(chosen.day + timedelta(1), after.group(), after.start(), after.end()) if after else chosen


def _in_week_spoken_of(scene: Scene, sentence: Sentence, item: SaidDate) -> SaidDate:
    """`The Thursday` in the week of the day of a month that was named last before, where that lies further ahead.

    `The Thursday after` is the next one behind the day named last.
    """
    if deadlines.AFTER_IT.match(sentence.text[item.end :]) and (before := _named_before(scene, sentence)) is not None:
        return replace(item, day=coming(before.day, item.day.weekday()))
    earlier = [s.text for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    for turn in (sentence.turn, *scene.preceding(sentence.turn, WEEK_REACH)):
        said = " ".join(earlier) if turn == sentence.turn else scene.text(turn)
        named = [d.day for d in said_dates(said, scene.facts.day) if NAMES_NUMBER.search(d.said)]
        if named:
            day = named[-1] + timedelta(item.day.weekday() - named[-1].weekday())
            return replace(item, day=day) if day > item.day else item
    return item


def _in_its_month(scene: Scene, sentence: Sentence, item: SaidDate) -> SaidDate:
    """A bare `the fourth` in the month that was named right before: `Eleventh of December. I want them by the fourth.`"""
    earlier = [s.text for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    before = said_dates(" ".join([*earlier, sentence.text[: item.start]]), scene.facts.day)
    named = next((day for day in reversed(before) if NAMES_MONTH.search(day.said)), None) or _other_day(
        scene, sentence, item
    )
    if (month := _month_before(scene, [sentence])) is not None and IN_MONTH.search(sentence.text[: item.start]):
        named = month
    if named is None:
        return item
    last = calendar.monthrange(named.day.year, named.day.month)[1]
    day = named.day.replace(day=min(item.day.day, last))
    return replace(item, day=day) if day >= scene.facts.day else item


def _other_day(scene: Scene, sentence: Sentence, item: SaidDate) -> SaidDate | None:
    """The day of a month that the turn before names, where it is another: `On the fifteenth of May.` `Then I write on the sixteenth.`"""
    before = [d for t in scene.preceding(sentence.turn, 1) for d in said_dates(scene.text(t), scene.facts.day)]
    named = (d for d in reversed(before) if NAMES_MONTH.search(d.said) and NAMES_NUMBER.search(d.said))
    return next((d for d in named if d.day.day != item.day.day), None)


def _is_today(scene: Scene, sentence: Sentence, item: SaidDate) -> bool:
    """`It's the thirteenth, so give me till the thirtieth`, said on the thirteenth."""
    return item.day == scene.facts.day and bool(deadlines.IS_TODAY.search(sentence.text[: item.start]))


def _of_event(text: str, item: SaidDate) -> bool:
    if deadlines.HELD.search(text[: item.start]):
        return False  # `They hold it till the nineteenth`: by then it must be done
    if BARE_NTH.fullmatch(item.said) and deadlines.TELLS_WHOM.search(text[: item.start]):
        return True  # `I'll tell her the thirtieth.`
    return bool(deadlines.EVENT.search(text[: item.start]) or deadlines.TELLS_DAY.search(text[: item.start]))


def _behind(scene: Scene, sentence: Sentence) -> Iterator[Sentence]:
    """Sentences that may name the day: the rest of the turn, then what answers `when?` or repeats a bare day."""
    for other in scene.by_turn[sentence.turn]:
        if other.first > sentence.first:
            begins = cues.INTENT.search(other.lower) or cues.REQUEST.search(other.lower)
            if begins and not deadlines.HAVE_IT.search(other.lower):
                break  # another task begins
            if deadlines.AWAY.search(other.lower) or deadlines.NOT_WANTED.match(other.lower):
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
    return len(sentence.text.split()) <= BARE_DAY and not any(
        t.pos == "VERB" or t.lemma == "have" for t in sentence.tokens
    )


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
        there = other != sentence and (cue.search(other.lower) or sent)
        if there and (days := said_dates(other.text, scene.facts.day)):
            return days[0]
        if there and not theirs and (hour := deadlines.AT_HOUR.search(other.text)) is not None:
            return SaidDate(_day_of_hour(scene, other, hour.group()), hour.group(), hour.start(), hour.end())
    return None


def _named_before(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """The day last named before a sentence that says `before then`."""
    earlier = [s for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    for turn in scene.preceding(sentence.turn, 2):
        earlier = [*scene.by_turn[turn], *earlier]
    days = (d for s in reversed(earlier) for d in reversed(said_dates(s.text, scene.facts.day)))
    return next(days, None) or _month_before(scene, earlier)


def _month_before(scene: Scene, earlier: list[Sentence]) -> SaidDate | None:
    """The end of the month named last: `That is in March. I'll ask again then.`"""
    named = next((m for s in reversed(earlier) if (m := IN_MONTH.search(s.text))), None)
    end = said_dates(f"end of {named.group(1)}", scene.facts.day) if named else []
    return replace(end[0], said=named.group()) if named and end else None


def next_meeting(scene: Scene) -> SaidDate | None:
    """The day on which those present said that they would meet again, named near the end of the talk."""
    late = [s for s in scene.sentences if s.turn >= CLOSING * len(scene.transcript.turns)]
    for i, sentence in enumerate(late):
        if deadlines.MEETING_AGAIN.search(sentence.text) and not deadlines.NEXT_MEETING.search(sentence.text):
            for other in late[i : i + 3]:
                if (found := next(iter(said_dates(other.text, scene.facts.day)), None)) is not None:
                    return _moved(scene, late[i + 1 :], found)
    return _parting(scene, late)


def _parting(scene: Scene, late: list[Sentence]) -> SaidDate | None:
    """The day with which they part: `The twelfth of January, then, ten o'clock.`"""
    last = [s for s in late if s.turn >= len(scene.transcript.turns) - PARTING]
    named = [s for s in last if len(s.text.split()) <= BARE and not any(t.pos in ("VERB", "AUX") for t in s.tokens)]
    days = [day for s in named for day in said_dates(s.text, scene.facts.day) if day.day > scene.facts.day]
    return days[-1] if days else None


def _moved(scene: Scene, later: list[Sentence], found: SaidDate) -> SaidDate:
    """The day on which they agreed in the end: `Could it be the fourth?` `Then the fourth.`"""
    for sentence in later:
        if len(sentence.text.split()) <= BARE and deadlines.DAY_MOVED.search(sentence.lower):
            found = next(iter(said_dates(sentence.text, scene.facts.day)), found)
    return found
