"""Alembic's entry: runs migrations on the connection that the configuration carries."""

from alembic import context

from nuntius.store.models import Base

context.configure(
    connection=context.config.attributes["connection"], target_metadata=Base.metadata, render_as_batch=True
)
with context.begin_transaction():
    context.run_migrations()
