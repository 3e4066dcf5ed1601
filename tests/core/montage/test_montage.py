"""Passages played as one: where each stands, the files of it read back by another library, the listening digest."""

from itertools import pairwise
from pathlib import Path

import av
import numpy as np
import pytest
import webvtt
from hypothesis import given
from hypothesis import strategies as st

from nuntius.core.audio.decode import RATE, load
from nuntius.core.audio.pcm import to_bytes
from nuntius.core.formats.compiled import write_captions_vtt, write_compiled_text
from nuntius.core.minutes.line import LineKind, LineState
from nuntius.core.montage import spoken
from nuntius.core.montage.digest import LONGEST, Highlight, digest
from nuntius.core.montage.montage import Clip, Part, Said, captions, chapters, laid_out
from nuntius.core.montage.write import Montage


@pytest.fixture
def working(tmp_path: Path) -> Path:
    """Ten seconds of silence with a loud second from 3 to 4."""
    samples = np.zeros(10 * RATE, np.float32)
    samples[3 * RATE : 4 * RATE] = np.sin(np.arange(RATE) * 0.3).astype(np.float32) * 0.8
    (tmp_path / "working.pcm").write_bytes(to_bytes(samples))
    return tmp_path / "working.pcm"


def clip(path: Path, start: float, end: float, title: str = "A passage", *said: Said) -> Clip:
    return Clip(title, "Stand-up, 6 October 2026, 0:03", path, start, end, said)


@pytest.fixture
def montage(working: Path) -> Montage:
    one = clip(working, 2.5, 4.5, "The lifts", Said("Maren Tull", 0.5, 1.5, "Who pays <for> the lifts?"))
    two = clip(working, 3.0, 3.5, "The yard", Said("Tobias Pryce", 0.0, 0.5, "The yard does."))
    return Montage("What it costs", (Part("Lifts", (one,)), Part("Yard", (two,))), speak=False)


def test_sound_stands_within_20_ms_of_where_it_was_cut(montage: Montage, tmp_path: Path) -> None:
    montage.write(tmp_path / "out.ogg", "ogg")
    assert [(p.start, p.end) for p in montage.placed] == [(0.0, 2.0), (3.0, 3.5)]
    loud = np.flatnonzero(np.abs(load(tmp_path / "out.ogg")) > 0.2) / RATE
    assert (loud[0], loud[loud < 2][-1]) == (pytest.approx(0.5, abs=0.02), pytest.approx(1.5, abs=0.02))
    second = loud[loud > 2]
    assert (second[0], second[-1]) == (pytest.approx(3.0, abs=0.02), pytest.approx(3.5, abs=0.02))


@pytest.mark.parametrize(("form", "codec"), [("ogg", "opus"), ("m4a", "aac"), ("mp4", "aac")])
def test_files_have_chapters_a_title_and_the_right_length(
    montage: Montage, tmp_path: Path, form: str, codec: str
) -> None:
    montage.write(target := tmp_path / f"out.{form}", form)  # type: ignore[arg-type]
    with av.open(str(target)) as made:
        told = [(c["metadata"]["title"], float(c["start"] * (c["time_base"] or 0))) for c in made.chapters()]
        assert told == [("Lifts", 0.0), ("Yard", 3.0)]
        assert codec in made.streams.audio[0].codec_context.name
        assert (made.duration or 0) / av.time_base == pytest.approx(3.5, abs=0.1)
        tags = {k.lower(): v for k, v in {**made.metadata, **made.streams.audio[0].metadata}.items()}
        assert tags["title"] == "What it costs"


def test_an_mp4_shows_cards_and_captions_at_their_times(montage: Montage, tmp_path: Path) -> None:
    montage.write(tmp_path / "out.mp4", "mp4")
    with av.open(str(tmp_path / "out.mp4")) as made:
        frames = [(f.time, f.to_ndarray(format="gray")) for f in made.decode(video=0)]
    assert [round(t, 2) for t, _ in frames] == [0.0, 1.0, 3.0]
    assert all(picture.shape == (540, 960) and picture.min() < 80 < 200 < picture.max() for _, picture in frames)
    with av.open(str(tmp_path / "out.mp4")) as made:
        text = next(s for s in made.streams if s.type == "subtitle")
        cues = [(float((p.pts or 0) * p.time_base), bytes(p)[2:].decode()) for p in made.demux(text) if p.size > 2]
    assert cues == [(0.5, "Maren Tull: Who pays <for> the lifts?"), (3.0, "Tobias Pryce: The yard does.")]


def test_a_picture_is_cut_with_its_sound(working: Path, tmp_path: Path) -> None:
    with av.open(str(tmp_path / "film.mp4"), "w") as out:  # a film that grows lighter: 25 frames a second
        stream = out.add_stream("libx264", rate=25)
        stream.width, stream.height, stream.pix_fmt = 64, 48, "yuv420p"
        for n in range(250):
            frame = av.VideoFrame.from_ndarray(np.full((48, 64, 3), n, np.uint8), "rgb24")
            out.mux(stream.encode(frame))
        out.mux(stream.encode(None))
    part = Part("", (Clip("Film", "", working, 4.0, 6.0, picture=tmp_path / "film.mp4"),))
    Montage("Film", (part,), speak=False).write(tmp_path / "out.mp4", "mp4")
    with av.open(str(tmp_path / "out.mp4")) as made:
        frames = [(f.time, float(f.to_ndarray(format="gray").mean())) for f in made.decode(video=0)]
    assert frames[0][0] == 0.0 and frames[0][1] == pytest.approx(100, abs=8)  # the frame of second 4
    assert frames[-1][0] == pytest.approx(2.0, abs=0.15) and frames[-1][1] == pytest.approx(149, abs=8)


def test_captions_are_read_back_by_another_library(montage: Montage, tmp_path: Path) -> None:
    (tmp_path / "c.vtt").write_text("".join(write_captions_vtt(montage.captions)))
    found = list(webvtt.read(tmp_path / "c.vtt"))
    assert [(c.start, c.voice) for c in found] == [("00:00:00.500", "Maren Tull"), ("00:00:03.000", "Tobias Pryce")]


def test_the_text_says_what_is_said_and_where_it_is_from(montage: Montage) -> None:
    text = "".join(write_compiled_text(montage.title, montage.parts))
    assert "Lifts\n-----\n" in text
    assert "The yard (Stand-up, 6 October 2026, 0:03)\nTobias Pryce: The yard does.\n" in text


@pytest.mark.skipif(not spoken.can_speak(), reason="flite is not installed")
def test_headings_are_spoken_before_their_passages(working: Path, tmp_path: Path) -> None:
    made = Montage("T", (Part("The hired lifts", (clip(working, 3.0, 4.0),)),), speak=True)
    heading, passage = made.placed
    assert heading.clip is None and 0.5 < heading.end < 3 and passage.start == pytest.approx(heading.end + 0.6)
    made.write(tmp_path / "o.ogg", "ogg")
    sound = load(tmp_path / "o.ogg")
    assert np.abs(sound[: round(heading.end * RATE)]).max() > 0.1
    assert made.captions[0] == Said("", 0.0, heading.end, "The hired lifts")


def test_without_a_voice_headings_are_a_pause(working: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr("nuntius.core.montage.spoken.shutil.which", lambda name: None)
    parts = (Part("One", (clip(working, 0, 1),)), Part("Two", (clip(working, 1, 2),)))
    assert [(p.start, p.end) for p in Montage("T", parts, speak=True).placed] == [(0.0, 1.0), (2.0, 3.0)]


def test_a_title_is_never_an_option_of_the_program(tmp_path: Path) -> None:
    spoken.spoken(f"-o {tmp_path}/taken.wav")
    assert list(tmp_path.iterdir()) == []
    assert len(spoken.spoken("   ")) == 0


@given(st.lists(st.lists(st.floats(0.5, 30), min_size=1, max_size=4), min_size=1, max_size=5), st.booleans())
def test_places_follow_each_other_without_overlap(lengths: list[list[float]], titled: bool) -> None:
    parts = tuple(
        Part(f"Section {n}" if titled else "", tuple(clip(Path("x"), 0, length) for length in row))
        for n, row in enumerate(lengths)
    )
    placed = laid_out(parts, tuple(1.0 if titled else 0.0 for _ in parts))
    assert all(a.end <= b.start for a, b in pairwise(placed))
    told = chapters(parts, placed)
    assert len(told) == (len(parts) if titled else sum(map(len, lengths)))
    assert told[0][1] == 0 and told[-1][2] == placed[-1].end
    assert len(captions(parts, placed)) == (len(parts) if titled else 0)


class TestDigest:
    LINES = (
        Highlight(LineKind.DECISION, LineState.SETTLED, 0, "Rails in March", ((10, 20),)),
        Highlight(LineKind.KEY_POINT, LineState.OPEN, 0, "The lifts cost 750", ((30, 40),)),
        Highlight(LineKind.ACTION, LineState.OPEN, 1, "Ask the yard", ((100, 108), (109, 112))),
        Highlight(LineKind.QUESTION, LineState.OPEN, 2, "Who pays?", ((200, 204),)),
        Highlight(LineKind.DECISION, LineState.SUPERSEDED, 2, "Rails in May", ((210, 212),)),
        Highlight(LineKind.NOTE, LineState.OPEN, 2, "A remark", ((220, 222),)),
    )

    def test_every_chapter_is_heard_in_the_order_of_the_talk(self) -> None:
        made = digest(self.LINES, 180)
        assert [c.chapter for c in made] == [0, 0, 1, 2]
        assert [c.title for c in made] == ["Rails in March", "The lifts cost 750", "Ask the yard", "Who pays?"]
        assert made[2].start == pytest.approx(99.8) and made[2].end == pytest.approx(112.2)

    def test_what_is_worth_most_for_its_time_comes_first_when_time_is_short(self) -> None:
        assert [c.title for c in digest(self.LINES, 16)] == ["Rails in March", "Who pays?"]

    @given(
        st.lists(
            st.builds(
                lambda k, c, a, n: Highlight(k, LineState.OPEN, c, "x", ((a, a + n),)),
                st.sampled_from(["decision", "action", "key_point"]), st.integers(0, 4), st.floats(0, 4000), st.floats(0.5, 90),
            ),
            max_size=40,
        ),
        st.sampled_from([180, 300, 600]),
    )  # fmt: skip
    def test_it_is_never_too_long_and_says_nothing_twice(self, lines: list[Highlight], seconds: float) -> None:
        made = digest(lines, seconds)
        assert sum(c.end - c.start for c in made) <= seconds + 0.5 * len(made)
        assert all(a.end <= b.start + 1e-9 for a, b in pairwise(made))
        assert all(c.end - c.start <= LONGEST + 0.5 or len(lines) > 1 for c in made)
