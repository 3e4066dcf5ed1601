"""The day that a sentence names, as it is meant there: which of several, of which week or month, never an event's."""

import calendar
import re
from dataclasses import replace
from datetime import timedelta

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import MONTHS, SaidDate, coming, said_dates
from nuntius.core.language.en.numbers import ORDINAL_WORDS
from nuntius.core.language.en.other_days import BY_ANOTHER, CALLED_SO, by_another
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.scene import Scene

BARE_NTH = re.compile(
    rf"the\s+(?:\d{{1,2}}(?:st|nd|rd|th)|{ORDINAL_WORDS})", re.I
)  # a day of a month that is not named
THE_DAY = re.compile(r"the\s+\w+day", re.I)
NAMES_WEEK = re.compile(rf"\d|{ORDINAL_WORDS}|\bweek (?:of|in) \w|^next \w+day", re.I)
IN_MONTH = re.compile(rf"\bin ({'|'.join(MONTHS)})\b", re.I)
NAMES_MONTH = re.compile("|".join(MONTHS), re.I)
DAY_OF_MONTH = re.compile(rf"(?=.*(?:{'|'.join(MONTHS)}))(?=.*(?:\d|{ORDINAL_WORDS}|\b(?:end|middle) of))", re.I)
WEEK_REACH = 30  # turns before `the Thursday` in which the day of an event in that week was named
NOT_DUE = re.compile(r" of (?:every|each) | off\b", re.I)  # behind a day: `the first of every month`, `the Monday off`
OF_THAT_DAY = re.compile(  # behind a day of the week: `the Wednesday call`
    r" (?:call|meeting|class|group|shift|round|numbers|figures|list|market|crew|team|quiz|service|train|"
    r"bus|boat|delivery|order|lady|people|paper)s?\b",
    re.I,
)
AND_ALSO = re.compile(r",? and (?:(?:the (?:rest|others?|other half|second half|remainder) )?(?:by|on) )?", re.I)
ALSO_CALLED = re.compile(r"(?: before| after)?, ")  # behind a day that is named again
MONTH_REACH = 3  # turns before a bare `the fourth` in which its month was named
LEADS_AWAY = 3  # words of a turn between them
FOR_NOW = ("today", "tonight", "this afternoon", "this evening")
BEFORE_DAY = 18  # characters before a day in which a word like `by` makes it pressing


def in_sentence(scene: Scene, sentence: Sentence, start: int = 0) -> SaidDate | None:
    """The day that a sentence names: one behind `by`, `before`, `on` first, never an event's.

    Days behind `start`, and before the next clause, go before others.
    """
    if (told := _told_by_another(scene, sentence)) is not None:
        return told
    found = [item for item in said_dates(sentence.text, scene.facts.day) if not _of_event(sentence.text, item)]
    found = [item for item in found if not _only_names(sentence, item) and not _is_today(scene, sentence, item)]
    found = [item for item in found if not deadlines.NOT_THEN.match(sentence.text[: item.start])]
    found = [item for item in found if not cues.AND_IF.search(sentence.text[: item.start])]
    found = [item for item in found if not deadlines.OTHERS_CLAUSE.search(sentence.text[: item.start])]
    found = [item for item in found if not deadlines.AND_WE_MEET.search(sentence.text[: item.start])]
    if (inner := errands.THEN_I_WILL.search(sentence.text)) is not None:
        found = [item for item in found if not inner.start() <= item.start < inner.end()] or found
    if (condition := cues.IF_I.match(sentence.text)) is not None:
        found = [item for item in found if item.start >= condition.end()] or found
    behind = [item for item in found if item.start >= start]
    found = behind if behind or cues.OVERTAKEN.search(sentence.lower) else found
    if found and (clause := deadlines.NEXT_CLAUSE.search(sentence.text, found[0].end)):
        so = [item for item in found if deadlines.SO_IT_HAS.match(sentence.text[clause.start() : item.start])]
        found = so or [item for item in found if item.start < clause.start()]
    pressing = [
        item for item in found if deadlines.PRESSING.search(sentence.text[max(0, item.start - BEFORE_DAY) : item.start])
    ]
    last = [item for item in found if deadlines.LATEST_BEHIND.match(sentence.text[item.end :])]
    last += [item for item in pressing if deadlines.AT_LATEST.search(sentence.text[: item.start])]
    chosen = next(iter([*last, *pressing, *found]), None)
    chosen = _last_of_two(sentence, found, chosen) if chosen else None
    if chosen and THE_DAY.fullmatch(chosen.said):
        return _in_week_spoken_of(scene, sentence, chosen)
    return _in_its_month(scene, sentence, chosen) if chosen and BARE_NTH.fullmatch(chosen.said) else chosen


def _told_by_another(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """`They want it on the twelfth. I'll send it the night before.`: a day told by one that was named."""
    match = BY_ANOTHER.search(sentence.text)
    if match is None:
        return None
    here = [d for d in said_dates(sentence.text, scene.facts.day) if d.end <= match.start() or d.start >= match.end()]
    if any(d.start > match.end() and CALLED_SO.fullmatch(sentence.text[match.end() : d.start]) for d in here):
        return None  # `the Friday before, so that's the ninth`
    ahead = [d for d in here if d.end <= match.start()]
    other = ahead[-1] if ahead else named_before(scene, sentence) or next(iter(here), None)
    found = by_another(match, other.day) if other is not None else None
    return found if found is not None and found.day >= scene.facts.day else None


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


def _in_week_spoken_of(scene: Scene, sentence: Sentence, item: SaidDate) -> SaidDate:
    """`The Thursday` in the week of the day of a month that was named last before, where that lies further ahead."""
    here = [
        d.day
        for d in said_dates(sentence.text, scene.facts.day)
        if d.end <= item.start and not THE_DAY.fullmatch(d.said)
    ]
    if here:  # `You have it by Tuesday, and I'd want it back by the Friday.`
        return replace(item, day=coming(here[-1], item.day.weekday()))
    earlier = [s.text for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    for turn in (sentence.turn, *scene.preceding(sentence.turn, WEEK_REACH)):
        said = " ".join(earlier) if turn == sentence.turn else scene.text(turn)
        named = [d.day for d in said_dates(said, scene.facts.day) if NAMES_WEEK.search(d.said)]
        if named:
            day = named[-1] + timedelta(item.day.weekday() - named[-1].weekday())
            if day > named[-1] and turn != sentence.turn and _is_before(scene, turn):
                day -= timedelta(7)  # `Before half-term? It begins on the twenty-sixth.` `On the Saturday.`
            return replace(item, day=day) if day > item.day else item
    return item


def _is_before(scene: Scene, turn: int) -> bool:
    return any(s.is_question and deadlines.BEFORE_IT.search(s.lower) for s in scene.by_turn[turn])


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
    for turn in scene.preceding(sentence.turn, MONTH_REACH):
        named = [d for d in reversed(said_dates(scene.text(turn), scene.facts.day)) if DAY_OF_MONTH.search(d.said)]
        if named or len(scene.text(turn).split()) > LEADS_AWAY:
            return next((d for d in named if d.day.day != item.day.day), None)
    return None


def _is_today(scene: Scene, sentence: Sentence, item: SaidDate) -> bool:
    """`It's the thirteenth, so give me till the thirtieth`, said on the thirteenth."""
    return item.day == scene.facts.day and bool(deadlines.IS_TODAY.search(sentence.text[: item.start]))


def _of_event(text: str, item: SaidDate) -> bool:
    if deadlines.HELD.search(text[: item.start]):
        return False  # `They hold it till the nineteenth`: by then it must be done
    if item.said.lower() in FOR_NOW and text[: item.start].endswith("for "):
        return False  # `Hire one for today.`
    if deadlines.GIVEN_UNTIL.search(text[: item.start]):
        return not deadlines.AND_THEN_I.match(text[item.end :])
    told, counted = (cue.search(text[: item.start]) for cue in (deadlines.TELLS_WHOM, deadlines.COUNTS))
    if BARE_NTH.fullmatch(item.said) and (told or counted):
        return True  # `I'll tell her the thirtieth.`, `I'll find the third.`
    if item.said == text[4:].strip(" .,!") and text.lower().startswith("for "):
        return False  # `I can do one page.` `For the twelfth.`
    return bool(deadlines.EVENT.search(text[: item.start]) or deadlines.TELLS_DAY.search(text[: item.start]))


def named_before(scene: Scene, sentence: Sentence) -> SaidDate | None:
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
