"""When those present meet again, as they say it near the end."""

from dataclasses import replace

from nuntius.core.language.en import deadlines
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.scene import Scene

PARTING = 2  # turns at the end, in which a mere day is when they meet again
CLOSING = 0.75  # share of the talk behind which its end is taken to be near
FOUND_WITHIN = 5  # turns behind `When is the next meeting?` in which its day is found
SHORTEST_MONTH = 28  # days
BARE = 10  # words of a turn that does little else


def next_meeting(scene: Scene) -> SaidDate | None:
    """The day on which those present said that they would meet again, named near the end of the talk."""
    late = [s for s in scene.sentences if s.turn >= CLOSING * len(scene.transcript.turns)]
    for i, sentence in enumerate(late):
        if deadlines.WHEN_AGAIN.match(sentence.lower):
            near = (s for s in late[i + 1 :] if s.turn - sentence.turn <= FOUND_WITHIN)
            days = [day for s in near if (day := in_sentence(scene, s)) is not None]
            return _in_that_month(days) if days else None
        if deadlines.MEETING_AGAIN.search(sentence.text) and not deadlines.NEXT_MEETING.search(sentence.text):
            for other in late[i : i + 3]:
                if (found := next(iter(said_dates(other.text, scene.facts.day)), None)) is not None:
                    return _moved(scene, late[i + 1 :], found)
    return _parting(scene, late)


def _in_that_month(days: list[SaidDate]) -> SaidDate:
    """The last of several days that were proposed, in the month of the first: `The eighth of April?` … `The fifteenth, then.`"""
    first, last = days[0].day, days[-1].day
    bare = last < first and last.day <= SHORTEST_MONTH
    return replace(days[-1], day=first.replace(day=last.day)) if bare else days[-1]


def _parting(scene: Scene, late: list[Sentence]) -> SaidDate | None:
    """The day with which they part: `The twelfth of January, then, ten o'clock.`"""
    last = [s for s in late if s.turn >= len(scene.transcript.turns) - PARTING]
    named = [s for s in last if len(s.text.split()) <= BARE and not any(t.pos in ("VERB", "AUX") for t in s.tokens)]
    days = [day for s in named for day in said_dates(s.text, scene.facts.day) if day.day > scene.facts.day]
    return days[-1] if days else None


def _moved(scene: Scene, later: list[Sentence], found: SaidDate) -> SaidDate:
    """The day on which they agreed in the end: `Could it be the fourth?` `Then the fourth.`"""
    for sentence in later:
        moved = deadlines.DAY_MOVED.search(sentence.lower) or deadlines.MEETS_INSTEAD.match(sentence.lower)
        if len(sentence.text.split()) <= BARE and moved:
            found = next(iter(said_dates(sentence.text, scene.facts.day)), found)
    return found
