"""Alembic's entry: runs migrations on the database named by the configuration."""

from alembic import context
from sqlalchemy import create_engine

from nuntius.store.models import Base

url = context.config.get_main_option("sqlalchemy.url") or ""

with create_engine(url).connect() as connection:
    context.configure(connection=connection, target_metadata=Base.metadata, render_as_batch=True)
    with context.begin_transaction():
        context.run_migrations()
