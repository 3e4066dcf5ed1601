"""What every diarizer does, on the real one and on the stand-in; names of voices."""

import json
from functools import cache

import numpy as np
import pytest

from nuntius.core.audio.decode import RATE, Samples, load
from nuntius.core.speech.diarization.batch import WindowDiarizer
from nuntius.core.speech.diarization.networks import Networks
from nuntius.core.speech.diarizer import Diarizer, Span, voice_name
from tests.core.speech.samples import DEMO
from tests.engines import PlannedDiarizer

SECONDS = 46


def test_voices_have_letters() -> None:
    assert [voice_name(n) for n in (0, 25, 26, 51, 52, 701, 702)] == [
        "Voice A", "Voice Z", "Voice AA", "Voice AZ", "Voice BA", "Voice ZZ", "Voice AAA",
    ]  # fmt: skip


@pytest.fixture(scope="module")
def sound() -> Samples:
    """The beginning of a meeting of several people."""
    return load(DEMO / "winter-timetable.ogg")[: SECONDS * RATE]


class DiarizerContract:
    """Sound arrives in pieces; spans may be asked for at any time."""

    def diarizer(self) -> Diarizer:
        raise NotImplementedError

    def heard(self, *pieces: Samples) -> Diarizer:
        made = self.diarizer()
        for piece in pieces:
            made.push(piece)
        made.finish()
        return made

    @pytest.fixture(scope="class")
    def whole(self, sound: Samples) -> Diarizer:
        """All of the sound, heard at once."""
        return self.heard(sound)

    def test_spans_lie_inside_the_sound_in_order_of_their_beginning(self, whole: Diarizer) -> None:
        spans = whole.spans()
        assert len({span.voice for span in spans}) > 1
        assert all(0 <= span.start < span.end <= SECONDS + 0.1 for span in spans)
        assert [span.start for span in spans] == sorted(span.start for span in spans)

    def test_how_the_sound_is_cut_into_pieces_does_not_matter(self, whole: Diarizer, sound: Samples) -> None:
        pieces = np.split(sound, [3 * RATE, 3 * RATE + 7, 12 * RATE])
        assert self.heard(*pieces).spans() == whole.spans()

    def test_asking_twice_gives_the_same(self, whole: Diarizer) -> None:
        assert whole.spans() == whole.spans()

    def test_a_voice_keeps_its_name_when_more_is_heard(self, sound: Samples) -> None:
        made = self.diarizer()
        made.push(sound[: 40 * RATE])
        early = [span for span in made.spans() if span.end - span.start > 4 and span.end < 38]
        made.push(sound[40 * RATE :])
        made.finish()
        late = made.spans()
        assert early
        assert all(any(s.voice == o.voice and o.start < s.end - 1 and s.start + 1 < o.end for o in late) for s in early)

    @pytest.mark.parametrize("people", [1, 2])
    def test_the_number_of_people_is_kept_to(self, whole: Diarizer, people: int) -> None:
        assert len({span.voice for span in whole.spans(people)}) == people

    def test_no_sound_has_no_voices(self) -> None:
        assert self.heard().spans() == []
        assert self.heard(np.zeros(0, np.float32)).spans() == []


@cache
def networks() -> Networks:
    return Networks(2)


class TestWindows(DiarizerContract):
    def diarizer(self) -> Diarizer:
        return WindowDiarizer(networks())


class TestPlanned(DiarizerContract):
    def diarizer(self) -> Diarizer:
        turns = json.loads((DEMO / "winter-timetable.truth.json").read_text())["turns"]
        return PlannedDiarizer(*(Span(turn["start"], turn["end"], turn["speaker"]) for turn in turns))
