"""Transcripts in and out: good files, broken ones, and round trips."""

from collections.abc import Callable, Iterator
from contextlib import suppress
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.errors import TranscriptEmpty, TranscriptUnreadable
from nuntius.core.formats.html import write_html
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes, write_markdown
from nuntius.core.formats.opml import write_opml
from nuntius.core.formats.reading import looks_like_text, read_transcript
from nuntius.core.formats.rttm import read_rttm, write_rttm
from nuntius.core.formats.srt import read_srt, write_srt
from nuntius.core.formats.text import read_text, write_minutes_text, write_text
from nuntius.core.formats.webvtt import read_webvtt, write_webvtt
from nuntius.core.speech.diarizer import Span
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


@given(st.lists(st.tuples(st.floats(0, 1e4), st.floats(0.01, 60), st.sampled_from("AB")), max_size=8))
def test_rttm_reads_back_what_was_written(rows: list[tuple[float, float, str]]) -> None:
    spans = sorted(Span(a, a + d, v) for a, d, v in rows)
    after = read_rttm("".join(write_rttm(spans, "a meeting")))
    assert sorted(s.voice for s in after) == sorted(s.voice for s in spans)
    assert [s.start for s in after] == pytest.approx([s.start for s in spans], abs=0.001)


def test_srt_reads_back_with_its_voices() -> None:
    before = talk(("Maren Tull", "Good morning."), ("Ines", "Morning: all of you."))
    after = read_srt("".join(write_srt(before)))
    assert [(t.speaker, t.text) for t in after.turns] == [(t.speaker, t.text) for t in before.turns]


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


def test_plain_text_with_and_without_times() -> None:
    bare = read_text("Maren: Good morning.\nand welcome\n\nInes: Hello: you")
    assert [(t.speaker, t.text) for t in bare.turns] == [("Maren", "Good morning. and welcome"), ("Ines", "Hello: you")]
    assert bare.turns[1].start >= bare.turns[0].end
    timed = read_text("[0:05] Maren: One.\nInes (1:02:03): Two.\n0:30\nTobias: Three.")
    assert [(t.speaker, round(t.start)) for t in timed.turns] == [("Maren", 5), ("Tobias", 30), ("Ines", 3723)]
    assert [t.speaker for t in read_text("".join(write_text(timed))).turns] == ["Maren", "Tobias", "Ines"]


@pytest.mark.parametrize("encoding", ["utf-8", "utf-8-sig", "utf-16", "cp1252"])
def test_other_encodings_are_recognised(encoding: str) -> None:
    text = "Zoë: Das Boot fährt um zehn nach München, für größere Gruppen früher.\nJürgen: Schöne Grüße, bis später."
    read = read_transcript(text.encode(encoding))
    assert read.speakers == ("Zoë", "Jürgen")


@pytest.mark.parametrize("data", [b"", b"   \n", b"WEBVTT\n\n", b"WEBVTT\n\n00:01.000 --> 00:02.000\n\n"])
def test_empty_transcripts_are_named_so(data: bytes) -> None:
    with pytest.raises(TranscriptEmpty):
        read_transcript(data)


@pytest.mark.parametrize(
    "data", [b"just some words\nwithout any name", b"\xff\xfe\x00", b"no --> times", b"Name: x" + b"\x00" * 9]
)
def test_what_is_no_transcript_is_refused_with_a_reason(data: bytes) -> None:
    with pytest.raises(TranscriptUnreadable) as caught:
        read_transcript(data)
    assert "Save it as VTT, SRT, DOCX or TXT" in caught.value.sentence


@given(st.binary(max_size=300))
def test_hostile_bytes_never_do_more_than_be_refused(data: bytes) -> None:
    looks_like_text(data)
    with suppress(TranscriptEmpty, TranscriptUnreadable):
        read_transcript(data)


def test_markdown_escapes_and_says_what_is_missing() -> None:
    lines = (
        WrittenLine("action", "Ask *two* yards", (), "", "", "open", "", False, ("24:41",), 1),
        WrittenLine("question", "Who may sign?", (), "", "", "open", "", False, ("33:08",), 2, 1, "Maren"),
        WrittenLine("decision", "January", (), "", "", "superseded", "", True, ("18:20", "22:07"), 0),
    )
    sections = (("Decisions", ""), ("Actions", ""), ("Asked", "chapter"))
    text = "".join(
        write_markdown(WrittenMinutes("A <b>title</b>", ("Tue 6 Oct",), 0.963, lines, sections, ("Hello", "Signing")))
    )
    assert "# A \\<b\\>title\\</b\\>" in text
    assert "- [ ] Ask \\*two\\* yards — nobody took this on; no date named [24:41]" in text
    assert "the record holds no answer [33:08]" in text
    assert "*(superseded)* [18:20, 22:07]" in text
    assert text.index("## Decisions (1)") < text.index("## Actions (1)") < text.index("### Signing")
    assert "96% of the talk" in text


WRITTEN = WrittenMinutes(
    "Boats & <b>slipways</b>",
    ("Tuesday 6 October",),
    0.969,
    (
        WrittenLine(
            "action", "Ask <two> yards", ("Ines",), "Fri 9 Oct 2026", "Friday", "open", "", False, ("24:41",), 0, 0
        ),
        WrittenLine("action", "Book the crane", (), "", "", "open", "", False, ("25:00",), 0, 1, topic="Signing"),
        WrittenLine("question", "Who may sign?", (), "", "", "open", "", False, ("33:08",), 1, 1, "Maren"),
        WrittenLine("decision", "January\x00", (), "", "", "superseded", "", False, ("18:20",), 1, 0, topic="Slipway"),
    ),
    (("Actions", ""), ("What was said", "chapter")),
    ("Slipway", "Signing"),
)


def test_a_page_to_print_is_whole_and_escapes_everything() -> None:
    text = "".join(write_html(WRITTEN))
    assert "<title>Boats &amp; &lt;b&gt;slipways&lt;/b&gt;</title>" in text
    assert "Ask &lt;two&gt; yards" in text and "nobody took this on" in text and "no date named" in text
    assert text.index("<h3>Slipway</h3>") < text.index("<h3>Signing</h3>")
    assert "The record holds no answer" in text and "96 % of the talk" in text
    assert "http" not in text and "<script" not in text


@pytest.mark.parametrize("write", [write_html, write_markdown, write_minutes_text])
def test_a_line_outside_of_its_chapter_says_what_it_is_about(write: Callable[[WrittenMinutes], Iterator[str]]) -> None:
    text = "".join(write(WRITTEN))
    assert text.count("· Signing") == 1
    assert "· Slipway" not in text  # which stands in the part of that name


def test_a_map_is_read_back_by_another_reader() -> None:
    body = ElementTree.fromstring("".join(write_opml(WRITTEN)).encode()).find("body")
    assert body is not None
    assert [(c.get("text"), [e.get("text") for e in c]) for c in body] == [
        ("Slipway", ["Ines: Ask <two> yards"]),
        ("Signing", ["nobody yet: Book the crane", "Who may sign?"]),
    ]
