"""Which format a transcript is in, and what is none."""

from contextlib import suppress

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.errors import TranscriptEmpty, TranscriptUnreadable
from nuntius.core.formats.reading import looks_like_text, read_transcript


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
