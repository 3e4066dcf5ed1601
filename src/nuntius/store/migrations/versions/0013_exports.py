"""files that are made in the background; choices of work on a meeting."""

import sqlalchemy as sa
from alembic import op

from nuntius.store.models.base import Moment

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "export",
        sa.Column("id", sa.String(length=16), nullable=False),
        sa.Column("user_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(length=30), nullable=False),
        sa.Column("targets", sa.JSON(), nullable=False),
        sa.Column("arguments", sa.JSON(), nullable=True),
        sa.Column("address", sa.String(), nullable=False),
        sa.Column("title", sa.String(length=200), nullable=False),
        sa.Column("digest", sa.String(length=64), nullable=True),
        sa.Column("size", sa.Integer(), nullable=True),
        sa.Column("state", sa.String(length=12), nullable=False),
        sa.Column("error", sa.String(), nullable=True),
        sa.Column("worker", sa.String(length=120), nullable=True),
        sa.Column("beat_at", Moment(), nullable=True),
        sa.Column("created_at", Moment(), nullable=False),
        sa.Column("started_at", Moment(), nullable=True),
        sa.Column("updated_at", Moment(), nullable=False),
        sa.ForeignKeyConstraint(["user_id"], ["user.id"], name=op.f("fk_export_user_id_user"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_export")),
    )
    for column in ("user_id", "digest", "state", "updated_at"):
        op.create_index(op.f(f"ix_export_{column}"), "export", [column])
    op.create_table(
        "export_meeting",
        sa.Column("export_id", sa.String(length=16), nullable=False),
        sa.Column("meeting_id", sa.String(length=16), nullable=False),
        sa.ForeignKeyConstraint(
            ["export_id"], ["export.id"], name=op.f("fk_export_meeting_export_id_export"), ondelete="CASCADE"
        ),
        sa.ForeignKeyConstraint(
            ["meeting_id"], ["meeting.id"], name=op.f("fk_export_meeting_meeting_id_meeting"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("export_id", "meeting_id", name=op.f("pk_export_meeting")),
    )
    op.create_index(op.f("ix_export_meeting_meeting_id"), "export_meeting", ["meeting_id"])
    with op.batch_alter_table("job") as batch:
        batch.add_column(sa.Column("choices", sa.JSON(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("job") as batch:
        batch.drop_column("choices")
    op.drop_table("export_meeting")
    op.drop_table("export")
