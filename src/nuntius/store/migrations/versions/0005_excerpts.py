"""passages kept as excerpts."""

import sqlalchemy as sa
from alembic import op

import nuntius.store.models.base

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "excerpt",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("meeting_id", sa.String(length=16), nullable=False),
        sa.Column("user_id", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("label", sa.String(length=60), nullable=False),
        sa.Column("speakers", sa.JSON(), nullable=False),
        sa.Column("start", sa.Float(), nullable=False),
        sa.Column("end", sa.Float(), nullable=False),
        sa.Column("quote", sa.String(), nullable=False),
        sa.Column("created_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.ForeignKeyConstraint(
            ["meeting_id"], ["meeting.id"], name=op.f("fk_excerpt_meeting_id_meeting"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(["user_id"], ["user.id"], name=op.f("fk_excerpt_user_id_user")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_excerpt")),
    )
    op.create_index(op.f("ix_excerpt_meeting_id"), "excerpt", ["meeting_id"])


def downgrade() -> None:
    op.drop_table("excerpt")
