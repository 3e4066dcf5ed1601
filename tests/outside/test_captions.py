"""Files that we write, read by other libraries; their samples, good and broken, read by us."""

import io
from pathlib import Path

import pytest
import srt
import webvtt
from pyannote.database.util import load_rttm

from nuntius.core.errors import TranscriptEmpty, TranscriptUnreadable
from nuntius.core.formats.reading import read_transcript
from nuntius.core.formats.rttm import write_rttm
from nuntius.core.formats.srt import write_srt
from nuntius.core.formats.webvtt import write_webvtt
from nuntius.core.speech.diarizer import Span
from nuntius.core.times import clock, read_clock
from tests.help import talk
from tests.outside.published import only, package

pytestmark = pytest.mark.outside

ROWS = (
    ("Maren Tull", "Good morning. Three things today: the timetable, the slipway & the school contract."),
    ("Tobias Pryce", "Is 6 < 7? Then we sail --> at seven."),
    ("Ines Carvell", "Schöne Grüße, and 40 % more on Fridays."),
)


def test_webvtt_is_read_back_by_webvtt_py() -> None:
    made = talk(*ROWS)
    captions = webvtt.from_buffer(io.StringIO("".join(write_webvtt(made))))
    assert [caption.voice for caption in captions] == [turn.speaker for turn in made.turns]
    for caption, turn in zip(captions, made.turns, strict=True):
        assert caption.start_in_seconds == int(turn.start)
        assert caption.start == clock(turn.start)
        assert caption.end == clock(turn.end)
    assert "6 &lt; 7" in captions[1].raw_text


def test_srt_is_read_back_by_srt() -> None:
    made = talk(*ROWS)
    cues = list(srt.parse("".join(write_srt(made))))
    assert [cue.index for cue in cues] == [1, 2, 3]
    assert [round(cue.start.total_seconds(), 3) for cue in cues] == [round(turn.start, 3) for turn in made.turns]
    assert cues[2].content == "Ines Carvell: Schöne Grüße, and 40 % more on Fridays."


def test_rttm_is_read_back_by_pyannote_database(tmp_path: Path) -> None:
    spans = [Span(0.5, 2.25, "Maren Tull"), Span(2.0, 3.5, "Voice B")]
    path = tmp_path / "meeting.rttm"
    path.write_text("".join(write_rttm(spans, "winter timetable")))
    (read,) = load_rttm(str(path)).values()
    found = [(round(s.start, 3), round(s.end, 3), label) for s, _, label in read.itertracks(yield_label=True)]
    assert found == [(0.5, 2.25, "Maren_Tull"), (2.0, 3.5, "Voice_B")]


def samples(name: str) -> Path:
    """A sample of webvtt-py's own tests, from its source package."""
    return next(path for path in only(package("webvtt-py"), name) if path.parent.name == "samples")


@pytest.mark.parametrize(
    "name",
    [
        "sample.vtt",
        "captions_with_bom.vtt",
        "comments.vtt",
        "cue_tags.vtt",
        "metadata_headers.vtt",
        "regions.vtt",
        "styles.vtt",
        "styles_with_comments.vtt",
        "using_identifiers.vtt",
        "sample.srt",
        "one_caption.srt",
    ],
)
def test_their_good_samples_have_as_many_words_for_us(name: str) -> None:
    path = samples(name)
    theirs = webvtt.read(path) if path.suffix == ".vtt" else webvtt.from_srt(path)
    ours = read_transcript(path.read_bytes())
    assert ours.word_count == sum(len(caption.text.split()) for caption in theirs)
    assert round(min(turn.start for turn in ours.turns), 3) == round(min(read_clock(c.start) for c in theirs), 3)


@pytest.mark.parametrize("name", ["empty.vtt", "no_captions.vtt", "invalid_format1.srt", "invalid_format2.srt"])
def test_their_broken_samples_are_refused_with_a_sentence(name: str) -> None:
    with pytest.raises((TranscriptUnreadable, TranscriptEmpty)) as refused:
        read_transcript(samples(name).read_bytes())
    assert refused.value.sentence.endswith(".")


@pytest.mark.parametrize(
    "name",
    [
        "invalid.vtt",
        "invalid_timeframe.vtt",
        "missing_timeframe.vtt",
        "missing_caption_text.vtt",
        "invalid_timeframe_in_cue_text.vtt",
        "missing_timeframe.srt",
        "invalid_timeframe.srt",
        "missing_caption_text.srt",
    ],
)
def test_their_damaged_samples_keep_the_cues_that_are_whole(name: str) -> None:
    assert read_transcript(samples(name).read_bytes()).word_count > 0


def test_srts_own_samples_in_other_encodings_are_read() -> None:
    """`ascii.srt` and `gb2312.srt` of srt's own tests, from its source package."""
    for name, encoding in (("ascii.srt", "ascii"), ("gb2312.srt", "gb2312")):
        path = only(package("srt"), name)[0]
        theirs = list(srt.parse(path.read_bytes().decode(encoding)))
        ours = read_transcript(path.read_bytes())
        assert round(ours.turns[0].start, 3) == round(theirs[0].start.total_seconds(), 3)


@pytest.mark.parametrize(
    ("stamp", "seconds"),
    # W3C, WebVTT: The Web Video Text Tracks Format, section 4.1 "WebVTT timestamp": hours may be left out or have two
    # or more digits, minutes and seconds have two, milliseconds three.
    [("00:00.000", 0.0), ("01:02.345", 62.345), ("01:02:03.004", 3723.004), ("123:00:00.000", 442800.0)],
)
def test_times_by_the_recommendation(stamp: str, seconds: float) -> None:
    read = read_transcript(f"WEBVTT\n\n{stamp} --> 124:00:00.000\n<v Maren>Good morning.\n".encode())
    assert read.turns[0].start == pytest.approx(seconds)


@pytest.mark.parametrize("stamp", ["0:1:02.000", "01:02", "01:62.000", "1:02.000", "00:00:01,000"])
def test_what_is_no_time_by_the_recommendation_loses_only_its_cue(stamp: str) -> None:
    text = f"WEBVTT\n\n{stamp} --> 02:00.000\nLost.\n\n00:03.000 --> 00:04.000\nKept.\n"
    assert read_transcript(text.encode()).word_count == 1
