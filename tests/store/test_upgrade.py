"""Upgrades on filled tables: from every revision, every row with every value is still there."""

import sqlite3
from collections.abc import Iterator
from contextlib import closing
from datetime import date, datetime
from pathlib import Path
from typing import Any

import pytest
from alembic import command, op
from alembic.script import ScriptDirectory
from click.testing import CliRunner
from sqlalchemy import Boolean, Date, DateTime, Float, Integer, MetaData, Table, create_engine, inspect
from sqlalchemy.types import JSON

from nuntius.cli import main
from nuntius.store import upgrade
from nuntius.store.database import Database
from nuntius.store.errors import CopyMissing, DatabaseTooNew, UpgradeFailed
from nuntius.store.models import Workspace

REVISIONS = [script.revision for script in ScriptDirectory.from_config(upgrade.configuration()).walk_revisions()][::-1]
ROWS = 3  # in each table

Rows = dict[str, list[dict[str, Any]]]


def filled(path: Path, revision: str) -> Rows:
    """A database of `revision` with ROWS rows in every table, each referring to rows of the others; its rows."""
    engine = create_engine(f"sqlite:///{path}")
    config = upgrade.configuration()
    with engine.connect() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
        connection.commit()
    tables = reflected(path)
    with engine.begin() as connection:
        connection.exec_driver_sql("PRAGMA foreign_keys=ON")
        for table in tables:
            for number in range(1, ROWS + 1):
                connection.execute(table.insert().values(row_of(table, number)))
    engine.dispose()
    return rows_of(path)


def reflected(path: Path) -> list[Table]:
    """The tables as they are in the file, parents before children."""
    engine, metadata = create_engine(f"sqlite:///{path}"), MetaData()
    metadata.reflect(engine)
    engine.dispose()
    return [table for table in metadata.sorted_tables if table.name != "alembic_version"]


def row_of(table: Table, number: int) -> dict[str, Any]:
    """Values for every column: row `number` refers to rows `number` of other tables."""
    return {column.name: value_of(column, number) for column in table.columns}


def value_of(column: Any, number: int) -> Any:
    for key in column.foreign_keys:
        return value_of(key.column, number)
    kinds: tuple[tuple[Any, Any], ...] = (
        (Boolean, True),
        (JSON, [f"{column.name} {number}", number]),
        (DateTime, datetime(2026, 5, number, 9, 30)),
        (Date, date(2026, 5, number)),
        (Integer, number),
        (Float, number + 0.5),
    )
    return next((value for kind, value in kinds if isinstance(column.type, kind)), f"{column.name} {number}")


def rows_of(path: Path) -> Rows:
    """All rows of all tables."""
    with closing(sqlite3.connect(path)) as connection:
        connection.row_factory = sqlite3.Row
        names = [
            row["name"]
            for row in connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
            if row["name"] not in ("alembic_version", "sqlite_sequence")
        ]
        return {
            name: [dict(row) for row in connection.execute(f'SELECT * FROM "{name}" ORDER BY 1, 2')] for name in names
        }


def lost(before: Rows, after: Rows) -> list[str]:
    """What of `before` is not in `after`: rows and values, each named. `line.place` is computed by revision 0004."""
    found = []
    for name, rows in before.items():
        there = after.get(name, [])
        if len(there) != len(rows):
            found.append(f"{name}: {len(rows)} rows, then {len(there)}")
            continue
        for old, new in zip(rows, there, strict=True):
            found += [f"{name}.{key}" for key, value in old.items() if new.get(key, value) != value]
    return found


@pytest.mark.parametrize("revision", REVISIONS)
def test_an_upgrade_keeps_every_row_of_every_table(revision: str, tmp_path: Path) -> None:
    path = tmp_path / "nuntius.db"
    before = filled(path, revision)
    assert all(len(rows) == ROWS for rows in before.values())
    database = Database(path)
    database.migrate()
    database.close()
    assert lost(before, rows_of(path)) == []
    with closing(sqlite3.connect(path)) as connection:
        assert connection.execute("PRAGMA foreign_key_check").fetchall() == []
    names = {table.name for table in reflected(path)}
    assert names == {table.name for table in reflected(newest(tmp_path))}


def newest(folder: Path) -> Path:
    """A new database of the newest revision."""
    database = Database(folder / "newest.db")
    database.migrate()
    database.close()
    return database.path


@pytest.fixture
def old(tmp_path: Path) -> Iterator[Path]:
    """A filled database of an old revision."""
    filled(tmp_path / "nuntius.db", "0003")
    yield tmp_path / "nuntius.db"


def test_a_copy_is_made_before_an_upgrade_and_can_be_put_back(old: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    before = rows_of(old)
    Database(old).migrate()
    Database(old).migrate()  # nothing to do: no further copy
    (copy,) = upgrade.copies(old)
    assert "-0003-" in copy.name
    assert rows_of(copy) == before
    assert copy.stat().st_mode & 0o077 == 0
    monkeypatch.setenv("NUNTIUS_DATA", str(old.parent))
    listed = CliRunner().invoke(main, ["copies"])
    assert copy.name in listed.output
    restored = CliRunner().invoke(main, ["copies", "--restore", copy.name])
    assert restored.exit_code == 0, restored.output
    assert rows_of(old) == before
    assert len(upgrade.copies(old)) == 2  # what stood there is kept, too


def test_a_copy_that_is_not_there_is_named(old: Path) -> None:
    with pytest.raises(CopyMissing, match="None is kept"):
        upgrade.restore_copy(old, "x.db")


def test_only_the_newest_copies_are_kept(old: Path) -> None:
    made = [upgrade.copy(old, f"{number:04}") for number in range(5)]
    assert upgrade.copies(old) == made[:1:-1]


def test_an_upgrade_that_would_lose_what_rows_belong_to_is_taken_back(
    old: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    before = rows_of(old)

    def loses(config: object, revision: str) -> None:
        from alembic.migration import MigrationContext
        from alembic.operations import Operations

        with Operations.context(MigrationContext.configure(config.attributes["connection"])):  # type: ignore[attr-defined]
            op.execute("DELETE FROM meeting WHERE id = 'id 1'")

    monkeypatch.setattr(command, "upgrade", loses)
    with pytest.raises(UpgradeFailed, match="minutes"):
        Database(old).migrate()
    assert rows_of(old) == before


def test_a_database_of_a_newer_version_is_left_alone(tmp_path: Path) -> None:
    path = newest(tmp_path)
    with closing(sqlite3.connect(path)) as connection, connection:
        connection.execute("UPDATE alembic_version SET version_num = '9999'")
    with pytest.raises(DatabaseTooNew, match="9999"):
        Database(path).migrate()
    assert upgrade.copies(path) == []


def test_what_is_removed_for_good_is_in_no_copy(old: Path) -> None:
    database = Database(old)
    database.migrate()
    with database.write() as session:
        session.add(Workspace(name="w"))
    database.forget()
    assert upgrade.copies(old) == []
    database.close()


def test_tables_keep_what_they_refer_to(tmp_path: Path) -> None:
    tables = {table.name for table in reflected(newest(tmp_path))}
    engine = create_engine(f"sqlite:///{tmp_path / 'newest.db'}")
    found = {key["referred_table"] for name in tables for key in inspect(engine).get_foreign_keys(name)}
    engine.dispose()
    assert found <= tables
