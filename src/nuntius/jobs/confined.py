"""Reading foreign files in a process of its own, with limits of time and memory: no file can stop the worker."""

import os
import pickle
import resource
import subprocess
import sys
from collections.abc import Callable
from datetime import time
from pathlib import Path
from typing import ParamSpec, TypeVar

from nuntius.core.errors import Fault, FileTooCostly
from nuntius.core.formats.chat import Message, read_chat
from nuntius.core.formats.reading import decode_text, read_transcript, tells_times
from nuntius.core.transcript.transcript import Transcript

P = ParamSpec("P")
R = TypeVar("R")

SECONDS = 60  # of processor time; the largest transcript that is taken, 64 MB, needs a third of it
MEMORY = 3 << 30  # bytes of address space; a bundle of six hours of talk needs a fifth of it
GRACE = 15  # further seconds by the clock, for a busy machine to start the process


def confined(function: Callable[P, R], /, *args: P.args, **kwargs: P.kwargs) -> R:
    """What `function`, a function of a module, returns for these arguments; all of it must be picklable.

    Raises the Fault that it raises, and FileTooCostly where it needs more than SECONDS or MEMORY or ends otherwise.
    """
    asked = pickle.dumps((function.__module__, function.__qualname__, args, kwargs))
    environment = {**os.environ, "OPENBLAS_NUM_THREADS": "1", "OMP_NUM_THREADS": "1"}
    try:
        ended = subprocess.run(
            [sys.executable, "-m", __name__],
            input=asked,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,  # what it would say may hold words of the file
            timeout=SECONDS * 2 + GRACE,
            env=environment,
            check=False,
        )
    except subprocess.TimeoutExpired as cause:
        raise FileTooCostly() from cause
    if ended.returncode != 0 or not ended.stdout:
        raise FileTooCostly()
    result, fault = pickle.loads(ended.stdout)
    if fault is not None:
        raise Fault(fault)
    return result  # type: ignore[no-any-return]


def read_transcript_file(path: Path) -> tuple[Transcript, bool]:
    """A transcript file, and whether it carries times. Raises TranscriptUnreadable, TranscriptEmpty."""
    data = path.read_bytes()
    return read_transcript(data), tells_times(data)


def read_chat_file(path: Path, begun: time, duration: float) -> tuple[Message, ...]:
    """The messages of a chat file, as `read_chat` says. Raises TranscriptUnreadable."""
    return read_chat(decode_text(path.read_bytes()), begun, duration)


def _run() -> None:
    """The process: reads what is asked from standard input, answers on standard output."""
    import importlib

    resource.setrlimit(resource.RLIMIT_CPU, (SECONDS, SECONDS + 1))
    resource.setrlimit(resource.RLIMIT_AS, (MEMORY, MEMORY))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    module, name, args, kwargs = pickle.loads(sys.stdin.buffer.read())
    function = getattr(importlib.import_module(module), name)
    answer: tuple[object, str | None]
    try:
        answer = (function(*args, **kwargs), None)
    except Fault as fault:
        answer = (None, fault.sentence)
    sys.stdout.buffer.write(pickle.dumps(answer))
    sys.stdout.buffer.flush()


if __name__ == "__main__":
    _run()
