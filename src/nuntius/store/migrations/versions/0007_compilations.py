"""passages put together to be heard as one."""

import sqlalchemy as sa
from alembic import op

import nuntius.store.models.base

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "compilation",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("user_id", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("sections", sa.JSON(), nullable=False),
        sa.Column("spoken", sa.Boolean(), nullable=False),
        sa.Column("created_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.ForeignKeyConstraint(["user_id"], ["user.id"], name=op.f("fk_compilation_user_id_user")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_compilation")),
    )
    op.create_index(op.f("ix_compilation_user_id"), "compilation", ["user_id"])
    op.create_table(
        "compiled_passage",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("compilation_id", sa.Integer(), nullable=False),
        sa.Column("meeting_id", sa.String(length=16), nullable=False),
        sa.Column("section", sa.Integer(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("start", sa.Float(), nullable=False),
        sa.Column("end", sa.Float(), nullable=False),
        sa.ForeignKeyConstraint(
            ["compilation_id"],
            ["compilation.id"],
            name=op.f("fk_compiled_passage_compilation_id_compilation"),
            ondelete="CASCADE",
        ),
        sa.ForeignKeyConstraint(
            ["meeting_id"], ["meeting.id"], name=op.f("fk_compiled_passage_meeting_id_meeting"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_compiled_passage")),
    )
    op.create_index(op.f("ix_compiled_passage_compilation_id"), "compiled_passage", ["compilation_id"])
    op.create_index(op.f("ix_compiled_passage_meeting_id"), "compiled_passage", ["meeting_id"])


def downgrade() -> None:
    op.drop_table("compiled_passage")
    op.drop_table("compilation")
