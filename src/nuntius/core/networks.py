"""Networks that run on the processor, without more memory than they need."""

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import TypeVar

import onnxruntime

from nuntius.core.errors import ModelMissing

CORES = min(2, len(os.sched_getaffinity(0)))  # more threads than there are cores only wait for one another
LEAST_SIZE = 20_000_000  # bytes of a whole network that ships

T = TypeVar("T")
R = TypeVar("R")


def network(model: Path | bytes, threads: int = 1) -> onnxruntime.InferenceSession:
    """The network of an ONNX file, or of its bytes, ready to run."""
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = threads
    options.log_severity_level = 3  # errors only
    options.enable_cpu_mem_arena = False  # which would keep the room of the longest batch for good
    return onnxruntime.InferenceSession(model, options, providers=["CPUExecutionProvider"])


def shipped_network(path: Path) -> onnxruntime.InferenceSession:
    """A network that `make context` writes, which is read on one core. Raises ModelMissing."""
    if not path.is_file() or path.stat().st_size < LEAST_SIZE:
        raise ModelMissing(f"{path.name} is missing or damaged: take it from the project again, or run `make context`")
    return network(path)


def on_all_cores(read: Callable[[T], R], parts: Sequence[T]) -> list[R]:
    """What comes of each part, in their order; as many at a time as there are cores."""
    with ThreadPoolExecutor(CORES) as pool:
        return list(pool.map(read, parts))
