"""The live recogniser: the small streaming model, fed as the sound arrives."""

import ctypes
import logging
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from moonshine_voice import ModelArch
from moonshine_voice.errors import MoonshineError, check_error
from moonshine_voice.moonshine_api import TranscriptC
from moonshine_voice.transcriber import Transcriber

from nuntius.core.audio.decode import RATE, Samples
from nuntius.core.live.line import Heard, LiveLine
from nuntius.core.speech.weights import streaming_directory

log = logging.getLogger(__name__)

OPTIONS = {"return_audio_data": "false", "identify_speakers": "false"}
# Each look costs in proportion to the length of the line being spoken (measured: 0.15 s of work for a line of
# 2 s, 0.5 s for one of 8 s), so a long line is looked at less often.
QUICK, SLOW = 0.75, 1.25  # seconds between two looks at a short and at a long line
LONG_LINE = 4.0  # seconds
FRESH_AFTER = 40  # settled lines after which the engine's stream is begun again, so that memory does not grow


class StreamEngine:
    """The loaded model; many streams may run on it, one call at a time each."""

    def __init__(self) -> None:
        """Loads the model shipped in its package. Raises ModelMissing."""
        self.engine = Transcriber(str(streaming_directory()), ModelArch.TINY, options=OPTIONS)


@dataclass(slots=True)
class _Stream:
    """One stream of the engine: where it began, how far it was fed, which of its lines are settled."""

    handle: int
    begun: float
    reported: set[int] = field(default_factory=set)


class StreamedLines:
    """Lines of one meeting's sound, from `start` seconds on."""

    def __init__(self, engine: StreamEngine, start: float = 0.0) -> None:
        self._lib, self._model = engine.engine._lib, engine.engine._handle
        self._keep = engine  # the handle dies with it
        self._now = self._looked = start
        self._stream = self._open(start)
        self._partial: LiveLine | None = None

    def hear(self, samples: Samples) -> Heard:
        self._feed(samples)
        self._now += len(samples) / RATE
        length = self._partial.end - self._partial.start if self._partial else 0.0
        if self._now - self._looked < (SLOW if length > LONG_LINE else QUICK):
            return Heard((), self._partial)
        settled = self._look()
        if len(self._stream.reported) >= FRESH_AFTER and self._partial is None:
            self._close()
            self._stream = self._open(self._now)
        return Heard(settled, self._partial)

    def finish(self) -> Heard:
        check_error(self._lib.moonshine_stop_stream(self._model, self._stream.handle))
        settled = self._look()
        if self._partial:
            settled, self._partial = (*settled, self._partial), None
        self._close()
        return Heard(settled, None)

    def _open(self, begun: float) -> _Stream:
        handle = self._lib.moonshine_create_stream(self._model, 0)
        check_error(handle)
        check_error(self._lib.moonshine_start_stream(self._model, handle))
        return _Stream(handle, begun)

    def _close(self) -> None:
        self._lib.moonshine_free_stream(self._model, self._stream.handle)

    def _feed(self, samples: Samples) -> None:
        samples = np.ascontiguousarray(samples, np.float32)
        pointer = samples.ctypes.data_as(ctypes.POINTER(ctypes.c_float))
        check_error(
            self._lib.moonshine_transcribe_add_audio_to_stream(
                self._model, self._stream.handle, pointer, len(samples), RATE, 0
            )
        )

    def _look(self) -> tuple[LiveLine, ...]:
        """Lines settled since the last look; the one still being spoken becomes the partial one."""
        out = ctypes.POINTER(TranscriptC)()
        try:
            check_error(self._lib.moonshine_transcribe_stream(self._model, self._stream.handle, 0, ctypes.byref(out)))
        except MoonshineError:
            return self._begin_again()
        self._looked, self._partial = self._now, None
        settled = []
        for i in range(out.contents.line_count if out else 0):
            raw = out.contents.lines[i]
            if raw.id in self._stream.reported:
                continue
            line = self._line(raw.text, raw.start_time, raw.duration)
            if raw.is_complete:
                self._stream.reported.add(raw.id)
                if line:
                    settled.append(line)
            else:
                self._partial = line
        return tuple(settled)

    def _begin_again(self) -> tuple[LiveLine, ...]:
        """A new stream in place of one that failed, as the engine's does now and then where a line has no sound yet.

        What was partial is settled as it stands; what was said since the last look is missing from the live text.
        """
        log.warning("the live recogniser's stream failed and is begun again", extra={"at": round(self._now, 2)})
        self._close()
        self._stream = self._open(self._now)
        settled, self._partial, self._looked = (self._partial,) if self._partial else (), None, self._now
        return settled

    def _line(self, text: Any, start: float, duration: float) -> LiveLine | None:
        said = ctypes.string_at(text).decode("utf-8", "ignore").strip() if text else ""
        begun = self._stream.begun + start
        return LiveLine(begun, min(begun + duration, self._now), said) if said else None
