"""Networks that run on the processor, without more memory than they need."""

from pathlib import Path

import onnxruntime

THREADS = 2


def network(path: Path) -> onnxruntime.InferenceSession:
    """The network of an ONNX file, ready to run."""
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = THREADS
    options.log_severity_level = 3
    options.enable_cpu_mem_arena = False  # which would keep the room of the longest batch for good
    return onnxruntime.InferenceSession(str(path), options, providers=["CPUExecutionProvider"])
