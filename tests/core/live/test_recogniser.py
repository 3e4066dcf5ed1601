"""What every live recogniser does, on the real one and on the stand-in."""

import json
from functools import cache
from itertools import pairwise

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, Samples, load
from nuntius.core.live.line import Heard, LiveLine
from nuntius.core.live.recogniser import LiveRecogniser
from nuntius.core.live.scripted import ScriptedLines
from nuntius.core.live.streamed import StreamedLines, StreamEngine
from tests.help import ROOT

DEMO, SECONDS = ROOT / "demo", 16
PART = RATE // 2  # samples of a part, as a page sends them


@pytest.fixture(scope="module")
def sound() -> Samples:
    return load(DEMO / "winter-timetable.ogg")[: SECONDS * RATE]


class LiveRecogniserContract:
    """Sound arrives part by part; lines settle as they become clear."""

    def recogniser(self, start: float = 0.0) -> LiveRecogniser:
        raise NotImplementedError

    def heard(self, sound: Samples, start: float = 0.0) -> list[Heard]:
        made = self.recogniser(start)
        return [*(made.hear(sound[at : at + PART]) for at in range(0, len(sound), PART)), made.finish()]

    @pytest.fixture(scope="class")
    def whole(self, sound: Samples) -> list[Heard]:
        """What is heard of all of it, part by part."""
        return self.heard(sound)

    def test_settled_lines_lie_in_order_inside_the_sound(self, whole: list[Heard]) -> None:
        lines = [line for each in whole for line in each.settled]
        assert len(lines) > 1 and all(line.text for line in lines)
        assert all(0 <= line.start <= line.end <= SECONDS for line in lines)
        assert all(a.start <= b.start for a, b in pairwise(lines))

    def test_nothing_is_heard_before_it_is_spoken(self, whole: list[Heard]) -> None:
        for number, each in enumerate(whole[:-1], 1):
            lines = [*each.settled, *([each.partial] if each.partial else [])]
            assert all(line.end <= number * PART / RATE + 1e-6 for line in lines)

    def test_what_was_partial_is_settled_at_the_end(self, whole: list[Heard]) -> None:
        *before, last = whole
        assert last.partial is None
        assert bool(before[-1].partial) <= bool(last.settled)

    def test_times_count_from_the_beginning_of_the_meeting(self, sound: Samples) -> None:
        """As after a restart, which goes on behind what was heard."""
        begun = 6 * RATE
        lines = [line for each in self.heard(sound[begun:], begun / RATE) for line in each.settled]
        assert lines and all(6 - 1e-6 <= line.start <= line.end <= SECONDS for line in lines)

    def test_silence_has_no_lines(self) -> None:
        made = self.recogniser(start=10_000.0)
        assert made.hear(np.zeros(2 * RATE, np.float32)) == Heard((), None)
        assert made.finish() == Heard((), None)


@cache
def engine() -> StreamEngine:
    return StreamEngine()


class TestStreamed(LiveRecogniserContract):
    def recogniser(self, start: float = 0.0) -> LiveRecogniser:
        return StreamedLines(engine(), start)


class TestScripted(LiveRecogniserContract):
    def recogniser(self, start: float = 0.0) -> LiveRecogniser:
        turns = json.loads((DEMO / "winter-timetable.truth.json").read_text())["turns"]
        return ScriptedLines([LiveLine(turn["start"], turn["end"], turn["text"]) for turn in turns], start)
