"""Questions put to the record: an answer made from passages, or the word that there is none."""

from dataclasses import dataclass

import numpy as np

from nuntius.core.inquiry.asked import Asked, asked
from nuntius.core.inquiry.passages import found_features, passage_features
from nuntius.core.minutes import classifiers, wording
from nuntius.core.minutes.context import LEAST_ANSWERING, Logits, answering
from nuntius.core.minutes.figures import figures_in
from nuntius.core.minutes.line import MeetingFacts, Passage
from nuntius.core.minutes.scene import Scene, scene
from nuntius.core.transcript.transcript import Transcript

FOUND = -6.5  # logit that the record answers at all, below which it is said to hold nothing; fitted like READ_SHARE
FOUND_STRANGE = -2.0  # the same of a question of whose words none was ever said; fitted on questions of other meetings
BEST_SHARE, NEXT_SHARE = 1.0, 1.5  # of what reading says of the best turn, and of the best together, in it
NEXT = 8  # turns that are looked at together: in a long talk they say more than the best one, in a short one it does
READ = 32  # of the likeliest turns, which are read together with the question
READ_SHARE = 0.8  # of what reading them says in a turn's logit; fitted on talk that nothing was learnt from
CLOSE = 0.02  # share of the best passage's odds that a further one needs to be shown
QUOTED_CLOSE = 0.1  # the same for the answer to be made from it
STRANGE = 3  # words of a question, none of which was ever said
ALIKE = 0.6  # cosine from which a sentence says the same in other words
LEAST = 4  # passages of an answer, where there are as many
MOST = 8  # turns that an answer is built from
WITH_EXCHANGE = 2  # of the likeliest turns, which bring their question or answer along
NEAREST = 3  # turns shown where the record holds no answer
SENTENCES = 4  # of an answer
ANSWERS_SHARE = 0.05  # of what reading a sentence says in its weight for the answer; fitted like READ_SHARE
BEHIND = 0.6  # how much less than the nearest sentence another one of it may weigh
LEAST_SAID = 2  # words of a sentence of it, where there are others


@dataclass(frozen=True, slots=True)
class Reply:
    """`found` says whether the record holds an answer; `evidence` is what it was made from.

    `nearest` are the passages that come nearest where it holds none: not an answer, but what to look at.
    """

    found: bool
    text: str
    evidence: tuple[Passage, ...]
    nearest: tuple[Passage, ...] = ()


NOTHING = Reply(False, "", ())


def inquire(transcript: Transcript, facts: MeetingFacts, question: str, within: frozenset[int] | None = None) -> Reply:
    """Answers `question` from the record; NOTHING where it does not hold one.

    `within` are the turns that may answer, for a question put to one voice or a stretch of time; None means all.
    """
    talk = scene(transcript, facts)
    if not talk.sentences or not question.strip() or within == frozenset():
        return NOTHING
    put = asked(talk, question)
    features = passage_features(talk, put, classifiers.likelihoods(talk))
    likely = classifiers.classifiers()["passage"].of(features)
    if within is not None:
        likely = np.where(np.isin(np.arange(len(likely)), sorted(within)), likely, np.float32(0))
    nearest = [int(turn) for turn in np.argsort(-likely, kind="stable")[:READ] if likely[turn] > 0]
    answers = answering(talk, question, nearest)
    # Nothing is surer not to answer than what was not looked at: else a short talk's few turns say too much.
    read = np.maximum(talk.highest(answers, LEAST_ANSWERING), LEAST_ANSWERING)
    found = float(classifiers.classifiers()["found"].logit(found_features(put, features, likely)[None])[0])
    best = np.sort(read[nearest])[-NEXT:] if nearest else np.array([LEAST_ANSWERING])
    found += BEST_SHARE * float(best[-1]) + NEXT_SHARE * float(best.mean())
    likely = likely * np.exp(READ_SHARE * read)  # odds, which are about the likelihood where that is small
    order = [int(turn) for turn in np.argsort(-likely, kind="stable") if likely[turn] > 0]
    if not order or found < (FOUND_STRANGE if _is_strange(put) else FOUND):
        return Reply(False, "", (), tuple(map(talk.whole, order[:NEAREST])))
    close, quoted_close = (share * likely[order[0]] for share in (CLOSE, QUOTED_CLOSE))
    turns: list[int] = []
    quoted: list[int] = []  # those of which the answer is made; the others only stand below it
    for rank, turn in enumerate(order[:MOST]):
        if rank < LEAST or likely[turn] >= close:
            together = _exchange(talk, turn) if rank < WITH_EXCHANGE and within is None else [turn]
            turns += [t for t in together if t not in turns]
            quoted += together if rank < WITH_EXCHANGE or likely[turn] >= quoted_close else []
    turns = sorted(turns[:MOST])
    quoted = [turn for turn in quoted if turn in turns]  # nothing is answered from what does not stand below
    return Reply(True, _answer(talk, put, answers, quoted), tuple(talk.whole(t) for t in turns))


def _is_strange(put: Asked) -> bool:
    """Whether nothing that the question speaks of was ever said, in these words or nearly so."""
    return len(put.words) >= STRANGE and not any(put.held) and float(put.near.max()) < ALIKE


def turns_within(
    transcript: Transcript, speaker: str | None = None, start: float | None = None, end: float | None = None
) -> frozenset[int] | None:
    """Turns of one voice, or that touch a stretch (seconds); None where neither is asked for, which means all."""
    if speaker is None and start is None and end is None:
        return None
    first, last = start or 0.0, float("inf") if end is None else end
    return frozenset(
        number
        for number, turn in enumerate(transcript.turns)
        if speaker in (None, turn.speaker) and turn.end > first and turn.start < last
    )


def _exchange(talk: Scene, turn: int) -> list[int]:
    """A turn with the question that it answers, or with the answer to it when it asks."""
    if talk.by_turn[turn] and talk.by_turn[turn][-1].is_question:
        return [turn, *(t for t in talk.following(turn, 2) if talk.speaker(t) != talk.speaker(turn))]
    before = [t for t in talk.preceding(turn, 1) if talk.by_turn[t] and talk.by_turn[t][-1].is_question]
    return [turn, *before]


def _answer(talk: Scene, put: Asked, answers: Logits, turns: list[int]) -> str:
    """The sentences of the passages that come nearest to the question, each voice named."""
    inside = [(number, s) for number, s in enumerate(talk.sentences) if s.turn in turns]
    statements = [pair for pair in inside if not pair[1].is_question] or inside
    weights = {number: _weight(talk, put, answers, number) for number, _ in statements}
    least = max(weights.values()) - BEHIND
    near = [pair for pair in statements if weights[pair[0]] >= least]
    chosen = sorted(near, key=lambda pair: -weights[pair[0]])[:SENTENCES]
    parts: list[str] = []
    voice = ""
    for _, sentence in sorted(chosen):
        if len((words := wording.clean(sentence.text)).split()) < LEAST_SAID and len(chosen) > 1:
            continue
        parts.append(words if sentence.speaker == voice else f"{sentence.speaker}: {words}")
        voice = sentence.speaker
    return " ".join(parts)


def _weight(talk: Scene, put: Asked, answers: Logits, number: int) -> float:
    sentence = talk.sentences[number]
    is_specific = bool(figures_in(sentence.text)) or any(t.pos == "PROPN" for t in sentence.tokens)
    fits = 0.1 * is_specific + 0.15 * put.fits(talk, sentence.text)
    return float(put.near[number]) + fits + ANSWERS_SHARE * float(answers[number])
