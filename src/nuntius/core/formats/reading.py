"""Any transcript file: which format it is, in which encoding."""

import codecs
import re

from charset_normalizer import from_bytes

from nuntius.core.errors import TranscriptEmpty, TranscriptUnreadable
from nuntius.core.formats.docx import read_docx_text
from nuntius.core.formats.srt import read_srt
from nuntius.core.formats.text import has_times, read_text
from nuntius.core.formats.ttml import read_ttml
from nuntius.core.formats.webvtt import read_webvtt
from nuntius.core.transcript.transcript import Transcript

LARGEST = 64 * 1024 * 1024  # bytes; a six-hour transcript has about half a megabyte
_MARKS = (
    (codecs.BOM_UTF8, "utf-8-sig"),
    (codecs.BOM_UTF32_LE, "utf-32"),
    (codecs.BOM_UTF32_BE, "utf-32"),
    (codecs.BOM_UTF16_LE, "utf-16"),
    (codecs.BOM_UTF16_BE, "utf-16"),
)
ENDINGS = (".vtt", ".srt", ".txt", ".text", ".md", ".ttml", ".dfxp", ".docx")
PACKED = b"PK\x03\x04"  # how a ZIP, and with it a word-processor document, begins


def decode_text(data: bytes) -> str:
    """Text in UTF-8, by its byte order mark, or in the likeliest other encoding. Raises TranscriptUnreadable."""
    for mark, encoding in _MARKS:
        if data.startswith(mark):
            try:
                return data.decode(encoding)
            except UnicodeDecodeError as cause:
                raise TranscriptUnreadable(f"it calls itself {encoding} and is not") from cause
    try:
        text = data.decode("utf-8")
    except UnicodeDecodeError:
        best = from_bytes(data[:200_000]).best()
        if best is None:
            raise TranscriptUnreadable("it is not text") from None
        text = data.decode(best.encoding, "replace")
    if "\x00" in text:
        raise TranscriptUnreadable("it is not text")
    return text


def looks_like_text(head: bytes) -> bool:
    """Whether the first bytes of a file are those of a text rather than of sound or picture."""
    if any(head.startswith(mark) for mark, _ in _MARKS):
        return True
    if head.startswith(PACKED):  # a word-processor document; any other archive is refused by its reader
        return True
    control = sum(byte < 9 or 13 < byte < 32 for byte in head)
    return bool(head) and control == 0


def read_transcript(data: bytes) -> Transcript:
    """A transcript of the bytes of a VTT, SRT, TTML, DOCX or text file. Raises TranscriptUnreadable, TranscriptEmpty."""
    text = _text_of(data)
    if not text.strip():
        raise TranscriptEmpty()
    if text.startswith("WEBVTT"):
        transcript = read_webvtt(text)
    elif _is_ttml(text):
        transcript = read_ttml(text)
    elif "-->" in text:
        transcript = read_srt(text)
    else:
        transcript = read_text(text)
    if not transcript.word_count:
        raise TranscriptEmpty()
    return transcript


def tells_times(data: bytes) -> bool:
    """Whether a transcript file says when its words were said. Raises TranscriptUnreadable."""
    text = _text_of(data)
    return "-->" in text or _is_ttml(text) or has_times(text)


def _text_of(data: bytes) -> str:
    if len(data) > LARGEST:
        raise TranscriptUnreadable("it is larger than 64 MB")
    return read_docx_text(data) if data.startswith(PACKED) else decode_text(data)


def _is_ttml(text: str) -> bool:
    start = text.removeprefix("\ufeff").lstrip()[:2000]
    return start.startswith("<") and bool(re.search(r"<(?:\w+:)?tt[\s>]", start))
