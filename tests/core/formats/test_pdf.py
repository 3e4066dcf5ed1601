"""Printed minutes and transcripts as PDF."""

import io
from typing import Any

import pytest
from pypdf import PdfReader

from nuntius.core.formats.html import write_html, write_transcript_html
from nuntius.core.formats.pdf import write_pdf
from tests.core.formats.samples import MINUTES, TALK


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
