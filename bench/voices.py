"""Whose words: how many of the demo's words are in the right voice, before and after phrases are diarized by their sound.

    python bench/voices.py [NAME ...]

The recordings and their true turns are in demo/. The error of who spoke is pyannote.metrics' diarization error rate,
with overlap, 0.25 s on each side of a boundary left out. About four minutes on two cores.
"""

import json
import sys
from collections.abc import Sequence
from pathlib import Path
from tempfile import TemporaryDirectory

sys.path[:0] = [str(Path(__file__).parent.parent)]

from pyannote.core import Segment, Timeline  # noqa: E402
from pyannote.metrics.diarization import DiarizationErrorRate  # noqa: E402
from tests.core.speech.diarization.test_phrases import share_right  # noqa: E402
from tests.outside.test_who_spoke import COLLAR, annotation  # noqa: E402

from nuntius.core.audio.pcm import WorkingCopy  # noqa: E402
from nuntius.core.audio.prepare import prepare  # noqa: E402
from nuntius.core.speech.diarization.phrases import diarize_phrases  # noqa: E402
from nuntius.core.speech.diarizer import Span  # noqa: E402
from nuntius.core.speech.joining import by_time  # noqa: E402
from nuntius.core.speech.transcribe import side_by_side, spans_of, words_of  # noqa: E402
from nuntius.jobs.engines import diarizer, recogniser, voice_prints  # noqa: E402
from nuntius.settings import Settings  # noqa: E402

DEMO = Path(__file__).parents[1] / "demo"


def measured(name: str) -> None:
    """Prints one recording's figures before and after."""
    source, settings = DEMO / f"{name}.ogg", Settings.from_environment({})
    turns = json.loads((DEMO / f"{name}.truth.json").read_text())["turns"]
    truth = [Span(turn["start"], turn["end"], turn["speaker"]) for turn in turns]
    with TemporaryDirectory() as folder:
        prepare(source, Path(folder) / "w.pcm", Path(folder) / "p.ogg")
        sound = WorkingCopy(Path(folder) / "w.pcm")
        engine = recogniser(settings, source)
        words, spans = side_by_side(lambda: words_of(sound, engine), lambda: spans_of(sound, diarizer(settings), None))
        words = tuple(sorted(words))
        diarized = diarize_phrases(words, spans, lambda phrases: voice_prints(settings).of(sound, phrases))
        whole = Timeline([Segment(0, sound.duration)])
    people = by_time(words, truth)

    def figures(voices: Sequence[str], found: Sequence[Span]) -> str:
        right = share_right(list(zip(voices, people, strict=True)))
        error = DiarizationErrorRate(collar=COLLAR)(annotation(truth), annotation(list(found)), uem=whole)
        return f"words {right:.3f}  error {error:.3f}  voices {len({span.voice for span in found})}"

    before, after = figures(by_time(words, spans), spans), figures(diarized.voices, diarized.spans)
    sys.stdout.write(f"{name:18} {before}  ->  {after}  (of {len(set(people))})\n")
    sys.stdout.flush()


if __name__ == "__main__":
    for each in sys.argv[1:] or sorted(path.stem for path in DEMO.glob("*.ogg")):
        measured(each)
