"""finer chapters on request."""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("minutes") as batch:
        batch.add_column(sa.Column("fine", sa.Boolean(), nullable=False, server_default=sa.false()))


def downgrade() -> None:
    with op.batch_alter_table("minutes") as batch:
        batch.drop_column("fine")
