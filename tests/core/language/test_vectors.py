"""Vectors of sentences, and the networks that read side by side."""

from pathlib import Path

import numpy as np
import pytest
from numpy.typing import NDArray

from nuntius.core.errors import ModelMissing
from nuntius.core.language import vectors as of
from nuntius.core.language.cache import Kept
from nuntius.core.language.vectors import WIDTH, vectors
from nuntius.core.networks import on_all_cores

TEXTS = (
    "The slipway is closed until Thursday.",
    "Nobody can use the ramp before Thursday.",
    "Two sugars and a drop of milk, please.",
    "No.",
)


def test_each_text_has_a_unit_vector_that_is_near_what_means_the_same() -> None:
    made = vectors(TEXTS)
    assert made.shape == (len(TEXTS), WIDTH)
    assert np.allclose(np.linalg.norm(made, axis=1), 1, atol=1e-5)
    assert made[0] @ made[1] > made[0] @ made[2] + 0.3
    assert vectors([]).shape == (0, WIDTH)


def test_a_text_means_the_same_among_others_and_by_itself() -> None:
    alone = np.stack([of._computed([text])[0] for text in TEXTS])
    beside = [*TEXTS, *(f"Boat number {n} is out of the water." for n in range(80))]
    among = of._computed(beside)[: len(TEXTS)]
    assert ((alone * among).sum(1) > 0.97).all()


def test_a_talk_has_the_same_vectors_whatever_was_read_before(monkeypatch: pytest.MonkeyPatch) -> None:
    talk = [f"Boat number {n} is out of the water, and the sun is on it." for n in range(30)]
    other = ["Two sugars and a drop of milk for the man in the blue hat.", *talk[:7]]

    def read(*talks: list[str]) -> NDArray[np.float32]:
        monkeypatch.setattr(of, "_kept", Kept(of.KEPT))
        return [vectors(each) for each in talks][-1]

    assert np.array_equal(read(talk), read(other, talk))


def test_a_long_talk_has_a_vector_for_each_of_its_sentences_in_their_order() -> None:
    talk = [TEXTS[n % len(TEXTS)] for n in range(of.BLOCK + 5)]
    made = vectors(talk)
    assert made.shape == (len(talk), WIDTH)
    assert ((made * vectors(TEXTS)[[n % len(TEXTS) for n in range(len(talk))]]).sum(1) > 0.97).all()


def test_what_is_no_sentence_has_a_vector_too() -> None:
    made = vectors(["", "…", "\u0000\ufffd", "word " * 5000])
    assert made.shape == (4, WIDTH)
    assert np.isfinite(made).all()


def test_a_damaged_network_is_reported(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    (tmp_path / "tokenizer.json").write_bytes(Path(of.__file__).with_name("tokenizer.json").read_bytes())
    (tmp_path / "vectors.onnx").write_bytes(b"version 1 of something else")
    monkeypatch.setattr(of, "__file__", str(tmp_path / "vectors.py"))
    of._engine.cache_clear()
    with pytest.raises(ModelMissing, match=r"vectors\.onnx"):
        of._engine()
    of._engine.cache_clear()


def test_what_is_read_side_by_side_comes_back_in_its_order() -> None:
    assert on_all_cores(lambda number: number * number, range(12)) == [number * number for number in range(12)]
    assert on_all_cores(lambda number: number * number, ()) == []
    with pytest.raises(ZeroDivisionError):
        on_all_cores(lambda number: 1 // number, (1, 0))
