"""Networks that run on the processor, without more memory than they need."""

from pathlib import Path

import onnxruntime

THREADS = 2


def network(model: Path | bytes, threads: int = THREADS) -> onnxruntime.InferenceSession:
    """The network of an ONNX file, or of its bytes, ready to run."""
    options = onnxruntime.SessionOptions()
    options.intra_op_num_threads = threads
    options.log_severity_level = 3  # errors only
    options.enable_cpu_mem_arena = False  # which would keep the room of the longest batch for good
    return onnxruntime.InferenceSession(model, options, providers=["CPUExecutionProvider"])
