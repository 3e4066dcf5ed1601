"""What tests share: an installation in a temporary folder, made sound, a client that is signed in."""

import shutil
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import hypothesis
import numpy as np
import pytest
from argon2 import PasswordHasher

from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store import accounts
from nuntius.store.database import Database
from nuntius.store.installation import Installation, database_of
from tests.help import Desk, in_memory, tone, write_wav
from tests.rooms import RoomDesk

hypothesis.settings.register_profile("nuntius", deadline=None)  # examples load models on first use
hypothesis.settings.load_profile("nuntius")


@pytest.fixture(scope="session", autouse=True)
def _quick_passwords() -> None:
    """Hashing that costs nothing: with the real costs each test would spend most of its time on signing in."""
    accounts._hasher = PasswordHasher(time_cost=1, memory_cost=8, parallelism=1)


@pytest.fixture(scope="session")
def migrated(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """A database with all tables and nothing in them, to be copied: migrating takes a second."""
    database = Database(tmp_path_factory.mktemp("migrated") / "nuntius.db")
    database.migrate()
    database.close()
    return database.path


@pytest.fixture
def settings(tmp_path: Path, migrated: Path) -> Settings:
    environment = {"NUNTIUS_RECOGNISER": "scripted"}
    hosts = ("127.0.0.1", "localhost")
    made = replace(Settings.from_environment(environment), data=tmp_path / "data", call_hosts=hosts)
    made.data.mkdir()
    shutil.copyfile(migrated, database_of(made))
    return made


@pytest.fixture
def installation(settings: Settings) -> Iterator[Installation]:
    made = Installation(settings)
    yield made
    made.database.close()


@pytest.fixture
def queue(installation: Installation) -> Queue:
    """A queue in memory; `desk.work()` works it off."""
    return Queue(installation, in_memory)


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


@pytest.fixture
def room(desk: Desk) -> RoomDesk:
    """A room with an agenda that Maren has opened."""
    body = {
        "title": "Crew rota",
        "people": ["Ines Carvell"],
        "agenda": [{"title": "Rota", "planned": 600}, {"title": "Leave"}],
    }
    made = desk.client.post("/api/rooms", body).json["board"]
    return RoomDesk(desk, desk.client, made["meeting"]["id"])
