"""The database: SQLite in write-ahead mode, migrated on opening."""

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session

MIGRATIONS = Path(__file__).parent / "migrations"
WAIT = 20_000  # milliseconds that a writer waits for another one
# What is deleted is overwritten (`secure_delete`): stretches are removed for good.
PRAGMAS = ("journal_mode=WAL", "foreign_keys=ON", "synchronous=NORMAL", "secure_delete=ON", f"busy_timeout={WAIT}")


class Database:
    """Sessions on one SQLite file."""

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.url = f"sqlite:///{path}"
        self._engine = _engine(self.url)
        self._writing = self._engine.execution_options(writes=True)

    def migrate(self) -> None:
        """Brings the tables to the newest form; does nothing when they have it."""
        config = Config()
        config.set_main_option("script_location", str(MIGRATIONS))
        with self._writing.connect() as connection:
            config.attributes["connection"] = connection
            command.upgrade(config, "head")
            connection.commit()

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that sees one state of the data."""
        with Session(self._engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A session that holds the write lock and commits at its end, or takes everything back."""
        with Session(self._writing, expire_on_commit=False) as session, session.begin():
            yield session

    def forget(self) -> None:
        """Empties the write-ahead log, so that nothing of what was just deleted is left in it."""
        with self._engine.connect() as connection:
            raw = connection.connection.dbapi_connection
            if raw is not None:
                raw.execute("PRAGMA wal_checkpoint(TRUNCATE)")

    def close(self) -> None:
        self._engine.dispose()


def _engine(url: str) -> Engine:
    engine = create_engine(url, connect_args={"check_same_thread": False})

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _: Any) -> None:
        connection.isolation_level = None  # transactions are begun below, not by the driver
        cursor = connection.cursor()
        for pragma in PRAGMAS:
            cursor.execute(f"PRAGMA {pragma}")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    return engine
