"""WebVTT: written, read back, and lived with where it is broken."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.formats.webvtt import read_webvtt, write_webvtt
from nuntius.core.transcript.transcript import in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread
from tests.help import talk

WORDS = st.lists(st.text("abc<>&äß' -.?", min_size=1, max_size=6).filter(str.strip), min_size=1, max_size=12).map(
    " ".join
)


TALKS = st.lists(st.tuples(st.sampled_from(["Maren Tull", "Ines", "Voice B"]), WORDS), min_size=1, max_size=6)


def said(text: str) -> str:
    return " ".join(text.split())


@given(TALKS)
def test_webvtt_reads_back_what_was_written(rows: list[tuple[str, str]]) -> None:
    before = talk(*rows)
    after = read_webvtt("".join(write_webvtt(before)))
    assert said(" ".join(t.text for t in after.turns)) == said(" ".join(t.text for t in before.turns))
    assert list(after.speakers) == list(before.speakers)
    assert after.turns[0].start == pytest.approx(before.turns[0].start, abs=0.001)


def test_long_turns_become_cues_that_can_be_read() -> None:
    turn = Turn("Ines", spread("word " * 99 + "end.", 0, 60))
    cues = "".join(write_webvtt(in_order([turn]))).count("-->")
    assert 4 <= cues <= 8


def test_broken_and_unordered_cues_are_lived_with() -> None:
    text = (
        "WEBVTT - a title\n\nNOTE nothing\n\nSTYLE\n::cue{}\n\n7\n00:09.000 --> 00:11.000 align:start\n<v Ines>Second\n\n"
        "00:00:01.000 --> 00:00:10.000\n<v.loud Maren Tull>First &amp; <i>overlapping</i></v>\n\n"
        "broken\n00:00:99.000 --> 00:01:00.000\nnever\n\n00:05.000 --> 00:04.000\nbackwards\n\n00:00:20.000 --> 00:00:21.000\nno voice"
    )
    read = read_webvtt(text)
    assert [(t.speaker, t.text, t.cue) for t in read.turns] == [
        ("Maren Tull", "First & overlapping", "1"),
        ("Ines", "Second", "7"),
        ("Maren Tull", "no voice", "3"),
    ]


def test_two_voices_in_one_cue_are_two_turns() -> None:
    read = read_webvtt("WEBVTT\n\n00:01.000 --> 00:03.000\n<v Ines>Shall we?\n<v Tobias>Yes.")
    assert [t.speaker for t in read.turns] == ["Ines", "Tobias"]
