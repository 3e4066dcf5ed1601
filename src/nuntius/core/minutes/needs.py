"""Needs and objections: what the other side named, whether it was met, and by what."""

from nuntius.core.language.en import cues, kinds
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Answer, Line, LineKind, LineState
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.scene import Scene, passage

WITHIN = 6  # turns in which the other side meets a need
ASKS = 0.5  # of the needs of whoever named most: those with fewer are not who asks
OFFERED = 0.5  # of a need that each offer of the same voice counts against it
SHORTEST = 4  # words
AT_ONCE = 2  # turns within which what the other side says is an answer
ALIKE = 0.3  # cosine that a later answer needs


def find_needs(scene: Scene) -> list[Line]:
    """A line for each need or objection of those who asked for most and offered least; open where nobody met it."""
    found = [s for s in scene.sentences if _is_need(scene, s)]
    counts = {v: sum(s.speaker == v for s in found) - OFFERED * _offers(scene, v) for v in {s.speaker for s in found}}
    most = max(counts.values(), default=0.0)
    asking = {v for v, count in counts.items() if count >= (ASKS * most if most > 0 else most)}
    if len(asking) == len(scene.transcript.speakers) > 1:  # nobody stands out: whoever asked most, the first of equals
        asking = {max(scene.transcript.speakers, key=lambda v: counts.get(v, 0))}
    return [_line(scene, s, asking) for s in found if s.speaker in asking]


def _offers(scene: Scene, speaker: str) -> int:
    """How often a voice says what it has to offer."""
    return sum(
        s.speaker == speaker and not s.is_question and bool(kinds.OFFERS.search(s.lower)) for s in scene.sentences
    )


def _is_need(scene: Scene, sentence: Sentence) -> bool:
    text = sentence.lower
    if len(text.split()) < SHORTEST or cues.CONDITIONAL.search(text) or cues.INTENT.search(text):
        return False
    if kinds.TO_LEARN.search(text) or (sentence.is_question and kinds.WH.match(text)):
        return False
    return bool(kinds.NEED.search(text) or (kinds.OBJECTION.search(text) and not sentence.is_question))


def _line(scene: Scene, sentence: Sentence, asking: set[str]) -> Line:
    kind = "Objection" if kinds.OBJECTION.search(sentence.lower) else "Need"
    met, reply = _reply(scene, sentence, asking)
    answer = None
    if reply is not None:
        answer = Answer(f"{'Met' if met else 'Not met'}: {quoted(reply)}", (passage(reply),))
    return Line(
        LineKind.NEED,
        f"{kind}: {quoted(sentence)}",
        (passage(sentence),),
        owner=(sentence.speaker,),
        state=LineState.SETTLED if met else LineState.OPEN,
        answer=answer,
        why="what was asked for",
    )


def _reply(scene: Scene, sentence: Sentence, asking: set[str]) -> tuple[bool, Sentence | None]:
    """Whether the other side met the need, and the sentence that says so; the refusal where there is only that.

    What is said further on must be alike: it may be about another need.
    """
    refusal: Sentence | None = None
    for turn in scene.following(sentence.turn, WITHIN):
        for said in scene.by_turn[turn]:
            if said.speaker in asking or said.is_question or len(said.text.split()) < SHORTEST:
                continue
            if turn - sentence.turn > AT_ONCE and scene.alike(sentence, said) < ALIKE:
                continue
            if kinds.UNMET.search(said.lower):
                refusal = refusal or said
            elif kinds.MET.search(said.lower):
                return True, said
    return False, refusal
