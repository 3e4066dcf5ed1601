"""Word-processor documents, read by another reader."""

import io

import mammoth
import pytest

from nuntius.core.errors import TranscriptUnreadable
from nuntius.core.formats.docx import write_minutes_docx, write_transcript_docx
from nuntius.core.formats.markdown import WrittenMinutes
from nuntius.core.formats.reading import read_transcript
from tests.core.formats.samples import MINUTES, TALK


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
