"""Questions on the subject of the meeting, and how they were answered."""

import re
from dataclasses import replace

from nuntius.core.language.en import cues
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes import wording
from nuntius.core.minutes.classifiers import Likely
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.line import Answer, Line, LineKind, LineState, Passage
from nuntius.core.minutes.scene import Scene, passage

ENOUGH = 0.45  # likelihood from which a question is one of the meeting and no courtesy or aside
REACH = 6  # turns within which an answer is looked for
LONGEST_ANSWER = 24  # words of an answer's text
LATE = 0.55  # cosine of a question and what answers it later on
ASKED_AGAIN = 0.75  # cosine of two ways to ask the same
DAY = re.compile(
    r"\b(?:(?:mon|tues|wednes|thurs|fri|satur|sun)day|today|tomorrow|tonight|week|month|spring|summer|autumn|winter)\b"
)
ASKS_WHICH = re.compile(  # `Which one would you pick?` asks for nothing to be done
    r"^\W*(?:(?:so|and|but|or|well|okay|right)\W+)*(?:what|who|where|why|which|how (?:many|much|long|far|often))\b.*\bwould you\b"
)
INTERROGATIVE = re.compile(
    r"^\W*(?:(?:so|and|but|or|well|okay|right|sorry|wait)\W+)*(?:what|who|whose|when|where|why|how|which|is|are|was|were|do|does|did|have|has|can|could|will|would|should|shall)\b",
    re.I,
)


def find_questions(scene: Scene, likely: Likely) -> list[Line]:
    """Questions in the order of the talk, with their answers or left open.

    `likely` says for each sentence how likely it asks something that matters to the meeting.
    """
    pairs = zip(scene.sentences, likely, strict=True)
    lines: list[Line] = []
    for line in (_line(scene, sentence) for sentence, p in pairs if p >= ENOUGH and _asks(scene, sentence)):
        if lines and _is_one(lines[-1], line):
            lines[-1] = _joined(lines[-1], line)
        else:
            lines.append(line)
    return lines


def _is_one(before: Line, line: Line) -> bool:
    """Whether two questions are asked in one breath and answered as one."""
    return before.evidence[-1].turn == line.evidence[-1].turn and before.answer == line.answer


def _joined(before: Line, line: Line) -> Line:
    evidence = tuple(sorted({*before.evidence, *line.evidence}))
    return replace(before, text=f"{before.text} {line.text}", evidence=evidence)


def _asks(scene: Scene, sentence: Sentence) -> bool:
    words = sentence.text.split()
    if not sentence.is_question or cues.RHETORICAL.search(sentence.lower) or cues.FORMALITY.search(sentence.lower):
        return False
    asks_for = cues.REQUEST.search(sentence.lower) and not ASKS_WHICH.match(sentence.lower)
    if asks_for or re.search(
        r"\b(?:any ?body|any ?one|every ?body|every ?one) (?:unhappy|against|happy|object\w*|opposed)\b", sentence.lower
    ):
        return False
    if len(words) < 3 and not INTERROGATIVE.match(sentence.text) and sentence.first > 0:
        return False
    if len(words) < 2 and not re.match(r"^\W*(?:why|when|where|how)\b", sentence.lower):
        return False
    own = [s for s in scene.by_turn[sentence.turn] if s.first > sentence.first]
    return not (len(own) >= 2 and not any(s.is_question for s in own) and not INTERROGATIVE.match(sentence.text))


def _line(scene: Scene, sentence: Sentence) -> Line:
    answer = _answer(scene, sentence) or _late_answer(scene, sentence)
    text = wording.clean(sentence.text)
    evidence = [passage(sentence)]
    if len(text.split()) < 5 and (before := _context(scene, sentence)):
        evidence.insert(0, passage(before))
    return Line(
        LineKind.QUESTION,
        text,
        tuple(evidence),
        state=LineState.SETTLED if answer else LineState.OPEN,
        answer=answer,
        why="asked",
    )


def _context(scene: Scene, sentence: Sentence) -> Sentence | None:
    """What a short question refers to: the sentence right before it in its turn."""
    own = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first]
    return own[-1] if own else None


def _answer(scene: Scene, sentence: Sentence) -> Answer | None:
    """The first turn by another voice that is no question; the speaker's own words stop the search."""
    speaker = scene.speaker(sentence.turn)
    evidence: list[Passage] = []
    texts: list[str] = []
    for turn in scene.following(sentence.turn, REACH):
        if scene.speaker(turn) == speaker:
            if evidence:
                break
            continue
        said = scene.text(turn)
        if cues.UNKNOWN.search(said) and len(said.split()) < 14:
            return None
        sentences = [s for s in scene.by_turn[turn] if not s.is_question]
        if not sentences or (_only_listens(scene, turn) and not _closed(sentence)):
            continue
        evidence.append(scene.whole(turn))
        texts.append(" ".join(filter(None, (wording.clean(s.text) for s in sentences))) or said)
        if len(texts[0].split()) > 4 or len(evidence) == 2:
            break
    return Answer(_shortened(" ".join(texts)), tuple(evidence)) if evidence else None


def _late_answer(scene: Scene, sentence: Sentence) -> Answer | None:
    """What answers it later on: the answer to the same question asked again, or a statement that names what it asks for."""
    index = scene.index[sentence.turn, sentence.first]
    alike = scene.vectors @ scene.vectors[index]
    for number, other in enumerate(scene.sentences):
        if other.turn <= sentence.turn + REACH or alike[number] < LATE:
            continue
        if other.is_question:
            again = _answer(scene, other) if alike[number] >= ASKED_AGAIN else None
            if again is not None:
                return again
        elif _names_it(scene, sentence, other):
            return Answer(_shortened(wording.clean(other.text) or other.text), (passage(other),))
    return None


def _names_it(scene: Scene, question: Sentence, said: Sentence) -> bool:
    """Whether a statement on the question's subject holds what it asks for: a figure, a day, a person."""
    subject = scene.content[question.turn, question.first] & scene.content[said.turn, said.first]
    if len(subject) < 2 or cues.UNKNOWN.search(said.lower) or cues.CONDITIONAL.search(said.lower):
        return False
    if re.search(r"\bhow (?:many|much|long|far|old|big|heavy)\b", question.lower):
        return bool(figures_in(said.text))
    if re.search(r"\bwhen\b", question.lower):
        return bool(figures_in(said.text) or DAY.search(said.lower))
    if re.search(r"\bwho(?:se)?\b", question.lower):
        return any(token.pos == "PROPN" for token in said.tokens)
    return False


def _only_listens(scene: Scene, turn: int) -> bool:
    return bool(
        re.fullmatch(
            r"\W*(?:mm+|mhm|mm[- ]?hm+|hm+|huh|uh[- ]?huh|ah|oh|okay|good question)\W*", scene.text(turn), re.I
        )
    )


def _closed(sentence: Sentence) -> bool:
    """Whether yes or no answers it."""
    return not re.search(r"\b(?:what|who|whose|when|where|why|how|which)\b", sentence.lower)


def _shortened(text: str) -> str:
    """As many whole sentences as fit, at least one."""
    parts = re.split(r"(?<=[.?!])\s+", text)
    kept = parts[0]
    for part in parts[1:]:
        if len(kept.split()) + len(part.split()) > LONGEST_ANSWER:
            break
        kept += " " + part
    return kept
