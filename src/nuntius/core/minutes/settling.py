"""What settles a matter by its form: calls for agreement, proposals with assent, rulings; and what each rests on."""

import re
from dataclasses import dataclass

from nuntius.core.language.en import cues, deadlines, rulings
from nuntius.core.language.en.dates import said_dates
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.features import is_imperative
from nuntius.core.minutes.line import LineState, Passage
from nuntius.core.minutes.meeting_again import CLOSING
from nuntius.core.minutes.scene import Scene, passage
from nuntius.core.minutes.votes import is_counted, motion_before

BEFORE, AFTER = 3, 3  # turns around a cue in which the proposal and the assent are looked for
LEAST_PROPOSED = 4  # words of a sentence that proposes something
SHORT = 5  # words; a cue sentence of fewer needs the proposal to be understood
JUDGED = "settled"  # why
PUT_TO_ALL = "put to all"  # why
A_RULE = "a rule for all"  # why
MEETS_AGAIN = "when to meet again"  # why
TAGGED = re.compile(r"\w{3,}.{6,}[,.]\s+agreed\W*\?\W*$", re.I)  # the proposal and the call for agreement in one
TO_ONE = re.compile(r"\b(?:me|your|please|would you|will you|could you)\b", re.I)
NO_RULING = re.compile(
    r"\bi'd like to (?:hear|see|know|ask|say|thank|understand|think)\b|"
    r"\blet's (?:have (?:it|them) all|not wait|see|say so|start|begin|get started|go round|do this|have a look|hear|hope|be honest|face it|think)\b|"
    r"^\W*i (?:feel|fear)\b|\blet's (?:just )?(?:vote|have a show of hands)\b|\bput (?:it|that|this) to (?:the|a) vote\W*$|"
    r"\b(?:quick|short) round\b|\b(?:go through|do|take) (?:it|them|this|the \w+) (?:one by one|one at a time)\b|\b(?:go through|do|take) (?:it|them|this) in (?:the same|this|that) order\b|\bi(?:'d)? (?:want|need|like) (?:two|three|five|ten|\d+) minutes\b|"
    r"\blast (?:year|week|time|month)\b|\bwe can only\b|^\W*as long as\b",
    re.I,
)


@dataclass(frozen=True, slots=True)
class Ruling:
    """A decision being put together."""

    sentence: Sentence
    evidence: tuple[Passage, ...]
    state: LineState
    why: str
    later: Sentence | None = None  # what was decided in its place


def by_rule(scene: Scene, sentence: Sentence) -> Ruling | None:
    return (
        _called(scene, sentence)
        or _counted(scene, sentence)
        or _proposed(scene, sentence)
        or _ruled(scene, sentence)
        or _meeting_again(scene, sentence)
        or _formed(scene, sentence)
    )


def likely_ruling(scene: Scene, sentence: Sentence) -> Ruling:
    """A decision that is known by how it is said and received, not by a phrase."""
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), _state(sentence.lower), JUDGED)


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
    return Ruling(chosen, _evidence(scene, chosen, agreed[:2]), LineState.SETTLED, PUT_TO_ALL)


def _counted(scene: Scene, sentence: Sentence) -> Ruling | None:
    """What counted hands come to, with the motion."""
    if not is_counted(scene, sentence):
        return None
    moved = motion_before(scene, sentence)
    evidence = {passage(sentence), *([passage(moved)] if moved is not None else [])}
    return Ruling(sentence, tuple(sorted(evidence)), LineState.SETTLED, PUT_TO_ALL)


def _proposed(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Could we make it Wednesday at ten?` with assent by at least one other voice and no objection."""
    if not cues.PROPOSAL.search(sentence.lower) or settles_nothing(rulings.I_RATHER.sub("i'd ", sentence.lower)):
        return None
    replies = [t for t in scene.following(sentence.turn, AFTER) if scene.speaker(t) != scene.speaker(sentence.turn)]
    agreed = [t for t in replies if _agrees(scene, t)]
    opposed = [t for t in replies if cues.REFUSAL.search(scene.text(t))]
    if not agreed or opposed or replies[0] not in agreed or len(sentence.text.split()) < 4:
        return None
    if cues.REQUEST.search(sentence.lower) or cues.RHETORICAL.search(sentence.lower):
        return None
    return Ruling(sentence, _evidence(scene, sentence, agreed[:2]), _state(sentence.lower), "proposed and agreed")


def _ruled(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Electric it is, then.`, `So that's agreed.`: a cue with assent near it or by one who sums up."""
    lower = sentence.lower
    if sentence.is_question or not cues.DECIDED.search(lower) or settles_nothing(lower):
        return None
    support = _support(scene, sentence)
    summed = re.search(
        r"\b(?:it is|it's .+ then|then it's|so (?:that's|she|he|it|we)|settled|agreed|decided|carried|resolved|to one|get them)\b",
        lower,
    )
    if not support and not summed:
        return None
    return Ruling(sentence, _evidence(scene, sentence, support), _state(lower), "decided")


def _meeting_again(scene: Scene, sentence: Sentence) -> Ruling | None:
    """`Next one's the twelfth of November, seven o'clock`, near the end of the talk."""
    if (
        sentence.turn < CLOSING * len(scene.by_turn)
        or deadlines.FOR_NEXT.search(sentence.text)
        or not deadlines.MEETING_AGAIN.search(sentence.text)
    ):
        return None
    beside = [s for t in range(sentence.turn, min(sentence.turn + 3, len(scene.by_turn))) for s in scene.by_turn[t]]
    dated = [s for s in beside if s.first >= sentence.first or s.turn > sentence.turn]
    if not any(said_dates(s.text, scene.facts.day) for s in dated) or settles_nothing(sentence.lower):
        return None
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), LineState.SETTLED, MEETS_AGAIN)


def _formed(scene: Scene, sentence: Sentence) -> Ruling | None:
    """What its form makes a ruling: `Nobody goes up before eleven`, `No drone.`, `Then we argue.`, `Hire the boots.`"""
    lower = sentence.lower
    for_all = rulings.NORM.search(lower) if not rulings.DESCRIBES.match(lower) else None
    ruled_by = sentence.text.find(",", for_all.end()) if for_all else -1  # behind it stands why
    told = (t for t in sentence.tokens if t.dep == "ROOT" and t.tag == "VBD")
    if sentence.is_question or settles_nothing(lower) or any(not -1 < ruled_by < t.start for t in told):
        return None
    to_nobody = is_imperative(sentence) and scene.roster.addressee(sentence.text) is None
    to_nobody = to_nobody and not TO_ONE.search(lower) and not rulings.OR_ELSE.search(lower)
    ruled = to_nobody and any(t.lemma in rulings.RULING_VERBS for t in sentence.tokens if t.dep == "ROOT")
    named = rulings.THEN_NOT.search(lower) or _just_spoken_of(scene, sentence)
    thing = named and rulings.THING_THEN.search(lower)
    said = (
        for_all
        or thing
        or rulings.IF_ELSE.search(lower)
        or rulings.NO_THING.search(lower)
        or (rulings.THEN_FIRST.search(lower) and not _heads(scene, sentence))
        or rulings.SUMS_UP.search(lower)
        or rulings.APPROVED.search(lower)
    )
    if not (ruled or said):
        return None
    why = A_RULE if for_all else "ruled"
    return Ruling(sentence, _evidence(scene, sentence, _support(scene, sentence)), _state(lower), why)


def _heads(scene: Scene, sentence: Sentence) -> bool:
    """Whether few words only open what is said next: `Then the price. I'll say it as it is, we were a bit shocked.`"""
    goes_on = any(s.first > sentence.last for s in scene.by_turn[sentence.turn])
    return goes_on and len(sentence.text.split()) < SHORT and not any(t.pos in ("VERB", "AUX") for t in sentence.tokens)


def _just_spoken_of(scene: Scene, sentence: Sentence) -> bool:
    """Whether what a sentence names was named by another voice right before: `The third, then` answers, `The café, then` opens."""
    before = [t for t in scene.preceding(sentence.turn, 2 * BEFORE) if scene.speaker(t) != sentence.speaker]
    here = {word.lower().rstrip("s") for word in scene.content[sentence.turn, sentence.first]}
    return any(here & {word.lower().rstrip("s") for word in scene.turn_content[t]} for t in before)


def tells(sentence: Sentence) -> bool:
    """Whether a sentence tells what is or was: `There's 212 panes`, `I chased it yesterday`, `two have written back`."""
    lower = sentence.lower
    if rulings.WILLED.search(lower):
        return False
    verbs = [token for token in sentence.tokens if token.dep == "ROOT"]
    told = any(token.tag == "VBD" for token in verbs) or bool(rulings.PERFECT.search(lower))
    return told or bool(rulings.TELLING.search(lower))


def settles_nothing(lower: str) -> bool:
    """Whether words that sound like a decision are about something else."""
    told = rulings.HOLDS_UNLESS.sub("", lower) if rulings.NORM.search(lower) else rulings.NOBODY_OBJECTS.sub("", lower)
    return bool(cues.CONDITIONAL.search(told) or cues.PAST.search(lower) or NO_RULING.search(lower))


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
    if (proposal := proposal_of(scene, sentence)) is not None:
        found.add(passage(proposal))
    return tuple(sorted(found | {scene.whole(turn) for turn in agreed}))


def proposal_of(scene: Scene, sentence: Sentence, worded: bool = False) -> Sentence | None:
    """The sentence before that a short ruling refers to: the motion that is voted on, a proposal, else the closest in meaning.

    With `worded` only one that can be written down as what was decided.
    """
    told = cues.AGREEMENT_CALL.search(sentence.lower) or rulings.RESULT.search(sentence.lower)
    if told and (motion := motion_before(scene, sentence)) is not None:
        return motion
    earlier = [s for s in scene.by_turn[sentence.turn] if s.first < sentence.first]
    for reach in (BEFORE, 2 * BEFORE):
        for turn in scene.preceding(sentence.turn, reach):
            earlier += [s for s in scene.by_turn[turn] if not scene.backchannel[turn]]
        said = [s for s in earlier if len(s.text.split()) >= LEAST_PROPOSED and not _answers_only(s)]
        said = [s for s in said if not NO_RULING.search(s.lower)]
        if earlier := [s for s in said if not worded or _is_worded(s)]:
            break
    if not earlier:
        return None
    return max(earlier, key=lambda s: scene.alike(s, sentence) + 0.25 * bool(cues.PROPOSAL.search(s.lower)))


def told_next(scene: Scene, sentence: Sentence) -> Sentence | None:
    """What the next words of a turn give as settled: `Then that's that. Closed above the second floor from today.`"""
    later = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.last][:1]
    if not rulings.THAT_IS_THAT.match(sentence.lower):
        return None
    return next((s for s in later if not s.is_question and _is_worded(s)), None)


def _is_worded(sentence: Sentence) -> bool:
    """Whether a sentence says something that can be agreed to, in words that can be written down."""
    unsure = cues.UNKNOWN.search(sentence.lower) or tells(sentence)
    return not unsure and len(wording.resolution(sentence.text).split()) >= LEAST_PROPOSED


def _answers_only(sentence: Sentence) -> bool:
    """`Sure, they'll have them tomorrow.`, `So do I, agreed.`: it takes something on or assents, and proposes nothing."""
    takes_on = cues.INTENT.search(sentence.lower) or deadlines.HAD_BY.search(sentence.lower)
    says_something = any(
        t.pos in ("NOUN", "PROPN", "NUM", "VERB", "ADJ") for t in sentence.tokens if t.text != "agreed"
    )
    return not says_something or bool(cues.ASSENT.search(sentence.text) and takes_on)


def _state(lower: str) -> LineState:
    return LineState.OPEN if cues.DEFERRED.search(lower) else LineState.SETTLED
