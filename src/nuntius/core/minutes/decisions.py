"""Decisions in their final state: what was proposed and met with assent, votes, rulings by the chair."""

import re
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from nuntius.core.language.en import cues, deadlines, rulings
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.en.numbers import UNITS
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.acceptance import supposed
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.coreference import CLEAR_ENOUGH, UNTOLD, beside, chosen_from, with_reference
from nuntius.core.minutes.days_named import in_sentence
from nuntius.core.minutes.features import is_imperative
from nuntius.core.minutes.line import Answer, Line, LineKind, LineState
from nuntius.core.minutes.meeting_again import PARTING, is_named, next_meeting, told_again
from nuntius.core.minutes.quoting import attributed
from nuntius.core.minutes.recast import recast
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.settling import (
    A_RULE,
    JUDGED,
    MEETS_AGAIN,
    PUT_TO_ALL,
    SHORT,
    Ruling,
    by_rule,
    likely_ruling,
    proposal_of,
    settles_nothing,
    tells,
    told_next,
)
from nuntius.core.minutes.stating import better_stated, left_unsaid
from nuntius.core.minutes.votes import is_counted, result_of, tally

MERGE_REACH = 4  # turns within which two cues are one decision
ENOUGH = 0.35  # likelihood from which a sentence is taken for the heart of a decision
SURELY = 0.85  # likelihood from which what a sentence settles is not taken for a part of what another does
RULE_BONUS = 0.2  # added to it where a rule finds one, too
FIRM_BONUS = 0.39  # the same where its form leaves little doubt
FIRM = (A_RULE, MEETS_AGAIN)
TELLING_LESS = 0.35  # taken off it where the sentence tells what is or was, and no rule finds a decision in it
SAME_MATTER, CLOSE = 0.18, 2  # cosine from which two cues within so many turns are about one matter
SAME_FURTHER = 0.4  # the same of two that stand further apart
MOST_MORE = 5  # words that a decision has beside those of a task and still tells no more: a call, please, a day
LEAST_DONE = 3  # words of `Take the Monday off`, which needs nothing beside it
MOST_TURNS = 6  # that one decision rests on
REVERSED_ALIKE = 0.5  # cosine above which a later decision may replace an earlier one
IN_BRACKETS = re.compile(r"\s*\[[^\]]*\]")  # what makes a task clear
REVERSAL = re.compile(
    r"\b(?:actually|instead|forget (?:it|that)|changed? (?:my|our) mind|scrap that|on second thoughts|rather than|after all)\b",
    re.I,
)


def find_decisions(scene: Scene, likely: Likely, actions: Sequence[Line] = ()) -> list[Line]:
    """Decisions in the order of the talk; superseded ones are kept and marked.

    `likely` says for each sentence how likely it is the heart of a decision; what a rule finds counts more. What only
    tells a task that `actions` tell already is none.
    """
    rulings = _superseded(scene, settled(scene, likely, actions))
    tasks = [*actions, *(replace(action, text=IN_BRACKETS.sub("", action.text)) for action in actions)]
    worded = [line for ruling in rulings if (line := _line(scene, ruling, likely, tasks)) is not None]
    by_text: dict[str, Line] = {}
    for line in worded:  # the same words settle one thing; when to meet again is settled by the last of them
        by_text[line.text] = line if line.why == MEETS_AGAIN else by_text.get(line.text, line)
    lines = list(by_text.values())
    again = next((line for line in lines if line.why == MEETS_AGAIN), None)
    lines = [line for line in lines if line is again or not _tells_when_again(scene, line, again)]
    return [
        line
        for line in lines
        if not _tells_only_task(scene, line, tasks) and not _tells_when_done(scene, line, actions)
    ]


def settled(scene: Scene, likely: Likely, actions: Sequence[Line] = ()) -> list[Ruling]:
    """What was settled, in the order of the talk, before it is put into words."""
    ruled = {number: found for number, s in enumerate(scene.sentences) if (found := by_rule(scene, s))}
    weights = np.array([likely[i] + _leaning(scene, s, ruled.get(i)) for i, s in enumerate(scene.sentences)])
    rulings: list[Ruling] = []
    for number in np.argsort(-weights, kind="stable"):
        if weights[number] < ENOUGH:
            break
        sentence = scene.sentences[number]
        if _may_rule(scene, sentence):
            ruling = ruled.get(int(number)) or likely_ruling(scene, sentence)
            _add(scene, rulings, ruling, actions, float(weights[number]))
    return sorted(rulings, key=lambda ruling: (ruling.sentence.turn, ruling.sentence.first))


def _tells_only_task(scene: Scene, line: Line, tasks: Sequence[Line]) -> bool:
    bare = IN_BRACKETS.sub("", line.text)
    told = {bare, *(recast(bare, sentence) for sentence in scene.inside(line.evidence))}
    return any(_leaves_task(line, each) or any(_tells_task(t, line.turns, each) for t in told) for each in tasks)


def _tells_task(text: str, turns: frozenset[int], action: Line) -> bool:
    """Whether a decision says no more than what somebody was told to do: `Cut the ivy, Ines, please.`"""
    if not turns & action.turns:
        return False
    told, task = text.lower().rstrip("."), action.text.lower().rstrip(".")
    more = len(told.split()) - len(task.split())
    same = told.startswith(task) or told.endswith(f" {task}")  # `I see, I can ask the workshop`
    return same and more <= MOST_MORE


def _is_task(sentence: Sentence, actions: Sequence[Line]) -> bool:
    text = wording.resolution(sentence.text)
    return any(_tells_task(text, frozenset({sentence.turn}), action) for action in actions)


def _leaves_task(decision: Line, action: Line) -> bool:
    """Whether a decision says no more than that a task has nobody yet, as the task's own line does."""
    apart = min(abs(a - b) for a in decision.turns for b in action.turns)
    return not action.owner and apart <= 1 and bool(rulings.LEAVES_OPEN.search(decision.text))


def _tells_when_done(scene: Scene, line: Line, actions: Sequence[Line]) -> bool:
    """Whether a decision says no more than when a task is done: `Wednesday week, fine.`, or by when it is wanted."""
    due = {action.due: action for action in actions if action.due is not None and _near(line, action)}
    text = IN_BRACKETS.sub("", line.text)
    named = [due[day.day] for day in said_dates(text, scene.facts.day) if day.day in due] if due else []
    if any(line.turns & action.turns for action in named) and rulings.WANTS_BY.search(text):
        return True  # `I'd want a draft by the tenth.` `You'll have it by then.`
    parting = max(line.turns) >= len(scene.by_turn) - PARTING and not deadlines.DAY_WILL_DO.search(text.lower())
    return bool(named or _asked_when_done(scene, line)) and not parting and _names_only_day(scene, text)


def _asked_when_done(scene: Scene, line: Line) -> bool:
    """Whether a line answers when somebody does something: `When would you have time for that?`"""
    near = range(max(0, min(line.turns) - 1), max(line.turns) + 1)
    return any(rulings.WHEN_DONE.search(s.lower) for turn in near for s in scene.by_turn[turn] if s.is_question)


def _tells_when_again(scene: Scene, line: Line, again: Line | None) -> bool:
    """`The twenty-first it is`, beside the line that says when they meet again."""
    bare = IN_BRACKETS.sub("", line.text)
    if again is None or not _near(line, again) or not _names_only_day(scene, bare):
        return False
    return any(is_named(scene, bare, day) for day in said_dates(again.text, scene.facts.day))


def _near(a: Line, b: Line) -> bool:
    return min(abs(i - j) for i in a.turns for j in b.turns) <= MERGE_REACH


def _names_only_day(scene: Scene, text: str) -> bool:
    days = said_dates(text, scene.facts.day)
    for day in reversed(days):
        text = text[: day.start] + text[day.end :]
    return bool(days) and not set(re.findall(r"[a-z]+", text.lower())) - rulings.WITH_A_DAY - UNITS.keys()


def _add(scene: Scene, rulings: list[Ruling], ruling: Ruling, actions: Sequence[Line], weight: float) -> None:
    """Adds a ruling, or what it rests on to the likelier one that it stands beside; none is lost in a mere task."""
    for i, other in enumerate(rulings):
        apart = abs(other.sentence.turn - ruling.sentence.turn)
        if apart > MERGE_REACH:
            continue
        one = (ruling.why == JUDGED and weight < SURELY) or (
            _on_one_matter(scene, other, ruling) and not _is_task(other.sentence, actions)
        )
        if one:
            evidence = tuple(sorted({*other.evidence, *ruling.evidence}))
            again = ruling.why == MEETS_AGAIN
            if (apart < MERGE_REACH or again) and len({p.turn for p in evidence}) <= MOST_TURNS:
                why = MEETS_AGAIN if again else other.why
                rulings[i] = replace(other, evidence=evidence, why=why)
            return
    rulings.append(ruling)


def _on_one_matter(scene: Scene, a: Ruling, b: Ruling) -> bool:
    """Whether two rulings that stand close together are one: of one turn, alike, or one that says little by itself."""
    days, others = ({d.day for d in said_dates(r.sentence.text, scene.facts.day)} for r in (a, b))
    if (days and others and not days & others) or {a.why, b.why} == set(FIRM):
        return False
    apart = abs(a.sentence.turn - b.sentence.turn)
    if (a.why == MEETS_AGAIN) != (b.why == MEETS_AGAIN):
        other, named = (a, days) if b.why == MEETS_AGAIN else (b, others)
        if not named and apart and not _names_nothing(other.sentence):
            return False  # `We leave that till we hear from Mads.` … `Our next one's the seventeenth.`
    if apart == 0 or scene.alike(a.sentence, b.sentence) > (SAME_MATTER if apart <= CLOSE else SAME_FURTHER):
        return True
    shorter = min(a, b, key=lambda r: len(r.sentence.text))
    return shorter.why != PUT_TO_ALL and _names_nothing(shorter.sentence)


def _names_nothing(sentence: Sentence) -> bool:
    return len(sentence.text.split()) < SHORT or not any(t.pos in ("NOUN", "PROPN", "NUM") for t in sentence.tokens)


def _may_rule(scene: Scene, sentence: Sentence) -> bool:
    """Whether a sentence says something that can be settled; mere assent rests on what it answers, and a task settles nothing."""
    agrees_only = scene.backchannel[sentence.turn] or rulings.NO_MATTER.match(sentence.lower)
    agrees_only = agrees_only or rulings.COUNTED.match(sentence.lower) or rulings.OWN_VOTE.search(sentence.lower)
    no_matter = rulings.SOMEBODY_SHOULD.search(sentence.lower) or rulings.COUNTS_UP.search(sentence.lower)
    no_matter = no_matter or rulings.SAYS_NO.match(sentence.lower) or rulings.OPTIONS.search(sentence.lower)
    no_matter = no_matter or rulings.BY_WHEN.match(sentence.lower) or rulings.TELLS_ONLY.search(sentence.lower)
    no_matter = no_matter or deadlines.TOO_LATE.match(sentence.lower)
    return not agrees_only and not no_matter and not settles_nothing(sentence.lower)


def _leaning(scene: Scene, sentence: Sentence, ruled: Ruling | None) -> float:
    """What is added to a sentence's likelihood for what its words say; nothing where it tells what would only be done then."""
    if ruled is not None and ruled.why in FIRM:
        return FIRM_BONUS
    if ruled is not None and not supposed(scene, sentence):
        return RULE_BONUS
    own = cues.INTENT.search(sentence.lower) or cues.IF_FIRST.search(sentence.lower)
    return -TELLING_LESS if own or tells(sentence) else 0.0


def _superseded(scene: Scene, rulings: list[Ruling]) -> list[Ruling]:
    """Marks a ruling that a later one on the same matter takes back."""
    made = list(rulings)
    for i, later in enumerate(rulings):
        if not REVERSAL.search(later.sentence.lower):
            continue
        for j in range(i - 1, -1, -1):
            if scene.alike(rulings[j].sentence, later.sentence) > REVERSED_ALIKE:
                made[j] = replace(made[j], state=LineState.SUPERSEDED, later=later.sentence)
                break
    return made


def _line(scene: Scene, ruling: Ruling, likely: Likely, tasks: Sequence[Line]) -> Line | None:
    again = next_meeting(scene) or in_sentence(scene, ruling.sentence) if ruling.why == MEETS_AGAIN else None
    if again is not None:
        return _line_again(scene, ruling, again)
    sentence, about = _stated(scene, ruling, likely, tasks)
    text = wording.resolution(sentence.text)
    if len(text.split()) < 2:
        return None
    text = attributed(text, sentence.speaker)
    if about is not None:
        text = beside(text, about)
    else:
        text, about = _said_fully(scene, ruling, sentence, text)
    evidence = tuple(sorted({*ruling.evidence, passage(sentence), *([passage(about)] if about is not None else [])}))
    return Line(
        LineKind.DECISION, wording.ruled(text), evidence, state=ruling.state, answer=_instead(ruling), why=ruling.why
    )


def _line_again(scene: Scene, ruling: Ruling, again: SaidDate) -> Line:
    """When to meet again; what was merged into it from before the day was named speaks of other things."""
    text, named = told_again(scene, again)
    since = min((s.turn for s in named), default=0)
    evidence = tuple(sorted({*map(passage, named), *(p for p in ruling.evidence if p.turn >= since)}))
    return Line(LineKind.DECISION, text, evidence, state=ruling.state, why=ruling.why)


def _stated(scene: Scene, ruling: Ruling, likely: Likely, tasks: Sequence[Line]) -> tuple[Sentence, Sentence | None]:
    """The sentence that states a decision, and another that is to stand beside it: what was proposed beside few words
    of their own."""
    heart = ruling.sentence
    if is_counted(scene, heart) and any(rulings.MOTION.search(s.lower) for s in scene.inside(ruling.evidence)):
        return heart, None
    text = wording.resolution(heart.text)
    little = _says_little(heart, text) and ruling.state != LineState.OPEN and ruling.why != A_RULE
    proposal = told_next(scene, heart)
    if proposal is None and little:
        proposal = proposal_of(scene, heart, worded=len(text.split()) < 2)
    chosen = proposal if proposal is not None and wording.resolution(proposal.text) else heart
    turns = {each.turn for each in ruling.evidence}
    says_it = ruling.why == A_RULE or (is_imperative(chosen) and len(chosen.text.split()) >= LEAST_DONE)
    better = better_stated(scene, heart, chosen, turns, likely) if not says_it else None
    if better is not None and not _is_task(better, tasks):
        return better, None
    if proposal is not None and _says_its_own(scene, text, heart, proposal) and not _is_task(heart, tasks):
        return heart, proposal
    return chosen, None


def _says_little(sentence: Sentence, text: str) -> bool:
    """Whether words are too few to tell what is decided: no thing that has a name, or nothing but `Done`."""
    words = len(text.split())
    told = (
        t for t in sentence.tokens if not cues.TIME_NOUN.fullmatch(t.lemma) and t.text.lower() not in ("next", "last")
    )
    names_it = any(t.pos in ("NOUN", "PROPN", "ADJ") for t in told) and words > 1
    does = words >= LEAST_DONE and is_imperative(sentence) and any(t.pos in ("NOUN", "PROPN") for t in sentence.tokens)
    return words < SHORT and not names_it and not does


def _says_its_own(scene: Scene, text: str, sentence: Sentence, proposal: Sentence) -> bool:
    """Whether few words stand beside what was proposed and not behind it: they say what to do (`Keep it under 150.`),
    that says the opposite (`Not this year`), or only what somebody would like (`I'd sleep better with Tuesday.` `Tuesday
    it is.`)."""
    likes = rulings.PREFERS.search(proposal.lower) and said_dates(sentence.text, scene.facts.day)
    does = is_imperative(sentence) and len(text.split()) >= LEAST_DONE
    return bool(rulings.SAYS_NOT.match(text) or likes or does)


def _said_fully(scene: Scene, ruling: Ruling, sentence: Sentence, text: str) -> tuple[str, Sentence | None]:
    """The words of a decision with what they leave unsaid: the motion with its vote, what is approved, what `it` is."""
    inside = list(scene.inside(ruling.evidence))
    motion = next((s for s in inside if rulings.MOTION.search(s.lower)), None)
    if motion is not None and (moved := wording.resolution(rulings.IN_FAVOUR_OF.sub("", motion.text))):
        result = sentence if is_counted(scene, sentence) else result_of(scene, motion)
        return f"{moved.rstrip('.')} – {tally(scene, motion, result)}" if result else moved, result
    if rulings.ACCEPTS.match(sentence.lower) and (offered := _offered_to(scene, sentence)) is not None:
        return attributed(wording.resolution(offered.text), offered.speaker), offered
    text, about = with_reference(scene, sentence, text)
    if about is not None and rulings.MOTION.search(about.lower):
        return wording.resolution(about.text) or text, about
    if about is not None and rulings.GO_AHEAD.match(sentence.lower):
        return f"{wording.clean(about.text)} – {wording.clean(sentence.text)}", about
    if about is not None and rulings.APPROVES.search(sentence.lower):
        return wording.resolution(about.text) or text, about  # what is approved says it better
    if about is None and ruling.why != A_RULE and _leaves_unsaid(sentence, text):
        turns = {each.turn for each in ruling.evidence}
        about = chosen_from(scene, sentence) or left_unsaid(scene, ruling.sentence, turns, sentence)
        text = beside(text, about) if about is not None else text
    return text, about


def _leaves_unsaid(sentence: Sentence, text: str) -> bool:
    """Whether words are few, or say `it`, or tell nothing by a verb of their own: `In the safe.`, `It's on the poster.`"""
    words = len(text.split())
    does = any(t.pos == "VERB" for t in sentence.tokens)
    return words < SHORT or (words <= CLEAR_ENOUGH and (not does or bool(UNTOLD.search(text))))


def _offered_to(scene: Scene, sentence: Sentence) -> Sentence | None:
    """What another voice proposed, where a sentence only accepts it: `What about eight new ones?` `I can do that.`"""
    before = (s for t in scene.preceding(sentence.turn, MERGE_REACH) for s in reversed(scene.by_turn[t]))
    proposed = (s for s in before if s.speaker != sentence.speaker and cues.PROPOSAL.search(s.lower))
    return next((s for s in proposed if wording.resolution(s.text)), None)


def _instead(ruling: Ruling) -> Answer | None:
    """What was decided later in its place."""
    if ruling.later is None:
        return None
    return Answer(wording.resolution(ruling.later.text) or ruling.later.text, (passage(ruling.later),))
