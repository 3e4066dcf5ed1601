"""The second recogniser: a small streaming model, for live text and weak machines."""

import ctypes
from pathlib import Path

import numpy as np
from moonshine_voice import ModelArch
from moonshine_voice.errors import check_error
from moonshine_voice.moonshine_api import TranscriptC
from moonshine_voice.transcriber import Transcriber

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.speech.weights import streaming_directory
from nuntius.core.transcript.word import Word, spread

UNSURE = 0.8  # confidence given to each word: the engine names none


class StreamingRecogniser:
    """Lines of a small streaming model; words share the time of their line by length."""

    name = "streaming"

    def __init__(self, directory: Path | None = None) -> None:
        """Loads the model shipped in its package, or the one in `directory`. Raises ModelMissing."""
        self._engine = Transcriber(str(directory or streaming_directory()), ModelArch.TINY)

    def recognise(self, samples: Samples) -> tuple[Word, ...]:
        samples = np.ascontiguousarray(samples, np.float32)
        lines = ctypes.POINTER(TranscriptC)()
        pointer = samples.ctypes.data_as(ctypes.POINTER(ctypes.c_float))
        check_error(
            self._engine._lib.moonshine_transcribe_without_streaming(
                self._engine._handle, pointer, len(samples), RATE, 0, ctypes.byref(lines)
            )
        )
        if not lines:
            return ()
        found = [lines.contents.lines[i] for i in range(lines.contents.line_count)]
        return tuple(
            word
            for line in found
            if line.text
            for word in spread(
                ctypes.string_at(line.text).decode("utf-8", "ignore"),
                float(line.start_time),
                float(line.start_time + line.duration),
                UNSURE,
            )
        )
