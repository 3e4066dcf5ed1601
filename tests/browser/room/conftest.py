"""A talk that a browser's microphone hears."""

from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from playwright.sync_api import Playwright

from nuntius.core.audio.decode import RATE, Samples, load
from tests.browser.conftest import Site
from tests.browser.microphone import Desk
from tests.help import ROOT, write_wav

DEMO = ROOT / "demo/bring-me-in.ogg"
LEAD = 4.0  # seconds of silence before the talk, while the room is opened


@pytest.fixture(scope="session")
def talk() -> Samples:
    """The first minute of the open day's planning."""
    return load(DEMO)[: 60 * RATE]


@pytest.fixture
def desk(playwright: Playwright, site: Site, state: dict[str, object], tmp_path: Path, talk: Samples) -> Iterator[Desk]:
    sound = tmp_path / "talk.wav"
    write_wav(sound, np.concatenate([np.zeros(round(LEAD * RATE), np.float32), talk]), RATE)
    made = Desk(playwright, site, state, tmp_path / "profile", sound)
    yield made
    made.close()
