"""Everything an installation keeps, opened from its settings."""

import secrets
from dataclasses import dataclass
from functools import cached_property
from pathlib import Path

from nuntius.settings import Settings
from nuntius.store.database import Database
from nuntius.store.files import FileStore


def database_of(settings: Settings) -> Path:
    """Where the database lies."""
    return settings.data / "nuntius.db"


@dataclass(frozen=True)
class Installation:
    """Database, files and keys below the data folder."""

    settings: Settings

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
        """Key of the sessions, made once and readable only for the owner of the folder."""
        path = self.settings.data / "secret"
        if not path.exists():
            self.settings.data.mkdir(parents=True, exist_ok=True)
            path.touch(0o600)
            path.write_text(secrets.token_hex(32))
        return path.read_text()
