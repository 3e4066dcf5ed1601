"""Networks that run on the processor, without more memory than they need."""

import os
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import TypeVar

import onnxruntime

CORES = min(2, len(os.sched_getaffinity(0)))  # more threads than there are cores only wait for one another

T = TypeVar("T")
R = TypeVar("R")


def network(model: Path | bytes, threads: int = CORES) -> onnxruntime.InferenceSession:
    """The network of an ONNX file, or of its bytes, ready to run."""
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = threads
    options.log_severity_level = 3  # errors only
    options.enable_cpu_mem_arena = False  # which would keep the room of the longest batch for good
    return onnxruntime.InferenceSession(model, options, providers=["CPUExecutionProvider"])


def side_by_side(read: Callable[[T], R], parts: Sequence[T]) -> list[R]:
    """What comes of each part, in their order; as many at a time as there are cores."""
    with ThreadPoolExecutor(CORES) as pool:
        return list(pool.map(read, parts))
