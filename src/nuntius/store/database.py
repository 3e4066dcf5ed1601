"""The database: SQLite in write-ahead mode, migrated on opening."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from typing import Any

import orjson
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import OperationalError
from sqlalchemy.exc import TimeoutError as PoolExhausted
from sqlalchemy.orm import Session

from nuntius.core.people import name_key
from nuntius.store import upgrade
from nuntius.store.errors import DatabaseBusy, StorageFull
from nuntius.store.files import free_space
from nuntius.store.transactions import marked

WAIT = 20_000  # milliseconds that a writer waits for another one
FORGET_WAIT = 0.5  # seconds that emptying the log waits for readers; the worker tries again
POOL = 24  # connections kept open; a thread of the server holds at most one
OVERFLOW = 72  # further connections, closed after use
# FULL: a commit is on the disk when it returns, so what was acknowledged survives a power cut.
# secure_delete: what is deleted is overwritten, since stretches are removed for good.
PRAGMAS = ("journal_mode=WAL", "synchronous=FULL", "secure_delete=ON", f"busy_timeout={WAIT}")


class Database:
    """Sessions on one SQLite file.

    Every session raises DatabaseBusy where the lock or a connection was not to be had within the wait, and
    StorageFull where the disk has no room.
    """

    def __init__(self, path: Path) -> None:
        path.parent.mkdir(parents=True, exist_ok=True)
        self.path = path
        self._unforgotten = path.with_suffix(".unforgotten")
        self.url = f"sqlite:///{path}"
        self._engine = _engine(self.url)
        self._writing = self._engine.execution_options(writes=True)

    def migrate(self) -> None:
        """Brings the tables to the newest revision; does nothing when they have it.

        Raises DatabaseTooNew, UpgradeFailed.
        """
        engine = _engine(self.url, foreign_keys=False)
        try:
            upgrade.to_newest(self.path, engine.execution_options(writes=True))
        finally:
            engine.dispose()

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that sees one state of the data."""
        with self._named_faults(), marked("read"), Session(self._engine, expire_on_commit=False) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A session that holds the write lock and commits at its end, or takes everything back."""
        with (
            self._named_faults(),
            marked("write"),
            Session(self._writing, expire_on_commit=False) as session,
            session.begin(),
        ):
            yield session

    @contextmanager
    def _named_faults(self) -> Iterator[None]:
        """Names what SQLite and the pool report by their texts."""
        try:
            yield
        except PoolExhausted as cause:
            raise DatabaseBusy() from cause
        except OperationalError as cause:
            text = str(cause.orig)
            if "locked" in text:
                raise DatabaseBusy() from cause
            # where the file shared by readers cannot grow, SQLite calls a full disk an I/O error
            if "disk is full" in text or ("disk I/O" in text and not free_space(self.path.parent)):
                raise StorageFull() from cause
            raise

    def forget(self) -> bool:
        """Empties the write-ahead log and drops copies, so that nothing of what was deleted is left in them.

        Whether that is done. A reader who still sees the old state keeps the log from being emptied; then a mark is
        left beside the database, and `forget_rest` does it later.
        """
        self._unforgotten.touch(0o600)
        upgrade.drop_copies(self.path)
        with closing(sqlite3.connect(self.path, timeout=FORGET_WAIT)) as connection:
            busy, left, moved = connection.execute("PRAGMA wal_checkpoint(TRUNCATE)").fetchone()
        done = not busy and left == moved
        if done:
            self._unforgotten.unlink(missing_ok=True)
        return bool(done)

    def forget_rest(self) -> bool:
        """Does what `forget` could not do at once; whether nothing is left to do."""
        return self.forget() if self._unforgotten.exists() else True

    def close(self) -> None:
        self._engine.dispose()


class CommitWatch:
    """Notices whether anything was committed since it was last asked; costs next to nothing."""

    def __init__(self, path: Path) -> None:
        self._connection = sqlite3.connect(path, check_same_thread=False)
        self._version = -1

    def moved(self) -> bool:
        """Whether any other connection, of this or another process, has committed; True at the first time.

        Source: https://www.sqlite.org/pragma.html#pragma_data_version
        """
        before, (self._version,) = self._version, self._connection.execute("PRAGMA data_version").fetchone()
        return before != self._version


def _parsed(value: str | bytes | float) -> Any:
    """JSON of a column, four times as fast as by `json`: the words of a long meeting are read at every opening.

    SQLite keeps a lone number as a number; that it is no text must be a TypeError for SQLAlchemy to take it as it is.
    """
    if isinstance(value, str | bytes):
        return orjson.loads(value)
    raise TypeError


def _engine(url: str, foreign_keys: bool = True) -> Engine:
    """Connections with our pragmas; `foreign_keys` can only be chosen here, outside of any transaction."""
    engine = create_engine(
        url,
        connect_args={"check_same_thread": False},
        pool_size=POOL,
        max_overflow=OVERFLOW,
        pool_timeout=WAIT / 1000,
        hide_parameters=True,  # no spoken word reaches a log
        json_deserializer=_parsed,
    )

    @event.listens_for(engine, "connect")
    def _pragmas(connection: Any, _: Any) -> None:
        connection.isolation_level = None  # transactions are begun below, not by the driver
        connection.create_function("name_key", 1, lambda text: name_key(text or ""), deterministic=True)
        cursor = connection.cursor()
        for pragma in (*PRAGMAS, f"foreign_keys={'ON' if foreign_keys else 'OFF'}"):
            cursor.execute(f"PRAGMA {pragma}")
        cursor.close()

    @event.listens_for(engine, "begin")
    def _begin(connection: Connection) -> None:
        writes = connection.get_execution_options().get("writes", False)
        connection.exec_driver_sql("BEGIN IMMEDIATE" if writes else "BEGIN")

    return engine
