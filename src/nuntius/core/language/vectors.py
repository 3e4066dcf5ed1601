"""Sentence vectors: what two sentences have in common in meaning."""

import hashlib
from collections.abc import Iterator, Sequence
from functools import cache
from itertools import groupby
from pathlib import Path

import numpy as np
import onnxruntime
from numpy.typing import NDArray
from tokenizers import Tokenizer

from nuntius.core.errors import ModelMissing
from nuntius.core.language.cache import Kept
from nuntius.core.networks import on_all_cores, shipped_network

TOKENIZER_DIGEST = "be50c3628f2bf5bb5e3a7f17b1f74611b2561a3a27eeab05e5aa30f411572037"  # sha256
WIDTH = 384
LONGEST = 128  # tokens; the model was trained on 128
BATCH = 32
BLOCK = 256  # texts that are looked at together, from the first on
KEPT = 32  # blocks whose vectors are kept, some 12 MB

Vectors = NDArray[np.float32]

_kept: Kept[tuple[str, ...], Vectors] = Kept(KEPT)


@cache
def _engine() -> tuple[onnxruntime.InferenceSession, Tokenizer]:
    folder = Path(__file__).parent
    words = folder / "tokenizer.json"
    if not words.is_file() or hashlib.sha256(words.read_bytes()).hexdigest() != TOKENIZER_DIGEST:
        raise ModelMissing(f"{words.name} is missing or damaged: take it from the project again")
    tokenizer = Tokenizer.from_file(str(words))
    tokenizer.enable_truncation(LONGEST)
    tokenizer.no_padding()
    return shipped_network(folder / "vectors.onnx"), tokenizer


def vectors(texts: Sequence[str]) -> Vectors:
    """Unit vectors of shape (len(texts), 384); their dot product is the cosine. Raises ModelMissing.

    Means over all tokens, as the model's card describes. In eight bits what is read together is rounded together, so
    texts are read in blocks that hang on nothing but these texts: the same list gives the same vectors, whatever was
    read before.
    """
    blocks = [tuple(texts[first : first + BLOCK]) for first in range(0, len(texts), BLOCK)]
    return np.concatenate([np.zeros((0, WIDTH), np.float32), *_kept(blocks, lambda new: list(map(_of_block, new)))])


def _of_block(block: tuple[str, ...]) -> Vectors:
    texts = list(dict.fromkeys(block))
    made = _computed(texts)
    number = {text: at for at, text in enumerate(texts)}
    return made[[number[text] for text in block]]


def _computed(texts: list[str]) -> Vectors:
    session, tokenizer = _engine()
    tokens = [item.ids for item in tokenizer.encode_batch(texts)]
    made = np.zeros((len(texts), WIDTH), np.float32)
    parts = list(_of_one_length(tokens))
    read = on_all_cores(lambda part: session.run(None, {"input_ids": [tokens[i] for i in part]})[0], parts)
    for part, each in zip(parts, read, strict=True):
        made[part] = each
    return made


def _of_one_length(tokens: Sequence[Sequence[int]]) -> Iterator[list[int]]:
    """Numbers of texts that are read together: with as many tokens, so that none is filled up."""
    by_length = groupby(sorted(range(len(tokens)), key=lambda i: len(tokens[i])), key=lambda i: len(tokens[i]))
    for _, numbers in by_length:
        alike = list(numbers)
        yield from (alike[first : first + BATCH] for first in range(0, len(alike), BATCH))
