"""Readers take time in proportion to their input: ten times as much of what is worst for them takes ten times the steps.

Steps are calls and lines as the interpreter counts them where the work is Python's, and seconds of processor time where it
is a regular expression's; the limits are wide, since a square would be a hundred times.
"""

import time
from collections.abc import Callable
from contextlib import suppress

import pytest

from nuntius.core.errors import Fault
from nuntius.core.formats.chat import read_chat
from nuntius.core.formats.reading import read_transcript

HEAD = "WEBVTT\n\n00:00:01.000 --> 00:00:02.000\n"
SRT = "1\n00:00:01,000 --> 00:00:02,000\n"
TTML = '<tt xmlns="http://www.w3.org/ns/ttml"><body><div>{}</div></body></tt>'
WORST = {
    "unfinished voices": lambda n: HEAD + "<v " * n,
    "unfinished tags": lambda n: HEAD + "<" * n,
    "unfinished tags of SubRip": lambda n: SRT + "<" * n,
    "unfinished styles of SubRip": lambda n: SRT + "{\\" * n,
    "spaces before a name": lambda n: "Maren: Hello.\n" + " " * n + "x",
    "spaces after a name": lambda n: "Maren: Hello.\nMaren" + " " * n + "x",
    "brackets": lambda n: "Maren: Hello.\n" + "[" * n,
    "one long line": lambda n: "Maren: Hello.\n" + "x" * n,
    "many lines": lambda n: "Maren: Hello.\n" * n,
    "colons": lambda n: "Maren: Hello.\n" + ":" * n,
    "nested paragraphs": lambda n: TTML.format("<p begin='1s' end='2s'>a" * (n // 40) + "</p>" * (n // 40)),
    "many empty cues": lambda n: HEAD + "\n" * n + SRT * (n // 30),
}


def seconds(text: str) -> float:
    begun = time.process_time()
    with suppress(Fault):
        read_transcript(text.encode())
    return time.process_time() - begun


@pytest.mark.parametrize("worst", WORST)
def test_ten_times_the_input_takes_about_ten_times_as_long(worst: str) -> None:
    made: Callable[[int], str] = WORST[worst]
    seconds(made(2_000))  # what is loaded at the first use
    small = max(min(seconds(made(20_000)) for _ in range(3)), 0.002)
    assert seconds(made(200_000)) < 40 * small


def test_the_lines_of_a_chat_likewise() -> None:
    from datetime import time as clock

    def took(count: int) -> float:
        begun = time.process_time()
        read_chat("9:41 Maren: Hello.\n9:42 Ines" + " " * count + "x\n", clock(9, 40), 600.0)
        return time.process_time() - begun

    took(100)
    assert took(200_000) < 40 * max(took(20_000), 0.002)


@pytest.mark.parametrize("rate", ["0", "-25", "nan", "inf", "twenty", ""])
def test_a_rate_that_is_none_counts_as_the_default(rate: str) -> None:
    text = f'<tt xmlns="http://www.w3.org/ns/ttml" frameRate="{rate}" tickRate="{rate}"><p begin="30f" end="90f">Hello</p></tt>'
    (turn,) = read_transcript(text.encode()).turns
    assert (turn.start, turn.end) == (1.0, 3.0)
