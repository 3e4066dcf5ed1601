"""Everything an installation keeps, opened from its settings."""

import secrets
from contextlib import suppress
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from nuntius.settings import Settings
from nuntius.store.database import Database
from nuntius.store.files import FileStore
from nuntius.store.sealing import Seal


def database_of(settings: Settings) -> Path:
    """Where the database lies."""
    return settings.data / "nuntius.db"


def make_private(folder: Path) -> None:
    """A folder, made where it is not there, that only its owner can look into; what lies in it is as private then."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    if folder.stat().st_mode & 0o077:
        with suppress(PermissionError):  # a folder of somebody else's is theirs to close
            folder.chmod(0o700)


@dataclass(frozen=True)
class Installation:
    """Database, files and keys below the data folder."""

    settings: Settings

    def __post_init__(self) -> None:
        make_private(self.settings.data)

    @cached_property
    def database(self) -> Database:
        """The database, with its tables in the newest form."""
        database = Database(database_of(self.settings))
        database.migrate()
        return database

    @cached_property
    def files(self) -> FileStore:
        return FileStore(self.settings.data / "files")

    @cached_property
    def secret(self) -> str:
        """What the keys of sessions and of encrypted values are derived from, made once and readable only for the owner of the folder."""
        path = self.settings.data / "secret"
        if not path.exists():
            path.touch(0o600)
            path.write_text(secrets.token_hex(32))
        return path.read_text()

    @cached_property
    def seal(self) -> Seal:
        """Encryption of single values, by a key that is derived from the secret."""
        return Seal(self.secret)
