"""Pages to print."""

from nuntius.core.formats.docx import write_transcript_docx
from nuntius.core.formats.html import write_html
from nuntius.core.formats.ttml import write_ttml
from nuntius.core.transcript.transcript import Transcript
from tests.core.formats.samples import WRITTEN


def test_an_empty_transcript_is_still_a_file() -> None:
    empty = Transcript((), 0.0)
    assert "".join(write_ttml(empty)).startswith("<?xml")
    assert write_transcript_docx("Empty", (), empty).startswith(b"PK")


def test_a_page_to_print_is_whole_and_escapes_everything() -> None:
    text = "".join(write_html(WRITTEN))
    assert "<title>Boats &amp; &lt;b&gt;slipways&lt;/b&gt;</title>" in text
    assert "Ask &lt;two&gt; yards" in text and "nobody took this on" in text and "no date named" in text
    assert text.index("<h3>Slipway</h3>") < text.index("<h3>Signing</h3>")
    assert "The record holds no answer" in text and "96 % of the talk" in text
    assert "http" not in text and "<script" not in text
