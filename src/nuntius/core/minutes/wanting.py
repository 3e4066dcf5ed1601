"""Things that are wanted by a day, and whoever will have them ready: `I'd like your comments by Monday.` `Fine.`"""

import re

from nuntius.core.language.en import cues, deadlines, errands
from nuntius.core.language.en.dates import SaidDate
from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.en.other_days import within
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import tasks, wording
from nuntius.core.minutes.acceptance import REACH, all_others, reply_to, takes_on, unreal
from nuntius.core.minutes.coreference import to_whom
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.due import due, is_bare_day
from nuntius.core.minutes.findings import Finding
from nuntius.core.minutes.scene import Scene, passage

WANTED = "asked for by a day"  # why
ASKED_BACK = 2  # turns within which a day is found that was asked back for
LONGEST_TOLD = 11  # words of a task that is wanted


def wanted_of(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """What is wanted of somebody by a day, said or asked for."""
    if unreal(sentence.lower):
        return None
    if not sentence.is_question:
        told = (_wants, _needed, _time_wanted, _together)
        return next(
            (found for way in told if (found := way(scene, sentence, taken)) is not None), _own_by(scene, sentence)
        )
    ways = (_asked_by_when, _to_be_done, _seen, _still_out, _getting_on, _comes, _found_a_day, _to_be_given)
    return next((found for way in ways if (found := way(scene, sentence, taken)) is not None), None)


def _wants(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`I'd like to have your comments by Monday.` `Fine.`"""
    has, wants = errands.LET_ME_HAVE.match(sentence.text), errands.I_WANT.search(sentence.text)
    match = has or wants
    day = in_sentence(scene, sentence) if match else None
    if match is None or (has is None and (day is None or day.start < match.end())):
        return None
    reply = reply_to(scene, sentence.turn, scene.roster.addressee(sentence.text))
    if reply is None or not takes_on(scene, reply):
        return None
    replies = [t for t in scene.following(sentence.turn, 2) if t == reply or takes_on(scene, t)]
    others = [t for t in replies if scene.speaker(t) != sentence.speaker]
    turns = others if errands.OF_BOTH.search(scene.text(sentence.turn)) else [reply]
    owner = tuple(dict.fromkeys(scene.speaker(t) for t in turns))
    owner = all_others(scene, sentence) if errands.FROM_EVERYBODY.search(sentence.lower) else owner
    taken.update(turns)
    thing = _theirs(has["thing"] if has else wording.clean(sentence.text[match.end("lead") :]))
    evidence = (passage(sentence), *map(scene.whole, turns))
    return Finding(sentence, to_whom(scene, sentence, f"Let me have {thing}"), owner, evidence, day, WANTED)


def _needed(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`We need three quotes.` `Give me a fortnight.`, `I need the figures from you.` `When?` `Tomorrow.` `Okay.`"""
    match = errands.WE_NEED.match(sentence.text)
    reply = reply_to(scene, sentence.turn, scene.roster.addressee(sentence.text)) if match else None
    if match is None or reply is None or not scene.by_turn[reply]:
        return None
    told = f"Get {match['thing']}" if match["who"].lower() == "we" else f"Let me have {_theirs(match['thing'])}"
    asked = scene.by_turn[reply][-1]
    if deadlines.GIVE_TIME.search(asked.lower):
        return _on_that_day(scene, sentence, taken, told)
    behind = list(scene.following(reply, 2))
    if len(behind) < 2 or not (asked.is_question and deadlines.ASKED_WHEN.search(asked.lower)):
        return None
    named, agreed = behind
    day = next((d for s in scene.by_turn[named] if (d := in_sentence(scene, s)) is not None), None)
    if day is None or scene.speaker(agreed) != scene.speaker(reply) or not takes_on(scene, agreed):
        return None
    taken.update({reply, named, agreed})
    evidence = (passage(sentence), *map(scene.whole, (reply, named, agreed)))
    return Finding(
        sentence, tasks.order(to_whom(scene, sentence, told)), (scene.speaker(reply),), evidence, day, WANTED
    )


def _time_wanted(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Give me until Monday for the report.`"""
    match = errands.GIVE_ME_FOR.match(sentence.text)
    day = in_sentence(scene, sentence) if match else None
    reply = reply_to(scene, sentence.turn, None)
    if match is None or day is None or (reply is not None and cues.REFUSAL.search(scene.text(reply))):
        return None
    text = tasks.order(f"Finish {_theirs(match['thing'])}")
    return Finding(sentence, text, (sentence.speaker,), (passage(sentence),), day, WANTED)


def _together(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`You and I should sit down with the numbers.` `Let's do that.`"""
    match = errands.YOU_AND_I.match(sentence.text)
    reply = reply_to(scene, sentence.turn, scene.roster.addressee(sentence.text)) if match else None
    if match is None or reply is None or not (takes_on(scene, reply) or cues.LETTING.search(scene.text(reply))):
        return None
    taken.add(reply)
    owner = (sentence.speaker, scene.speaker(reply))
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(
        sentence, tasks.order(sentence.text[match.end() :]), owner, evidence, due(scene, sentence), "request"
    )


def _own_by(scene: Scene, sentence: Sentence) -> Finding | None:
    """`So my report by the end of July, to be safe.` `If you could.`"""
    match = errands.MINE_BY.match(sentence.text)
    told = any(t.pos in ("VERB", "AUX") and t.start < match.end() for t in sentence.tokens) if match else True
    day = None if told else in_sentence(scene, sentence)
    reply = reply_to(scene, sentence.turn, None)
    if match is None or day is None or reply is None or cues.REFUSAL.search(scene.text(reply)):
        return None
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(
        sentence, tasks.order(f"Have the {match['thing']} ready"), (sentence.speaker,), evidence, day, WANTED
    )


def _asked_by_when(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`By when do you need my figures?` … `Make it Thursday.`: a task of whoever asks."""
    match = errands.BY_WHEN_MINE.match(sentence.text)
    if match is None:
        return None
    answers = [t for t in scene.following(sentence.turn, 1) if scene.speaker(t) != sentence.speaker]
    said = [s for t in (*answers, *(t for a in answers for t in scene.following(a, 1))) for s in scene.by_turn[t]]
    days = [d for s in said if (d := in_sentence(scene, s)) is not None]
    if not answers or not days:
        return None
    taken.update(answers)
    text = f"Let {_called(scene, answers[0])} have {_theirs(match.group('thing'))}"
    evidence = (passage(sentence), *map(scene.whole, answers))
    return Finding(sentence, tasks.order(text), (sentence.speaker,), evidence, days[-1], WANTED)


def _to_be_done(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Can the translation be done in a fortnight?` `If I start on it now, yes.`"""
    match = errands.CAN_BE_DONE.search(sentence.text)
    day = in_sentence(scene, sentence) if match else None
    reply = reply_to(scene, sentence.turn, scene.roster.addressee(sentence.text))
    if match is None or day is None or reply is None or cues.REFUSAL.search(scene.text(reply)):
        return None
    if not (takes_on(scene, reply) or cues.LATE_ASSENT.search(scene.text(reply))):
        return None
    taken.add(reply)
    text = tasks.order(f"Have {match.group('thing')} {match.group('done')}{sentence.text[match.end() :]}")
    return Finding(sentence, text, (scene.speaker(reply),), (passage(sentence), scene.whole(reply)), day, WANTED)


def _to_be_given(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Could I get your feedback by Thursday?` `No worries.`"""
    match = errands.MAY_I_GET.search(sentence.text)
    day = in_sentence(scene, sentence) if match else None
    reply = reply_to(scene, sentence.turn, scene.roster.addressee(sentence.text))
    if match is None or day is None or reply is None or not takes_on(scene, reply):
        return None
    taken.add(reply)
    text = tasks.order(to_whom(scene, sentence, f"Let me have {_theirs(match['thing'])}"))
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(sentence, text, (scene.speaker(reply),), evidence, day, WANTED)


def _seen(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`When can we see a first version?` `Give me a week.`"""
    match = errands.WHEN_CAN_WE.match(sentence.text)
    return _on_that_day(scene, sentence, taken, f"Let me {match['verb']} {match['thing']}") if match else None


def _still_out(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Have you got the figures for me?` `End of the afternoon.`"""
    match = errands.HAVE_YOU_GOT.match(sentence.text)
    reply = reply_to(scene, sentence.turn, None) if match else None
    if match is None or reply is None or not is_bare_day(scene.by_turn[reply][0]):
        return None
    return _on_that_day(scene, sentence, taken, f"Let me have {_theirs(match['thing'])}")


def _getting_on(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`How are you getting on with the accounts?`, `How are they coming?` `Nearly there. Give me another week.`"""
    match = errands.GETTING_ON.match(sentence.text) or errands.COMING_ON.match(sentence.text)
    reply = reply_to(scene, sentence.turn, None) if match else None
    if match is None or reply is None:
        return None
    said = scene.text(reply)
    if not (deadlines.GIVE_TIME.search(said) or errands.ID_SAY.search(said)):
        return None
    return _on_that_day(scene, sentence, taken, f"Finish {_theirs(match['thing'])}")


def _comes(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`When could you come?` `On the Wednesday.`"""
    match = errands.WHEN_COULD_YOU.match(sentence.text)
    if match is None:
        return None
    bare = match["do"].lower() == "come"
    return _on_that_day(scene, sentence, taken, f"Come to {_called(scene, sentence.turn)}" if bare else match["do"])


def _on_that_day(scene: Scene, sentence: Sentence, taken: set[int], told: str) -> Finding | None:
    """What somebody is asked for, as a task of whoever names the day in reply."""
    reply = reply_to(scene, sentence.turn, None)
    if reply is None or cues.REFUSAL.search(scene.text(reply)) or cues.IF_FIRST.search(scene.text(reply)):
        return None
    day = _day_named(scene, reply)
    if day is None or len(told.split()) > LONGEST_TOLD:
        return None
    taken.add(reply)
    text = tasks.order(to_whom(scene, sentence, told))
    evidence = (passage(sentence), scene.whole(reply))
    return Finding(sentence, text, (scene.speaker(reply),), evidence, day, WANTED)


def _found_a_day(scene: Scene, sentence: Sentence, taken: set[int]) -> Finding | None:
    """`Can I have your hours?` `Is Friday okay?` `Friday's late. Thursday.` `Thursday.`: what is asked for until a day is found."""
    match = errands.MAY_WE_HAVE.match(sentence.text)
    reply = reply_to(scene, sentence.turn, None) if match else None
    if match is None or reply is None or not scene.by_turn[reply][-1].is_question:
        return None
    later = [t for t in scene.following(reply, ASKED_BACK) if scene.speaker(t) == scene.speaker(reply)]
    back = scene.by_turn[reply][-1]  # `Is Friday okay?`, `By when?`
    finds = in_sentence(scene, back) is not None or deadlines.ASKED_WHEN.search(back.lower)
    if not finds or not later or not takes_on(scene, later[0]):
        return None
    said = [s for t in range(reply, later[0] + 1) for s in scene.by_turn[t]]
    day = next((d for s in reversed(said) if (d := in_sentence(scene, s)) is not None), None)
    turns = list(range(reply, later[0] + 1))
    taken.update(turns)
    text = tasks.order(to_whom(scene, sentence, f"Let me have {_theirs(match.group('thing'))}"))
    return Finding(sentence, text, (scene.speaker(reply),), (passage(sentence), *map(scene.whole, turns)), day, WANTED)


def _day_named(scene: Scene, turn: int) -> SaidDate | None:
    """The day that a short turn names."""
    if len(scene.by_turn[turn]) > REACH:
        return None
    said = scene.by_turn[turn]
    return next((d for s in said if (d := due(scene, s) or within(s.text, scene.facts.day)) is not None), None)


def _called(scene: Scene, turn: int) -> str:
    """Who speaks, in the square brackets of what was not said."""
    name = scene.speaker(turn)
    return name if is_label(name) else f"[{first_name(name)}]"


def _theirs(thing: str) -> str:
    """What is wanted, of whoever owns it: `your comments by Monday` is `the comments by Monday`."""
    told = re.sub(r"\b(?:all )?(?:your|my)\b", "the", thing, flags=re.I).rstrip(".!")
    return told[0].lower() + told[1:]
