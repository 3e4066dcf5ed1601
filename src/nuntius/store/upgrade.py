"""Upgrading the database: a copy first, then all migrations in one transaction, checked before it is committed."""

import fcntl
import logging
import os
import sqlite3
from collections import Counter
from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import UTC, datetime
from pathlib import Path

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine

from nuntius.store.errors import CopyMissing, DatabaseTooNew, UpgradeFailed

log = logging.getLogger(__name__)

MIGRATIONS = Path(__file__).parent / "migrations"
FOLDER = "copies"  # beside the database
KEPT = 3  # copies; older ones are deleted when a new one is made


def configuration() -> Config:
    """Alembic's configuration: where the migrations lie."""
    config = Config()
    config.set_main_option("script_location", str(MIGRATIONS))
    return config


def to_newest(path: Path, engine: Engine) -> None:
    """Brings the database at `path` to the newest revision; does nothing when it has it.

    `engine` must connect with foreign keys off: SQLite changes a table by replacing it, and with foreign keys on that
    empties every table that refers to it. What refers to what is checked before the commit instead. A database that
    holds anything is copied first. Raises DatabaseTooNew, UpgradeFailed.
    """
    config = configuration()
    scripts = ScriptDirectory.from_config(config)
    with _alone(path), engine.connect() as connection:
        revision = MigrationContext.configure(connection).get_current_revision()
        connection.rollback()
        if revision == scripts.get_current_head():
            return
        if revision is not None:
            if revision not in {script.revision for script in scripts.walk_revisions()}:
                raise DatabaseTooNew(revision)
            copy(path, revision)
        _upgrade(connection, config)
        log.info("database upgraded", extra={"since": revision, "to": scripts.get_current_head()})


def _upgrade(connection: Connection, config: Config) -> None:
    """All migrations in one transaction. Raises UpgradeFailed where a row would refer to nothing afterwards."""
    before = _dangling(connection)
    config.attributes["connection"] = connection
    command.upgrade(config, "head")
    lost = _dangling(connection) - before
    if lost:
        connection.rollback()
        raise UpgradeFailed(", ".join(sorted({table for table, _ in lost})))
    connection.commit()


def _dangling(connection: Connection) -> Counter[tuple[str, str]]:
    """How many rows refer to nothing, by their table and the one referred to."""
    rows = connection.exec_driver_sql("PRAGMA foreign_key_check").all()
    return Counter((str(row[0]), str(row[2])) for row in rows)


@contextmanager
def _alone(path: Path) -> Iterator[None]:
    """Only one process or thread upgrades at a time; server, worker and listener start together."""
    with path.with_suffix(".upgrading").open("w") as file:
        fcntl.flock(file, fcntl.LOCK_EX)
        yield


# --- copies ---


def copy(path: Path, revision: str) -> Path:
    """A copy of the database as it is, named by its revision and the moment; the oldest beyond KEPT are deleted."""
    moment = datetime.now(UTC).strftime("%Y%m%dT%H%M%S%fZ")
    target = path.parent / FOLDER / f"{path.stem}-{revision}-{moment}.db"
    target.parent.mkdir(mode=0o700, exist_ok=True)
    snapshot(path, target)
    for old in copies(path)[KEPT:]:
        old.unlink(missing_ok=True)
    return target


def copies(path: Path) -> list[Path]:
    """The copies that are kept, the newest first; none is an empty list."""
    found = (path.parent / FOLDER).glob(f"{path.stem}-*.db")
    return sorted(found, key=lambda each: each.stem.rsplit("-", 1)[-1], reverse=True)


def drop_copies(path: Path) -> None:
    """Deletes all copies: they hold what is removed for good."""
    for each in copies(path):
        each.unlink(missing_ok=True)


def restore_copy(path: Path, name: str) -> Path:
    """Puts the copy of this name in place of the database; the copy that was made of what stood there before.

    Whatever runs sees the old state at once, in one transaction. Raises CopyMissing.
    """
    source = next((each for each in copies(path) if each.name == name), None)
    if source is None:
        raise CopyMissing(name, [each.name for each in copies(path)])
    kept = copy(path, "replaced") if path.exists() else path
    with closing(sqlite3.connect(source)) as old, closing(sqlite3.connect(path, timeout=20)) as current:
        old.backup(current)
    return kept


def snapshot(path: Path, target: Path) -> None:
    """Writes one consistent state of the database to `target`, while others go on reading and writing."""
    temporary = target.with_suffix(".tmp")
    temporary.unlink(missing_ok=True)
    handle = os.open(temporary, os.O_CREAT | os.O_WRONLY, 0o600)
    try:
        with closing(sqlite3.connect(path, timeout=20)) as source, closing(sqlite3.connect(temporary)) as made:
            source.backup(made)
            made.execute("PRAGMA journal_mode=DELETE")  # one file, without a log beside it
        os.fsync(handle)
    finally:
        os.close(handle)
    temporary.replace(target)
