"""What tests share: an installation in a temporary folder, made sound, a client that is signed in."""

from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import hypothesis
import numpy as np
import pytest
from huey import MemoryHuey

from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from tests.help import Desk, tone, write_wav

ROOT = Path(__file__).parents[1]

hypothesis.settings.register_profile("nuntius", deadline=None)  # examples load models on first use
hypothesis.settings.load_profile("nuntius")


@pytest.fixture
def settings(tmp_path: Path) -> Settings:
    environment = {"NUNTIUS_RECOGNISER": "scripted"}
    return replace(Settings.from_environment(environment), data=tmp_path / "data")


@pytest.fixture
def installation(settings: Settings) -> Iterator[Installation]:
    made = Installation(settings)
    yield made
    made.database.close()


@pytest.fixture
def queue(installation: Installation) -> Queue:
    """A queue in memory; `desk.work()` works it off."""
    return Queue(installation, MemoryHuey())


@pytest.fixture
def desk(installation: Installation, queue: Queue) -> Desk:
    """A server with Maren's account, seen through a client that is signed in as her."""
    return Desk(installation, queue)


@pytest.fixture
def wav(tmp_path: Path) -> Path:
    """Three seconds of a tone at 16 kHz."""
    path = tmp_path / "tone.wav"
    write_wav(path, tone(3.0), 16_000)
    return path


@pytest.fixture
def rng() -> np.random.Generator:
    return np.random.default_rng(5)
