"""lengths of minutes, and lines thrown out."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("minutes") as batch:
        batch.add_column(sa.Column("length", sa.String(length=10), nullable=False, server_default="standard"))
    with op.batch_alter_table("line") as batch:
        batch.add_column(sa.Column("thrown_out", sa.String(length=40), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("line") as batch:
        batch.drop_column("thrown_out")
    with op.batch_alter_table("minutes") as batch:
        batch.drop_column("length")
