"""Teaches the network that says how a decision is best lesson_of and what a task leaves unsaid.

    make stating

It learns from the annotated talk of this folder, begins from what the network that finds answers knows, and reads the heart
of a decision ahead of the talk around it. Of each sentence that may state the decision it learns how near that comes to what
is written down by hand (cosine of their vectors), and of each one before the nearest what it adds where it stands beside
that: a distribution over the sentences, the sharper the further one is ahead ("listwise" ranking, Cao et al. 2007; from
memory). Of each task it learns what each sentence before it adds to the words cut out for it, by a logit of its own: read by
that of the decisions, these fell (measured). Hearts and tasks are those that the classifiers find, so it is made after
`make classifiers`. Fifteen minutes on two cores.
"""

import random
import re
import sys
from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import torch

import context as taught
import train
from annotated import meetings
from nuntius.core.language.sentence import Sentence
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes import classifiers, wording
from nuntius.core.minutes.actions import told_tasks
from nuntius.core.minutes.context import ACTION, ANSWER, DECISION, STATING, Stretch, around, led_up
from nuntius.core.minutes.coreference import beside, telling
from nuntius.core.minutes.findings import Finding
from nuntius.core.minutes.quoting import attributed
from nuntius.core.minutes.scene import Scene
from nuntius.core.minutes.stating import may_state, turns_around

ROUNDS = 3
OTHERS = 2  # sentences beside the heart that a decision is also read from
LIKELY = 0.15  # likelihood from which one of these may be taken for the heart
EXPLAINED = re.compile(r" \[[^\]]* [^\]]*\](?=\.$)")  # what already stands behind a task
SHARP = 0.08  # cosine by which a sentence is e times as much to be chosen as another


@dataclass(frozen=True)
class Lesson:
    """The talk around a sentence; by number how near those come that state what is decided, and what others add to it, or
    to a task (`kind`: which logit is to tell)."""

    stretch: Stretch
    near: dict[int, float]
    adds: dict[int, float]
    kind: int = ANSWER


def lessons() -> Iterator[Lesson]:
    """Each decision of each talk, lesson_of from its heart and from the next best sentences."""
    shipped = classifiers.classifiers()
    for meeting in meetings():
        example = train.of_meeting(meeting)
        talk, likely = example.talk, classifiers.weighed(example.talk, shipped)
        for ruling, turns, text, right in train.rightly_settled(example, likely):
            near = may_state(talk, ruling.sentence, turns)
            others = [s for s in near if likely["decision"][talk.index[s.turn, s.first]] > LIKELY]
            others = [s for s in others if s is not ruling.sentence]
            others = [s for s in others if int(talk.transcript.turns[s.turn].cue or 0) in right][:OTHERS]
            for heart in (ruling.sentence, *others):
                yield lesson_of(talk, heart, turns, text)
        yield from task_lessons(example, told_tasks(talk, likely["action"]))


def lesson_of(talk: Scene, heart: Sentence, turns: set[int], text: str) -> Lesson:
    """What is to be learnt of one heart."""
    near = may_state(talk, heart, turns)
    stretch = around(talk, heart, turns_around(talk, heart, turns))
    inside = {number for number, _, _ in stretch.sentences}
    words = [wording.resolution(s.text) or s.text for s in near]
    wanted, *alike = vectors([text, *words])
    cosines = [float(wanted @ each) for each in alike]
    best = max(range(len(near)), key=lambda i: cosines[i])
    stated = attributed(words[best], near[best].speaker)
    adds = added(talk, near[best], stated, text, stretch)
    numbers = [talk.index[s.turn, s.first] for s in near]
    return Lesson(stretch, {n: cosine for n, cosine in zip(numbers, cosines, strict=True) if n in inside}, adds)


def task_lessons(example: train.Examples, found: Sequence[Finding]) -> Iterator[Lesson]:
    """Each task that is a right one, in the words cut out for it: what others add to them."""
    talk = example.talk
    for finding in found:
        cues = {int(talk.transcript.turns[turn].cue or 0) for turn in {each.turn for each in finding.evidence}}
        text, right = max(example.tasks, key=lambda pair: len(cues & pair[1]), default=("", frozenset()))
        if cues & right:
            stretch = led_up(talk, finding.sentence)
            said = EXPLAINED.sub("", finding.text)
            yield Lesson(stretch, {}, added(talk, finding.sentence, said, text, stretch), ACTION)


def added(talk: Scene, sentence: Sentence, said: str, text: str, stretch: Stretch) -> dict[int, float]:
    """By number how much nearer words made from a sentence come to a text where one before it stands beside them."""
    inside = {number for number, _, _ in stretch.sentences}
    before = [s for s in telling(talk, sentence) if talk.index[s.turn, s.first] in inside]
    wanted, alone, *both = vectors([text, said, *(beside(said, s) for s in before)])
    return {talk.index[s.turn, s.first]: float(wanted @ (each - alone)) for s, each in zip(before, both, strict=True)}


def loss(network: taught.Network, batch: Sequence[Lesson]) -> torch.Tensor:
    """How far what the network would choose lies from what is to be chosen (Kullback-Leibler), mean over the batch."""
    logits = network(*taught.padded([each.stretch for each in batch]))
    total = torch.zeros(())
    for row, each in enumerate(batch):
        of = {number: logits[row, first:last].mean(0) for number, first, last in each.stretch.sentences}
        if len(each.near) > 1:
            total = total + _apart([of[number][DECISION] for number in each.near], list(each.near.values()))
        if each.adds:
            nothing = torch.zeros(())
            total = total + _apart(
                [*(of[number][each.kind] for number in each.adds), nothing], [*each.adds.values(), 0.0]
            )
    return total / len(batch)


def _apart(logits: list[torch.Tensor], wanted: list[float]) -> torch.Tensor:
    right = torch.softmax(torch.tensor(wanted) / SHARP, 0)
    apart: torch.Tensor = (right * (right.log() - torch.log_softmax(torch.stack(logits), 0))).sum()
    return apart


def main() -> None:
    torch.manual_seed(0)
    network = taught.Network()
    network.load_state_dict(torch.load(taught.KNOWS_ANSWERS))
    torch.nn.init.zeros_(network.head.weight)
    torch.nn.init.zeros_(network.head.bias)
    torch.manual_seed(0)
    random.seed(0)
    rates = (taught.RATE, taught.HEAD_RATE)
    network = taught.learnt(network, ROUNDS, rates, list(lessons()), [], loss)
    target = taught.FOLDER / STATING
    taught.write(network, "logits", target)
    sys.stdout.write(f"{target}: {target.stat().st_size / 1e6:.0f} MB\n")


if __name__ == "__main__":
    main()
