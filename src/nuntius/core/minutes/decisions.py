"""Decisions in their final state: what was proposed and met with assent, votes, rulings by the chair."""

import re
from dataclasses import dataclass, replace

import numpy as np

from nuntius.core.language.en import cues, rulings
from nuntius.core.language.en.dates import SaidDate, said_dates
from nuntius.core.language.en.names import first_name, is_label
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.clearer import with_reference
from nuntius.core.minutes.due import CLOSING, next_meeting
from nuntius.core.minutes.judges import Likely
from nuntius.core.minutes.line import Answer, Line, Passage
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.signs import is_imperative

BEFORE, AFTER = 3, 3  # turns around a cue in which the proposal and the assent are looked for
LEAST_PROPOSED = 4  # words of a sentence that proposes something
SHORT = 5  # words; a cue sentence of fewer needs the proposal to be understood
MERGE_REACH = 4  # turns within which two cues are one decision
ENOUGH = 0.35  # likelihood from which a sentence is taken for the heart of a decision
JUDGED = "settled"  # why
RULE_BONUS = 0.2  # added to it where a rule finds one, too
FIRM_BONUS = 0.39  # the same where its form leaves little doubt
MEETS_AGAIN = "when to meet again"  # why
FIRM = ("a rule for all", MEETS_AGAIN)
TELLING_LESS = 0.35  # taken off it where the sentence tells what is or was, and no rule finds a decision in it
SAME_MATTER = 0.18  # cosine from which two cues close together are about one matter
MOTION_REACH = 8  # turns before a vote in which the motion is looked for
MOST_TURNS = 6  # that one decision rests on
REVERSED_ALIKE = 0.5  # cosine above which a later decision may replace an earlier one
REVERSAL = re.compile(
    r"\b(?:actually|instead|forget (?:it|that)|changed? (?:my|our) mind|scrap that|on second thoughts|rather than|after all)\b",
    re.I,
)
TAGGED = re.compile(r"\w{3,}.{6,}[,.]\s+agreed\W*\?\W*$", re.I)  # the proposal and the call for agreement in one
TO_ONE = re.compile(r"\b(?:me|please|would you|will you|could you)\b", re.I)
NO_RULING = re.compile(
    r"\bi'd like to (?:hear|see|know|ask|say|thank|understand|think)\b|"
    r"\blet's (?:have (?:it|them) all|not wait|see|say so|start|begin|get started|go round|do this|have a look|hear|hope|be honest|face it|think)\b|"
    r"\blast (?:year|week|time|month)\b|\bwe can only\b|^\W*as long as\b",
    re.I,
)


@dataclass(frozen=True, slots=True)
class Ruling:
    """A decision being put together."""

    sentence: Sentence
    evidence: tuple[Passage, ...]
    state: str
    why: str
    later: Sentence | None = None  # what was decided in its place


def find_decisions(scene: Scene, likely: Likely) -> list[Line]:
    """Decisions in the order of the talk; superseded ones are kept and marked.

    `likely` says for each sentence how likely it is the heart of a decision; what a rule finds counts more.
    """
    ruled = {number: found for number, s in enumerate(scene.sentences) if (found := _by_rule(scene, s))}
    weights = np.array([likely[i] + _leaning(s, ruled.get(i)) for i, s in enumerate(scene.sentences)])
    rulings: list[Ruling] = []
    for number in np.argsort(-weights, kind="stable"):
        if weights[number] < ENOUGH:
            break
        sentence = scene.sentences[number]
        if _may_rule(scene, sentence):
            _add(scene, rulings, ruled.get(int(number)) or _judged(scene, sentence))
    rulings.sort(key=lambda ruling: (ruling.sentence.turn, ruling.sentence.first))
    worded = [line for ruling in _superseded(scene, rulings) if (line := _line(scene, ruling)) is not None]
    lines = list({line.text: line for line in reversed(worded)}.values())[::-1]  # the same words settle one thing
    again = next((line for line in lines if line.why == MEETS_AGAIN), None)
    return [line for line in lines if line is again or not _names_only_day(scene, line, again)]


def _names_only_day(scene: Scene, line: Line, again: Line | None) -> bool:
    """`The twenty-first it is`, beside the line that says when they meet again."""
    near = again is not None and min(abs(a - b) for a in line.turns for b in again.turns) <= MERGE_REACH
    words = [
        word
        for word in re.findall(r"[\w'-]+", line.text)
        if word.lower() not in ("it", "is", "the", "then", "on", "okay")
    ]
    return near and len(words) <= 2 and bool(said_dates(line.text, scene.facts.day))


def _add(scene: Scene, rulings: list[Ruling], ruling: Ruling) -> None:
    """Adds a ruling, or what it rests on to the likelier one that it stands beside."""
    for i, other in enumerate(rulings):
        apart = abs(other.sentence.turn - ruling.sentence.turn)
        if apart <= MERGE_REACH and (ruling.why == JUDGED or _on_one_matter(scene, other, ruling)):
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
    if a.sentence.turn == b.sentence.turn or scene.alike(a.sentence, b.sentence) > SAME_MATTER:
        return True
    shorter = min(a.sentence, b.sentence, key=lambda s: len(s.text))
    return len(shorter.text.split()) < SHORT or not any(t.pos in ("NOUN", "PROPN", "NUM") for t in shorter.tokens)


def _by_rule(scene: Scene, sentence: Sentence) -> Ruling | None:
    return (
        _called(scene, sentence)
        or _proposed(scene, sentence)
        or _ruled(scene, sentence)
        or _meeting_again(scene, sentence)
        or _formed(scene, sentence)
    )


def _judged(scene: Scene, sentence: Sentence) -> Ruling:
    """A decision that is known by how it is said and received, not by a phrase."""
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), _state(sentence.lower), JUDGED)


def _may_rule(scene: Scene, sentence: Sentence) -> bool:
    """Whether a sentence says something that can be settled; mere assent rests on what it answers, and a task settles nothing."""
    agrees_only = scene.backchannel[sentence.turn] or rulings.NO_MATTER.match(sentence.lower)
    agrees_only = agrees_only or rulings.COUNTED.match(sentence.lower)
    no_matter = rulings.SOMEBODY_SHOULD.search(sentence.lower) or rulings.COUNTS_UP.search(sentence.lower)
    return not agrees_only and not no_matter and not _is_none(sentence.lower)


def _leaning(sentence: Sentence, ruled: Ruling | None) -> float:
    """What is added to a sentence's likelihood for what its words say."""
    if ruled is not None:
        return FIRM_BONUS if ruled.why in FIRM else RULE_BONUS
    own = cues.INTENT.search(sentence.lower) or cues.IF_FIRST.search(sentence.lower)
    return -TELLING_LESS if own or _tells(sentence) else 0.0


def _tells(sentence: Sentence) -> bool:
    """Whether a sentence tells what is or was: `There's 212 panes`, `I chased it yesterday`, `two have written back`."""
    lower = sentence.lower
    if rulings.WILLED.search(lower):
        return False
    verbs = [token for token in sentence.tokens if token.dep == "ROOT"]
    told = any(token.tag == "VBD" for token in verbs) or bool(rulings.PERFECT.search(lower))
    return told or bool(rulings.TELLING.search(lower))


def _ruled(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Electric it is, then.`, `So that's agreed.`: a cue with assent near it or by one who sums up."""
    lower = sentence.lower
    if sentence.is_question or not cues.DECIDED.search(lower) or _is_none(lower):
        return None
    support = _support(scene, sentence)
    summed = re.search(
        r"\b(?:it is|it's .+ then|then it's|so (?:that's|she|he|it|we)|settled|agreed|decided|carried|resolved|to one|get them)\b",
        lower,
    )
    if not support and not summed:
        return None
    return Ruling(sentence, _evidence(scene, sentence, support), _state(lower), "decided")


def _formed(scene: Scene, sentence: Sentence) -> Ruling | None:
    """What its form makes a ruling: `Nobody goes up before eleven`, `No drone.`, `Then we argue.`, `Hire the boots.`"""
    lower = sentence.lower
    if sentence.is_question or _is_none(lower) or any(t.dep == "ROOT" and t.tag == "VBD" for t in sentence.tokens):
        return None
    to_nobody = is_imperative(sentence) and scene.roster.addressee(sentence.text) is None
    to_nobody = to_nobody and not TO_ONE.search(lower) and not rulings.OR_ELSE.search(lower)
    ruled = to_nobody and any(t.lemma in rulings.RULING_VERBS for t in sentence.tokens if t.dep == "ROOT")
    for_all = rulings.NORM.search(lower)
    thing = rulings.THING_THEN.search(lower) and _just_spoken_of(scene, sentence)
    said = (
        for_all
        or thing
        or rulings.IF_ELSE.search(lower)
        or rulings.NO_THING.search(lower)
        or rulings.THEN_FIRST.search(lower)
        or rulings.SUMS_UP.search(lower)
    )
    if not (ruled or said):
        return None
    why = "a rule for all" if for_all else "ruled"
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), _state(lower), why)


def _just_spoken_of(scene: Scene, sentence: Sentence) -> bool:
    """Whether what a sentence names was named by another voice right before: `The third, then` answers, `The café, then` opens."""
    before = [t for t in scene.preceding(sentence.turn, 2 * BEFORE) if scene.speaker(t) != sentence.speaker]
    here = {word.lower().rstrip("s") for word in scene.content[sentence.turn, sentence.first]}
    return any(here & {word.lower().rstrip("s") for word in scene.turn_content[t]} for t in before)


def _meeting_again(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Next one's the twelfth of November, seven o'clock`, near the end of the talk."""
    if sentence.turn < CLOSING * len(scene.by_turn) or not cues.MEETING_AGAIN.search(sentence.text):
        return None
    beside = [s for t in (sentence.turn, sentence.turn + 1) if t < len(scene.by_turn) for s in scene.by_turn[t]]
    dated = [s for s in beside if s.first >= sentence.first or s.turn > sentence.turn]
    if not any(said_dates(s.text, scene.facts.day) for s in dated) or _is_none(sentence.lower):
        return None
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), "settled", MEETS_AGAIN)


def _is_none(lower: str) -> bool:
    """Whether words that sound like a decision are about something else."""
    return bool(cues.CONDITIONAL.search(lower) or cues.PAST.search(lower) or NO_RULING.search(lower))


def _called(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Anybody against? No?`: a proposal put to everybody and not opposed."""
    if not cues.AGREEMENT_CALL.search(sentence.lower):
        return None
    replies = list(scene.following(sentence.turn, AFTER))
    if any(re.match(r"^\W*(?:yes, i|i do|i am|me\b.*against)", scene.text(t), re.I) for t in replies[:2]):
        return None
    agreed = [t for t in replies if cues.ASSENT.search(scene.text(t)) or scene.backchannel[t]]
    beside = [s for s in scene.by_turn[sentence.turn] if s != sentence and not s.is_question]
    own = [s for s in beside if not rulings.COUNTED.match(s.lower)]
    if not agreed and not own:
        return None
    longest = max(own, key=lambda s: len(s.text), default=sentence)
    chosen = longest if len(longest.text.split()) >= SHORT and not TAGGED.search(sentence.text) else sentence
    return Ruling(chosen, _evidence(scene, chosen, agreed[:2]), "settled", "put to all")


def _proposed(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Could we make it Wednesday at ten?` with assent by at least one other voice and no objection."""
    if not cues.PROPOSAL.search(sentence.lower) or _is_none(rulings.I_RATHER.sub("i'd ", sentence.lower)):
        return None
    replies = [t for t in scene.following(sentence.turn, AFTER) if scene.speaker(t) != scene.speaker(sentence.turn)]
    agreed = [t for t in replies if _agrees(scene, t)]
    opposed = [t for t in replies if cues.REFUSAL.search(scene.text(t))]
    if not agreed or opposed or replies[0] not in agreed or len(sentence.text.split()) < 4:
        return None
    if cues.REQUEST.search(sentence.lower) or cues.RHETORICAL.search(sentence.lower):
        return None
    return Ruling(sentence, _evidence(scene, sentence, agreed[:2]), _state(sentence.lower), "proposed and agreed")


def _agrees(scene: Scene, turn: int) -> bool:
    """`Yes, but …` and a question back are no assent."""
    said = scene.text(turn)
    hedged = re.match(r"^\W*(?:yes|yeah|okay|sure|well)\W+but\b", said, re.I)
    return bool(cues.ASSENT.search(said)) and not hedged and not scene.by_turn[turn][0].is_question


def _support(scene: Scene, sentence: Sentence) -> list[int]:
    """Turns by other voices right before or after that agree or propose the same."""
    speaker = scene.speaker(sentence.turn)
    after = [t for t in scene.following(sentence.turn, 2) if scene.speaker(t) != speaker]
    return [t for t in after if _agrees(scene, t) and not cues.REFUSAL.search(scene.text(t))]


def _evidence(scene: Scene, sentence: Sentence, agreed: list[int]) -> tuple[Passage, ...]:
    """The words, the proposal they refer back to, and the assent."""
    found = {passage(sentence)}
    if (proposal := _proposal(scene, sentence)) is not None:
        found.add(passage(proposal))
    return tuple(sorted(found | {scene.whole(turn) for turn in agreed}))


def _proposal(scene: Scene, sentence: Sentence, worded: bool = False) -> Sentence | None:
    """The sentence before that a short ruling refers to: the motion that is voted on, a proposal, else the closest in meaning.

    With `worded` only one that can be written down as what was decided.
    """
    if cues.AGREEMENT_CALL.search(sentence.lower) or rulings.RESULT.search(sentence.lower):
        near = (s for turn in scene.preceding(sentence.turn, MOTION_REACH) for s in scene.by_turn[turn])
        if (motion := next((s for s in near if rulings.MOTION.search(s.lower)), None)) is not None:
            return motion
    earlier = [s for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    for reach in (BEFORE, 2 * BEFORE):
        for turn in scene.preceding(sentence.turn, reach):
            earlier += [s for s in scene.by_turn[turn] if not scene.backchannel[turn]]
        said = [s for s in earlier if len(s.text.split()) >= LEAST_PROPOSED and not _answers_only(s)]
        if earlier := [s for s in said if not worded or _is_worded(s)]:
            break
    if not earlier:
        return None
    return max(earlier, key=lambda s: scene.alike(s, sentence) + 0.25 * bool(cues.PROPOSAL.search(s.lower)))


def _told_next(scene: Scene, sentence: Sentence) -> Sentence | None:
    """What the next words of a turn give as settled: `Then that's that. Closed above the second floor from today.`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last][:1]
    if not rulings.THAT_IS_THAT.match(sentence.lower):
        return None
    return next((s for s in later if not s.is_question and _is_worded(s)), None)


def _is_worded(sentence: Sentence) -> bool:
    """Whether a sentence says something that can be agreed to, in words that can be written down."""
    unsure = cues.UNKNOWN.search(sentence.lower) or _tells(sentence)
    return not unsure and len(wording.resolution(sentence.text).split()) >= LEAST_PROPOSED


def _answers_only(sentence: Sentence) -> bool:
    """`Sure, they'll have them tomorrow.`: it takes something on and proposes nothing."""
    takes_on = cues.INTENT.search(sentence.lower) or cues.HAD_BY.search(sentence.lower)
    return bool(cues.ASSENT.search(sentence.text) and takes_on)


def _state(lower: str) -> str:
    return "open" if cues.DEFERRED.search(lower) else "settled"


def _superseded(scene: Scene, rulings: list[Ruling]) -> list[Ruling]:
    """Marks a ruling that a later one on the same matter takes back."""
    made = list(rulings)
    for i, later in enumerate(rulings):
        if not REVERSAL.search(later.sentence.lower):
            continue
        for j in range(i - 1, -1, -1):
            if scene.alike(rulings[j].sentence, later.sentence) > REVERSED_ALIKE:
                made[j] = replace(made[j], state="superseded", later=later.sentence)
                break
    return made


def _line(scene: Scene, ruling: Ruling) -> Line | None:
    sentence = ruling.sentence
    again = _day_agreed(scene, sentence) if ruling.why == MEETS_AGAIN else None
    if again is not None:
        text = rulings.MEETS_AGAIN.format(day=f"{again.day:%A} {again.day.day} {again.day:%B}")
        evidence = tuple(sorted({*ruling.evidence, _named_at(scene, again)}))
        return Line("decision", text, evidence, state=ruling.state, why=ruling.why)
    text = wording.resolution(sentence.text)
    told = [
        t for t in sentence.tokens if not cues.TIME_NOUN.fullmatch(t.lemma) and t.text.lower() not in ("next", "last")
    ]
    tells = any(t.pos in ("NOUN", "PROPN", "ADJ") for t in told) and len(text.split()) > 1
    says_little = len(text.split()) < SHORT and not tells and ruling.state != "open"
    proposal = (
        _told_next(scene, sentence) or _proposal(scene, sentence, worded=len(text.split()) < 2) if says_little else None
    )
    if proposal is not None and (proposed := wording.resolution(proposal.text)):
        text, sentence = proposed, proposal
    if len(text.split()) < 2:
        return None
    if not is_label(sentence.speaker):
        text = wording.third_person(text, first_name(sentence.speaker))
    text, about = _said_fully(scene, ruling, sentence, text)
    evidence = tuple(sorted({*ruling.evidence, passage(about)})) if about is not None else ruling.evidence
    return Line("decision", text, evidence, state=ruling.state, answer=_instead(ruling), why=ruling.why)


def _said_fully(scene: Scene, ruling: Ruling, sentence: Sentence, text: str) -> tuple[str, Sentence | None]:
    """The words of a decision with what they leave unsaid: the motion with its vote, what is approved, what `it` is."""
    inside = list(scene.inside(ruling.evidence))
    motion = next((s for s in inside if rulings.MOTION.search(s.lower)), None)
    if motion is not None and (moved := wording.resolution(motion.text)):
        result = next((s for s in inside if s.turn > motion.turn and rulings.RESULT.search(s.lower)), None)
        return f"{moved.rstrip('.')} – {wording.clean(result.text)}" if result else moved, None
    text, about = with_reference(scene, sentence, text)
    if about is not None and rulings.MOTION.search(about.lower):
        return wording.resolution(about.text) or text, about
    if about is not None and rulings.GO_AHEAD.match(sentence.lower):
        return f"{wording.clean(about.text)} – {wording.clean(sentence.text)}", about
    if about is not None and rulings.APPROVES.search(sentence.lower):
        return wording.resolution(about.text) or text, about  # what is approved says it better
    return text, about


def _day_agreed(scene: Scene, sentence: Sentence) -> SaidDate | None:
    """When they meet again, where the sentence itself does not say so in the end."""
    again = next_meeting(scene)
    says = again is not None and any(item.day == again.day for item in said_dates(sentence.text, scene.facts.day))
    return None if says and cues.MEETING_AGAIN.search(sentence.text) else again


def _named_at(scene: Scene, again: SaidDate) -> Passage:
    """The last words that name a day."""
    naming = (
        s for s in reversed(scene.sentences) if any(d.day == again.day for d in said_dates(s.text, scene.facts.day))
    )
    return passage(next(naming))


def _instead(ruling: Ruling) -> Answer | None:
    """What was decided later in its place."""
    if ruling.later is None:
        return None
    return Answer(wording.resolution(ruling.later.text) or ruling.later.text, (passage(ruling.later),))
