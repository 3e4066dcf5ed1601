"""What a sentence is among the sentences around it: small networks read whole stretches of talk at once.

The networks are sentence encoders (MiniLM, six layers) that were taught on the annotated talk of this repository
(`training/context.py`, `training/stating.py`), one to classify sentences, one to find what answers a question, one for what a
sentence refers to, one for how a decision is best told. They give logits for each token of
a stretch, of which a sentence has the mean (sequential sentence classification after Cohan et al. 2019). Voices are
told apart by letters, or by first names where a question is put to the talk.
"""

from bisect import bisect_left, bisect_right
from collections.abc import Collection, Iterator, Sequence
from dataclasses import dataclass
from functools import cache, lru_cache
from importlib.resources import files
from pathlib import Path

import numpy as np
import onnxruntime
from numpy.typing import NDArray
from tokenizers import Tokenizer

from nuntius.core.language.cache import Kept
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.scene import Scene
from nuntius.core.networks import on_all_cores, shipped_network

OF_SENTENCES = ("action", "decision", "question", "worth")
KINDS = (*OF_SENTENCES, "answer", "opens")  # logits that the networks give, in their order
ACTION, DECISION, ANSWER, OPENS = (KINDS.index(kind) for kind in ("action", "decision", "answer", "opens"))
CORE, BEFORE, AFTER = 180, 45, 60  # tokens of a stretch that are classified, and of the talk before and behind it
ASKED_CORE, ASKED_BEFORE, ASKED_AFTER = 110, 25, 30  # the same where a question stands ahead of it
LED_UP = 180  # tokens of the talk before a sentence among which that is looked for which it refers to
AROUND_HEART = 330  # tokens of the talk around a decision that is to be told
LONGEST_SENTENCE, LONGEST_TURN, LONGEST_QUESTION = 90, 200, 30  # tokens
LEAST_CUT = 8  # tokens of an earlier turn that are worth taking in
KEPT = 400  # stretches whose logits are kept, some two hours of talk
SENTENCES, ANSWERS, REFERENCES, STATING = "context.onnx", "answering.onnx", "referring.onnx", "stating.onnx"
LEAST_ANSWERING = -6.0  # logit of what was not looked at; one answer in 400
LEAST_OPENING = -6.0  # the same of a turn without a sentence
LETTERS = "abcdefghijklmnopqrstuvwxyz"

Logits = NDArray[np.float32]


@dataclass(frozen=True, slots=True)
class Stretch:
    """Tokens of a turn, or of what is read at once; of each sentence that is classified its number and where it stands."""

    tokens: tuple[int, ...]
    sentences: tuple[tuple[int, int, int], ...]


_kept: dict[str, Kept[tuple[int, ...], Logits]] = {
    name: Kept(KEPT) for name in (SENTENCES, ANSWERS, REFERENCES, STATING)
}


@lru_cache(maxsize=2)
def in_context(scene: Scene) -> Logits:
    """Logits of every sentence of the talk, shape (sentences, KINDS), "answer" without meaning. Raises ModelMissing."""
    made = np.zeros((len(scene.sentences), len(KINDS)), np.float32)
    stretches = list(stretched(pieces(scene, named=False), (), (CORE, BEFORE, AFTER)))
    for stretch, logits in zip(stretches, _read(SENTENCES, stretches), strict=True):
        for number, first, last in stretch.sentences:
            made[number] = logits[first:last].mean(0)
    return made


def answering(scene: Scene, question: str, turns: Collection[int]) -> Logits:
    """For each sentence the logit that it answers a question, shape (sentences,). Raises ModelMissing.

    Only stretches that hold one of `turns` are read; LEAST_ANSWERING stands for all other sentences.
    """
    made = np.full(len(scene.sentences), LEAST_ANSWERING, np.float32)
    asked = question_tokens(question)
    sizes = (ASKED_CORE, ASKED_BEFORE, ASKED_AFTER)
    turn_of = [sentence.turn for sentence in scene.sentences]
    stretches = [
        stretch
        for stretch in stretched(pieces(scene, named=True), asked, sizes)
        if any(turn_of[number] in turns for number, _, _ in stretch.sentences)
    ]
    for stretch, logits in zip(stretches, _read(ANSWERS, stretches), strict=True):
        for number, first, last in stretch.sentences:
            made[number] = logits[first:last, ANSWER].mean()
    return made


def referred(scene: Scene, sentence: Sentence) -> dict[int, float]:
    """For sentences right before one, by number, the logit that they say what its `it` or `them` is. Raises ModelMissing."""
    return _before(REFERENCES, ANSWER, scene, sentence)


def unsaid(scene: Scene, sentence: Sentence) -> dict[int, float]:
    """The same of what a task made from the sentence leaves unsaid (0: as likely as that it leaves nothing unsaid)."""
    return _before(STATING, ACTION, scene, sentence)


def _before(network: str, kind: int, scene: Scene, sentence: Sentence) -> dict[int, float]:
    stretch = led_up(scene, sentence)
    (logits,) = _read(network, [stretch])
    return {number: float(logits[first:last, kind].mean()) for number, first, last in stretch.sentences}


def led_up(scene: Scene, sentence: Sentence) -> Stretch:
    """The talk that led up to a sentence, with that sentence ahead of it as a question stands ahead of a stretch."""
    own = scene.index[sentence.turn, sentence.first]
    tokens: list[int] = []
    inside: list[tuple[int, int, int]] = []
    parts = pieces(scene, named=True)
    for index in range(bisect_left(parts, own, key=lambda part: part.sentences[0][0]) - 1, -1, -1):
        before = [each for each in parts[index].sentences if each[0] < own]
        said = parts[index].tokens[: before[-1][2]]
        if tokens and len(tokens) + len(said) > LED_UP:
            break
        inside = [*before, *((number, first + len(said), last + len(said)) for number, first, last in inside)]
        tokens = [*said, *tokens]
    head = (_special("[CLS]"), *question_tokens(sentence.text))
    moved = tuple((number, first + len(head), last + len(head)) for number, first, last in inside)
    return Stretch((*head, *tokens, _special("[SEP]")), moved)


def stating(scene: Scene, heart: Sentence, turns: range) -> dict[int, tuple[float, float]]:
    """For sentences in the turns around the heart of a decision, by number, the logit that they state it, and that they say
    what the words which state it leave unsaid (0: as likely as that nothing does). Raises ModelMissing."""
    stretch = around(scene, heart, turns)
    (logits,) = _read(STATING, [stretch])
    told = ((number, logits[first:last].mean(0)) for number, first, last in stretch.sentences)
    return {number: (float(each[DECISION]), float(each[ANSWER])) for number, each in told}


def around(scene: Scene, sentence: Sentence, turns: range) -> Stretch:
    """The talk around a sentence, as much of these turns as is read at once, with that sentence ahead of it as a question is."""
    parts = pieces(scene, named=True)
    own = scene.index[sentence.turn, sentence.first]
    first = last = bisect_right(parts, own, key=lambda part: part.sentences[0][0]) - 1
    length, grown = len(parts[first].tokens), True

    def fits(index: int) -> bool:
        inside = 0 <= index < len(parts) and scene.sentences[parts[index].sentences[0][0]].turn in turns
        return inside and length + len(parts[index].tokens) <= AROUND_HEART

    while grown:
        grown = False
        if fits(first - 1):
            first, grown = first - 1, True
            length += len(parts[first].tokens)
        if fits(last + 1):
            last, grown = last + 1, True
            length += len(parts[last].tokens)
    tokens = [_special("[CLS]"), *question_tokens(sentence.text)]
    inside = []
    for part in parts[first : last + 1]:
        inside += [(number, len(tokens) + a, len(tokens) + b) for number, a, b in part.sentences]
        tokens += part.tokens
    return Stretch((*tokens, _special("[SEP]")), tuple(inside))


def question_tokens(question: str) -> tuple[int, ...]:
    """What stands ahead of a stretch that a question is put to."""
    return (*_tokens(question, LONGEST_QUESTION), _special("[SEP]"))


@lru_cache(maxsize=4)
def pieces(scene: Scene, named: bool) -> tuple[Stretch, ...]:
    """The turns of a talk as tokens, each led by the letter of its voice or, with `named`, by a first name."""
    letters: dict[str, str] = {}
    made: list[Stretch] = []
    for turn, sentences in enumerate(scene.by_turn):
        speaker = scene.speaker(turn)
        letter = letters.setdefault(speaker, LETTERS[len(letters) % len(LETTERS)])
        head = _tokens(f"{(speaker.split() or [letter])[0] if named else letter}:", 6)
        tokens = list(head)
        inside: list[tuple[int, int, int]] = []
        for sentence in sentences:
            said = _tokens(sentence.text, LONGEST_SENTENCE) or (_special("[UNK]"),)
            if inside and len(tokens) + len(said) > LONGEST_TURN:
                made.append(Stretch(tuple(tokens), tuple(inside)))
                tokens, inside = list(head), []
            number = scene.index[sentence.turn, sentence.first]
            inside.append((number, len(tokens), len(tokens) + len(said)))
            tokens += said
        if inside:
            made.append(Stretch(tuple(tokens), tuple(inside)))
    return tuple(made)


def stretched(parts: Sequence[Stretch], asked: Sequence[int], sizes: tuple[int, int, int]) -> Iterator[Stretch]:
    """Stretches that together classifier every sentence once; `asked` are the tokens of a question ahead of each."""
    core, before, after = sizes
    first = 0
    while first < len(parts):
        last, length = first, 0
        while last < len(parts) and (last == first or length + len(parts[last].tokens) <= core):
            length += len(parts[last].tokens)
            last += 1
        tokens = [_special("[CLS]"), *asked, *_ahead(parts[max(0, first - before) : first], before)]
        inside = []
        for part in parts[first:last]:
            inside += [(number, len(tokens) + a, len(tokens) + b) for number, a, b in part.sentences]
            tokens += part.tokens
        behind = [token for part in parts[last : last + after] for token in part.tokens][:after]
        yield Stretch((*tokens, *behind, _special("[SEP]")), tuple(inside))
        first = last


def _ahead(parts: Sequence[Stretch], most: int) -> list[int]:
    """The last tokens of what was said before."""
    made: list[int] = []
    for part in reversed(parts):
        if len(made) + len(part.tokens) > most:
            return [*part.tokens[len(made) - most :], *made] if len(made) < most - LEAST_CUT else made
        made = [*part.tokens, *made]
    return made


def _read(name: str, stretches: Sequence[Stretch]) -> list[Logits]:
    """Logits of each token of each stretch."""
    return _kept[name]([stretch.tokens for stretch in stretches], lambda missing: _computed(name, missing))


def _computed(name: str, stretches: list[tuple[int, ...]]) -> list[Logits]:
    """One by one: among others they would be filled up, and rounded to eight bits as those others need it."""
    engine = _engine(name)
    return on_all_cores(lambda stretch: np.asarray(engine.run(None, {"input_ids": [stretch]})[0][0]), stretches)


@cache
def _engine(name: str) -> onnxruntime.InferenceSession:
    return shipped_network(Path(str(files("nuntius.core.minutes").joinpath(name))))


@cache
def _words() -> Tokenizer:
    words = Tokenizer.from_file(str(files("nuntius.core.language").joinpath("tokenizer.json")))
    words.no_truncation()
    words.no_padding()
    return words


def _tokens(text: str, most: int) -> tuple[int, ...]:
    return tuple(_words().encode(text, add_special_tokens=False).ids[:most])


@cache
def _special(token: str) -> int:
    return dict(_words().get_vocab())[token]
