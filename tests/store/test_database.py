import threading
from pathlib import Path

from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import create_engine, text

from nuntius.store.database import Database
from nuntius.store.models import Base, Workspace


def test_migrations_make_the_tables_that_the_models_describe(tmp_path: Path) -> None:
    database = Database(tmp_path / "n.db")
    database.migrate()
    database.migrate()  # a second time changes nothing
    with create_engine(database.url).connect() as connection:
        context = MigrationContext.configure(connection, opts={"render_as_batch": True, "compare_type": False})
        assert compare_metadata(context, Base.metadata) == []
        assert connection.execute(text("pragma journal_mode")).scalar() == "wal"


def test_writers_wait_for_each_other(tmp_path: Path) -> None:
    database = Database(tmp_path / "n.db")
    database.migrate()

    def write() -> None:
        for _ in range(20):
            with database.write() as session:
                session.add(Workspace(name="w"))

    threads = [threading.Thread(target=write) for _ in range(4)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    with database.read() as session:
        assert session.query(Workspace).count() == 80


def test_a_failed_write_leaves_nothing(tmp_path: Path) -> None:
    database = Database(tmp_path / "n.db")
    database.migrate()
    try:
        with database.write() as session:
            session.add(Workspace(name="w"))
            session.flush()
            raise RuntimeError("in the middle")
    except RuntimeError:
        pass
    with database.read() as session:
        assert session.query(Workspace).count() == 0
