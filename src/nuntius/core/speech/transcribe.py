"""A recording from sound to turns, without a database: what the command line does."""

from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import TypeVar

from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.prepare import prepare
from nuntius.core.audio.probe import probe
from nuntius.core.speech.diarization.phrases import diarize_phrases
from nuntius.core.speech.diarization.voiceprints import VoicePrints
from nuntius.core.speech.diarizer import Diarizer, Span
from nuntius.core.speech.joining import join
from nuntius.core.speech.recogniser import Recogniser, recognise_stretch, stretches
from nuntius.core.transcript.transcript import Transcript
from nuntius.core.transcript.word import Word

A = TypeVar("A")
B = TypeVar("B")

BLOCK = 30.0  # seconds given to the diarizer at a time


def spans_of(
    sound: WorkingCopy, diarizer: Diarizer, people: int | None, progress: Callable[[float], None] = lambda _: None
) -> list[Span]:
    """Who spoke when in a working copy; `progress` hears the seconds done."""
    done = 0.0
    while done < sound.duration:
        diarizer.push(sound.read(done, done + BLOCK))
        done += BLOCK
        progress(min(done, sound.duration))
    diarizer.finish()
    return diarizer.spans(people)


def side_by_side(first: Callable[[], A], second: Callable[[], B]) -> tuple[A, B]:
    """Both results. Recognition leaves parts of the processors idle, so that telling voices apart beside it costs
    a sixth less time than behind it (measured, 2 cores). Raises what either raises, when both have ended.
    """
    with ThreadPoolExecutor(2) as pool:
        one, other = pool.submit(first), pool.submit(second)
    return one.result(), other.result()


def words_of(sound: WorkingCopy, recogniser: Recogniser) -> tuple[Word, ...]:
    """All words of a working copy, stretch by stretch."""
    return tuple(word for part in stretches(sound) for word in recognise_stretch(recogniser, sound, part))


def transcribe(
    source: Path, recogniser: Recogniser, diarizer: Diarizer, prints: VoicePrints, people: int | None = None
) -> tuple[Transcript, tuple[Span, ...]]:
    """Transcript and spans of a sound file. Raises NotMedia, SoundTrackMissing, SoundEmpty, SoundSilent."""
    probe(source)
    with TemporaryDirectory() as folder:
        working = Path(folder) / "working.pcm"
        prepare(source, working, Path(folder) / "playback.ogg")
        sound = WorkingCopy(working)
        words, spans = side_by_side(lambda: words_of(sound, recogniser), lambda: spans_of(sound, diarizer, people))
        diarized = diarize_phrases(words, spans, lambda phrases: prints.of(sound, phrases), people)
        return join(words, diarized.voices, sound.duration), diarized.spans
