"""heartbeats of worker and listener."""

import sqlalchemy as sa
from alembic import op

import nuntius.store.models.base

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "heartbeat",
        sa.Column("process", sa.String(length=120), nullable=False),
        sa.Column("role", sa.String(length=20), nullable=False),
        sa.Column("seen_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.PrimaryKeyConstraint("process", name=op.f("pk_heartbeat")),
    )


def downgrade() -> None:
    op.drop_table("heartbeat")
