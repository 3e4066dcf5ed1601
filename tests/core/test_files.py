"""Files to take away: written by one library, read back by another."""

import csv
import io
import json
from datetime import UTC, date, datetime
from typing import Any

import mammoth
import pytest
import vobject
import webvtt
from hypothesis import given
from hypothesis import strategies as st
from pycaption import DFXPReader
from pypdf import PdfReader

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.calendar import write_actions_ics
from nuntius.core.formats.chapters import Stretch, write_chapters_json, write_chapters_vtt
from nuntius.core.formats.csv_ import table, write_actions_csv, write_transcript_csv
from nuntius.core.formats.docx import write_minutes_docx, write_transcript_docx
from nuntius.core.formats.html import write_html, write_transcript_html
from nuntius.core.formats.markdown import WrittenLine, WrittenMinutes
from nuntius.core.formats.pdf import write_pdf
from nuntius.core.formats.reading import read_transcript
from nuntius.core.formats.text import write_minutes_text
from nuntius.core.formats.ttml import read_ttml, seconds, write_ttml
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread

TALK = in_order(
    [
        Turn("Ines Achterberg", spread("The lower rail has moved <14> millimetres & more.", 1.0, 4.5)),
        Turn("Douglas", spread("I'll have it measured by Friday.", 5.0, 7.25)),
    ]
)
MINUTES = WrittenMinutes(
    "Winter timetable",
    ("Tuesday 3 November 2026", "There: Ines Achterberg, Douglas"),
    0.96,
    (
        WrittenLine(
            "action", "Have the rail measured", ("Douglas",), "Fri 6 Nov 2026", "by Friday", "open", "", True, ("0:05",),
            0, 0, "Douglas", "2026-11-06", (5.0,),
        ),
        WrittenLine("action", "Ask the bakery", (), "", "", "open", "", False, ("0:01",), 0, 0, "", "", (1.0,)),
        WrittenLine("question", "Who pays?", (), "", "", "open", "", False, ("0:01",), 1, 0, "", "", (1.0,)),
        WrittenLine("decision", "Close the slipway", (), "", "", "superseded", "Keep it open", False, ("0:05",), 1),
    ),
    (("Actions", ""), ("The rest", "")),
    ("Slipway",),
    "http://nuntius.example/meetings/abc",
)  # fmt: skip


class TestWordProcessor:
    def test_minutes_have_headings_lists_and_a_table(self) -> None:
        page = mammoth.convert_to_html(io.BytesIO(write_minutes_docx(MINUTES))).value
        assert "<h1>Actions</h1>" in page and "<h1>The rest</h1>" in page
        assert "<table>" in page and "Have the rail measured" in page and "nobody took this on" in page
        assert "<s>Close the slipway</s>" in page and "superseded: Keep it open" in page
        assert "the record holds no answer" in page

    def test_a_transcript_is_read_back_with_its_voices_and_words(self) -> None:
        again = read_transcript(write_transcript_docx("Slipway", (), TALK))
        assert [(t.speaker, t.text) for t in again.turns] == [(t.speaker, t.text) for t in TALK.turns]
        assert [int(t.start) for t in again.turns] == [1, 5]

    def test_an_archive_that_is_no_document_is_reported_so(self) -> None:
        with pytest.raises(TranscriptUnreadable, match="no word-processor document"):
            read_transcript(b"PK\x03\x04 and nothing behind it")

    def test_what_markup_cannot_hold_is_left_out(self) -> None:
        odd = WrittenMinutes("A\x00B", (), 1.0, MINUTES.lines[:1], MINUTES.sections)
        assert "AB" in mammoth.extract_raw_text(io.BytesIO(write_minutes_docx(odd))).value


class TestPdf:
    @pytest.fixture(scope="class")
    def read(self) -> PdfReader:
        return PdfReader(io.BytesIO(write_pdf("".join(write_html(MINUTES)))))

    def test_its_text_is_real(self, read: PdfReader) -> None:
        text = read.pages[0].extract_text()
        assert "Have the rail measured" in text and "1 / 1" in text

    def test_it_is_tagged_and_names_its_language_and_title(self, read: PdfReader) -> None:
        root: Any = read.trailer["/Root"]
        assert root["/MarkInfo"]["/Marked"] and root["/StructTreeRoot"] is not None
        assert root["/Lang"] == "en" and read.metadata is not None and read.metadata.title == "Winter timetable"

    def test_times_lead_to_the_moment_in_the_record(self, read: PdfReader) -> None:
        annotations: Any = read.pages[0]["/Annots"]
        notes = [note.get_object() for note in annotations]
        targets = {str(note["/A"]["/URI"]) for note in notes if "/A" in note}
        assert targets == {"http://nuntius.example/meetings/abc#t=1.0", "http://nuntius.example/meetings/abc#t=5.0"}

    def test_a_transcript_is_escaped(self) -> None:
        text = PdfReader(io.BytesIO(write_pdf(write_transcript_html(MINUTES, TALK)))).pages[0].extract_text()
        assert "<14> millimetres & more" in text

    def test_nothing_is_fetched(self) -> None:
        page = (
            '<html lang="en"><title>x</title><body><img alt="x" src="http://127.0.0.1:9/x.png">still here</body></html>'
        )
        assert "still here" in PdfReader(io.BytesIO(write_pdf(page))).pages[0].extract_text()


class TestTimedText:
    @pytest.mark.filterwarnings("ignore")  # of that reader's own making
    def test_another_reader_finds_the_same_cues(self) -> None:
        found = DFXPReader().read("".join(write_ttml(TALK)))
        captions = found.get_captions("en")
        assert [c.get_text() for c in captions] == [turn.text for turn in TALK.turns]
        assert [(c.start, c.end) for c in captions] == [(1_000_000, 4_500_000), (5_000_000, 7_250_000)]

    def test_it_comes_back_whole(self) -> None:
        again = read_transcript("".join(write_ttml(TALK)).encode())
        assert [(t.speaker, t.text, t.start, t.end) for t in again.turns] == [
            (t.speaker, t.text, t.start, t.end) for t in TALK.turns
        ]

    @pytest.mark.parametrize(
        ("text", "expected"),
        [("00:00:01.5", 1.5), ("01:00:00", 3600.0), ("00:00:01:15", 1.5), ("2.5s", 2.5), ("90f", 3.0), ("250ms", 0.25), ("1h", 3600.0), ("x", None), ("", None)],
    )  # fmt: skip
    def test_time_expressions(self, text: str, expected: float | None) -> None:
        """W3C TTML2, 12.3.1: clock time with fraction or frames (30 a second where none is named), offset time."""
        assert seconds(text) == expected

    def test_durations_breaks_and_missing_agents(self) -> None:
        text = (
            '<tt xmlns="http://www.w3.org/ns/ttml" xmlns:ttm="http://www.w3.org/ns/ttml#metadata"><body><div>'
            '<p begin="1s" dur="2s" ttm:agent="ines">One<br/>two</p><p begin="4s" end="5s">three</p><p begin="6s">lost</p>'
            "</div></body></tt>"
        )
        again = read_ttml(text)
        assert [(t.speaker, t.text, t.start, t.end) for t in again.turns] == [
            ("ines", "One two", 1.0, 3.0),
            ("ines", "three", 4.0, 5.0),
        ]

    @pytest.mark.parametrize("text", ["<tt", "<html></html>", '<!DOCTYPE a [<!ENTITY b "c">]><tt>&b;</tt>'])
    def test_broken_or_hostile_markup_is_refused(self, text: str) -> None:
        with pytest.raises(TranscriptUnreadable):
            read_ttml(text)


class TestTables:
    def test_a_transcript_a_row_a_turn(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_transcript_csv(TALK)))))
        assert [row["text"] for row in rows] == [turn.text for turn in TALK.turns]
        assert rows[1]["start"] == "5.000"

    def test_actions(self) -> None:
        rows = list(csv.DictReader(io.StringIO("".join(write_actions_csv(MINUTES)))))
        assert [(row["owner"], row["due"], row["checked"]) for row in rows] == [
            ("Douglas", "2026-11-06", "yes"),
            ("", "", "no"),
        ]

    @given(st.text(st.characters(codec="utf-8", exclude_characters="\x00"), max_size=30))
    def test_nothing_is_computed_by_a_spreadsheet(self, text: str) -> None:
        (_, row) = csv.reader(io.StringIO("".join(table(("a",), [(text,)])), newline=""))
        shown = row[0] if row else ""
        assert shown.removeprefix("'") == text.removeprefix("'") and not shown.startswith(("=", "+", "-", "@"))


def test_actions_as_to_dos_of_a_calendar() -> None:
    written = datetime(2026, 11, 3, 12, tzinfo=UTC)
    calendar = vobject.readOne(write_actions_ics(MINUTES, "abc", written).decode())
    first, second = calendar.vtodo_list
    assert (first.summary.value, first.due.value) == ("Have the rail measured", date(2026, 11, 6))
    assert "Nobody took this on." in second.description.value and not hasattr(second, "due")
    assert first.uid.value != second.uid.value


class TestChapters:
    CHAPTERS = (Stretch("Opening & <hello>", 0.5, 60.0), Stretch("Slipway", 62.0, 130.0))

    def test_cues_meet(self) -> None:
        cues = webvtt.from_string("".join(write_chapters_vtt(self.CHAPTERS)))
        assert [(c.start, c.end) for c in cues] == [("00:00:00.500", "00:01:02.000"), ("00:01:02.000", "00:02:10.000")]

    def test_for_podcasts(self) -> None:
        made = json.loads(write_chapters_json("Winter", self.CHAPTERS))
        assert made["version"] == "1.2.0" and [c["startTime"] for c in made["chapters"]] == [0.5, 62.0]

    def test_none(self) -> None:
        assert "".join(write_chapters_vtt(())) == "WEBVTT\n"


def test_minutes_as_plain_text() -> None:
    text = "".join(write_minutes_text(MINUTES))
    assert "* Have the rail measured -- Douglas, by Fri 6 Nov 2026 [0:05]" in text
    assert "* Ask the bakery -- nobody took this on, no date named" in text
    assert "\nActions\n-------\n" in text


def test_an_empty_transcript_is_still_a_file() -> None:
    empty = Transcript((), 0.0)
    assert "".join(write_ttml(empty)).startswith("<?xml")
    assert write_transcript_docx("Empty", (), empty).startswith(b"PK")
