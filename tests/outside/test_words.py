"""Words, held against published text with jiwer."""

import re

import jiwer
import pytest

from nuntius.core.audio.decode import Samples, load
from nuntius.core.speech.recogniser import Recogniser
from nuntius.jobs import engines
from nuntius.settings import Settings
from tests.outside.published import kennedy, librivox, telephone_call, telephone_text

pytestmark = pytest.mark.outside

# Inaugural address of John F. Kennedy, 20 January 1961 (National Archives): the passage of the clip.
KENNEDY = "And so, my fellow Americans: ask not what your country can do for you—ask what you can do for your country."


def plain(text: str) -> str:
    """Lower case, no punctuation; the recogniser's "Mr." is the published text's "mister"."""
    return " ".join(re.sub(r"[^a-z' ]", " ", text.lower().replace("mr.", "mister")).split())


def heard(engine: Recogniser, samples: Samples) -> str:
    return plain(" ".join(word.text for word in engine.recognise(samples)))


@pytest.fixture(scope="module")
def whisper() -> Recogniser:
    return engines.recogniser(Settings.from_environment({}), kennedy())


def test_the_kennedy_clip_has_no_wrong_word(whisper: Recogniser) -> None:
    assert jiwer.wer(plain(KENNEDY), heard(whisper, load(kennedy()))) == 0


def test_read_books(whisper: Recogniser) -> None:
    texts, paths = zip(*librivox(), strict=True)
    found = [heard(whisper, load(path)) for path in paths]
    assert jiwer.wer([plain(text) for text in texts], found) <= 0.02


def test_read_books_by_the_streaming_recogniser() -> None:
    engine = engines.recogniser(Settings.from_environment({"NUNTIUS_RECOGNISER": "streaming"}), kennedy())
    texts, paths = zip(*librivox(), strict=True)
    found = [heard(engine, load(path)) for path in paths]
    assert jiwer.wer([plain(text) for text in texts], found) <= 0.08


def test_a_telephone_call(whisper: Recogniser) -> None:
    """Both people in one row by the beginnings of their turns, so that talk over one another counts as wrong order.

    The 8-bit weights are multiplied otherwise on other processors: 18 and 19 of the 81 words were wrong on two of them.
    """
    assert jiwer.wer(plain(telephone_text()), heard(whisper, telephone_call().samples)) <= 20 / 81


def test_words_stand_where_they_are_spoken(whisper: Recogniser) -> None:
    """The stretches of the published labels in which somebody speaks hold the words' middles."""
    call = telephone_call()
    words = whisper.recognise(call.samples)
    speech = call.reference.get_timeline().support()
    inside = sum(any(s.start - 0.3 <= word.middle <= s.end + 0.3 for s in speech) for word in words)
    assert inside / len(words) >= 0.97
