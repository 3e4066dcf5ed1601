"""Steps: a procedure as it was shown, in its order, with its warnings and exceptions."""

from nuntius.core.language.en import cues, kinds
from nuntius.core.language.sentence import Sentence, Token
from nuntius.core.minutes.line import Line, LineKind, LineState
from nuntius.core.minutes.quoting import quoted
from nuntius.core.minutes.scene import Scene, passage

TEACHES = 0.2  # share of all instructions that somebody must give for theirs to count
NEAR = 4  # turns within which another instruction must stand: a procedure has more than one step
SHORTEST, LONGEST = 4, 40  # words
STATES = frozenset(
    "know see think mean say remember want like have be hear feel guess believe understand look let need hope get agree".split()
)  # what is no step when it is said of `you`


def find_steps(scene: Scene) -> list[Line]:
    """The instructions of those who teach; a lone one among other talk is none."""
    found = [s for s in scene.sentences if _instructs(s) and scene.roster.addressee(s.text) is None]
    teachers = {v for v in {s.speaker for s in found} if sum(s.speaker == v for s in found) >= TEACHES * len(found)}
    found = [s for s in found if s.speaker in teachers]
    near = [s for s in found if any(o is not s and abs(o.turn - s.turn) <= NEAR for o in found)]
    return [Line(LineKind.STEP, _told(s), (passage(s),), state=LineState.SETTLED, why="an instruction") for s in near]


def _instructs(sentence: Sentence) -> bool:
    text = sentence.lower
    if sentence.is_question or not SHORTEST <= len(text.split()) <= LONGEST:
        return False
    if cues.CONDITIONAL.search(text) or cues.PAST.search(text) or cues.OPINION.search(text):
        return False
    told = (kinds.SEQUENCE.search(text) and not kinds.NO_STEP.match(text)) or kinds.WARNING.search(text)
    return bool(_is_imperative(sentence) or _tells_you(sentence) or told)


def _tells_you(sentence: Sentence) -> bool:
    """What one does, said to whoever learns it: `You spin it and you look at the gap.`"""
    return any(
        token.text.lower() == "you" and token.dep == "nsubj" and _does(sentence.tokens[token.head])
        for token in sentence.tokens
    )


def _does(verb: Token) -> bool:
    return verb.pos == "VERB" and verb.tag in ("VBP", "VB") and verb.lemma not in STATES


def _is_imperative(sentence: Sentence) -> bool:
    """A main verb in its bare form without a subject: `Close the valve.`"""
    for i, token in enumerate(sentence.tokens):
        if token.dep == "ROOT":
            subjects = any(t.head == i and t.dep in ("nsubj", "nsubjpass", "expl", "aux") for t in sentence.tokens)
            return (
                token.pos == "VERB"
                and token.tag == "VB"
                and not subjects
                and token.lemma not in {"thank", "come", "give"} | STATES
            )
    return False


def _told(sentence: Sentence) -> str:
    text = quoted(sentence)
    if kinds.WARNING.search(sentence.lower):
        return f"Take care: {text}"
    return f"Except: {text}" if kinds.EXCEPTION.search(sentence.lower) else text
