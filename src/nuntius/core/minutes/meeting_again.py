"""When those present meet again, as they say it near the end."""

import re
from collections.abc import Sequence
from dataclasses import replace

from dateutil.relativedelta import relativedelta

from nuntius.core.language.en import deadlines, rulings
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.scene import Scene

PARTING = 2  # turns at the end, in which a mere day is when they meet again
CLOSING = 0.75  # share of the talk behind which its end is taken to be near
FOUND_WITHIN = 5  # turns behind `When is the next meeting?` in which its day is found
MOVED_WITHIN = 4  # turns behind the last naming of a day in which another takes its place
BACK, ON = 5, 2  # turns before and after the last naming of the day in which its hour and its place are named
AT_ONCE = 4  # characters of a sentence before the day that it repeats
SHORTEST_MONTH = 28  # days
BARE = 10  # words of a turn that does little else


def next_meeting(scene: Scene) -> SaidDate | None:
    """The day on which those present said that they would meet again, named near the end of the talk."""
    late = _late(scene)
    looked_at_again: SaidDate | None = None
    for i, sentence in enumerate(late):
        if deadlines.WHEN_AGAIN.match(sentence.lower):
            near = (s for s in late[i + 1 :] if s.turn - sentence.turn <= FOUND_WITHIN)
            days = [day for s in near if (day := in_sentence(scene, s)) is not None]
            return _in_that_month(days) if days else None
        if deadlines.MEETING_AGAIN.search(sentence.text) and not deadlines.NEXT_MEETING.search(sentence.text):
            for j, other in enumerate(late[i : i + 3], i):
                if (found := _exactest(said_dates(other.text, scene.facts.day))) is not None:
                    again = _coming(scene, _moved(scene, other, late[j + 1 :], found))
                    if not deadlines.LOOKS_AGAIN.search(sentence.lower):
                        return again
                    looked_at_again = looked_at_again or again
                    break
    return looked_at_again or _parting(scene, late)


def told_again(scene: Scene, again: SaidDate) -> tuple[str, tuple[Sentence, ...]]:
    """When to meet again in words, with the hour and the place where they are named, and the sentences that name all this."""
    days = [s for s in reversed(_late(scene)) if _names(scene, s, again)][:1]
    looked_at = _around(scene, days[0], again) if days else []
    exact, hour = _first(looked_at, deadlines.HOUR_AGAIN)
    same, as_before = _first(looked_at, deadlines.SAME_HOUR) if not hour else ([], "")
    there, place = _first(looked_at, deadlines.PLACE_AGAIN)
    sharp = deadlines.SHARP if deadlines.ONLY_HOUR.fullmatch(hour) else ""
    text = rulings.MEETS_AGAIN.format(
        day=f"{again.day:%A} {again.day.day} {again.day:%B}",
        hour=f" at {hour}{sharp}" if hour else f", {as_before}" if same else "",
        place=f", {place}" if place else "",
    )
    return text, tuple(dict.fromkeys([*days, *exact, *same, *there]))


def _late(scene: Scene) -> list[Sentence]:
    return [s for s in scene.sentences if s.turn >= CLOSING * len(scene.transcript.turns)]


def _around(scene: Scene, day: Sentence, again: SaidDate) -> list[Sentence]:
    """The sentences around the last one that names a day which may name its hour: those that name it too, those that
    speak of meeting again, and behind these the bare ones (`Half past ten.`)."""
    near = [s for s in _late(scene) if day.turn - BACK <= s.turn <= day.turn + ON]
    naming = [s for s in reversed(near) if _names(scene, s, again)]
    naming += [s for s in near if deadlines.MEETING_AGAIN.search(s.text) and s not in naming]
    first = min((s.turn, s.first) for s in naming)
    behind = (s for s in near if (s.turn, s.first) > first and s not in naming)
    return [*naming, *(s for s in behind if _only_names(s) and len(s.text.split()) <= BARE)]


def _first(sentences: Sequence[Sentence], pattern: re.Pattern[str]) -> tuple[list[Sentence], str]:
    """What the first sentence says that says it, and that sentence."""
    found = ((s, match) for s in sentences if (match := pattern.search(s.lower)) is not None)
    return next((([s], match.group(match.lastindex or 0)) for s, match in found), ([], ""))


def _names(scene: Scene, sentence: Sentence, again: SaidDate) -> bool:
    named = in_sentence(scene, sentence)
    return (named is not None and named.day == again.day) or is_named(scene, sentence.text, again)


def is_named(scene: Scene, text: str, again: SaidDate) -> bool:
    """Whether words name a day, be it only by its number within the month: `The thirteenth, at nine.`"""
    days = said_dates(text, scene.facts.day)
    return any(each.said == again.said or _in_that_month([again, each]).day == again.day for each in days)


def _in_that_month(days: list[SaidDate]) -> SaidDate:
    """The last of several days that were proposed, in the month of the first: `The eighth of April?` … `The fifteenth, then.`"""
    first, last = days[0].day, days[-1].day
    bare = last < first and last.day <= SHORTEST_MONTH and deadlines.NTH_ONLY.fullmatch(days[-1].said)
    return replace(days[-1], day=first.replace(day=last.day)) if bare else days[-1]


def _exactest(days: Sequence[SaidDate]) -> SaidDate | None:
    """The first day of a sentence, or the one that tells it more exactly: `in a month, the sixteenth`."""
    exact = [day for day in days if not deadlines.COUNTED_ON.match(day.said)]
    return next(iter(exact or days), None)


def _coming(scene: Scene, found: SaidDate) -> SaidDate:
    """The number of today is a day of the next month: `Same time in March, the twelfth`, said on the twelfth."""
    today = found.day == scene.facts.day and deadlines.NTH_ONLY.fullmatch(found.said)
    return replace(found, day=found.day + relativedelta(months=1)) if today else found


def _parting(scene: Scene, late: list[Sentence]) -> SaidDate | None:
    """The day with which they part: `The twelfth of January, then, ten o'clock.`"""
    last = [s for s in late if s.turn >= len(scene.transcript.turns) - PARTING]
    named = [s for s in last if len(s.text.split()) <= BARE and _only_names(s)]
    days = [day for s in named for day in said_dates(s.text, scene.facts.day) if day.day > scene.facts.day]
    return days[-1] if days else None


def _moved(scene: Scene, naming: Sentence, later: list[Sentence], found: SaidDate) -> SaidDate:
    """The day on which they agreed in the end: `Could it be the fourth?` `Then the fourth.`, `The fourth, same hour.`"""
    last = naming.turn
    for sentence in later:
        if sentence.turn - last > MOVED_WITHIN:
            break
        days = [_in_that_month([found, day]) for day in said_dates(sentence.text, scene.facts.day)]
        last = sentence.turn if days else last
        moved = deadlines.DAY_MOVED.search(sentence.lower) or deadlines.MEETS_INSTEAD.match(sentence.lower)
        if not days or len(sentence.text.split()) > BARE:
            continue
        if days[0].day == found.day and days[0].start <= AT_ONCE and sentence.speaker != naming.speaker:
            break  # the others repeat it
        bare = _only_names(sentence) and not sentence.is_question and not deadlines.WHOLE_SPAN.match(days[0].said)
        if moved or bare:
            found, naming = days[0], sentence
    return found


def _only_names(sentence: Sentence) -> bool:
    return not any(t.pos in ("VERB", "AUX") for t in sentence.tokens)
