"""what a file that is brought in with others is."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("upload") as table:
        table.add_column(sa.Column("role", sa.String(length=12), nullable=False, server_default="recording"))


def downgrade() -> None:
    with op.batch_alter_table("upload") as table:
        table.drop_column("role")
