"""what in a line is worth a look."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("line") as batch:
        batch.add_column(sa.Column("doubts", sa.JSON(), nullable=False, server_default="[]"))


def downgrade() -> None:
    with op.batch_alter_table("line") as batch:
        batch.drop_column("doubts")
