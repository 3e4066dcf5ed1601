"""lines by hand: progress of tasks, remarks, what a person set; numbers of lines are never used again; earlier minutes."""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("line", recreate="always", table_kwargs={"sqlite_autoincrement": True}) as batch:
        batch.add_column(sa.Column("progress", sa.String(length=10), nullable=False, server_default="open"))
        batch.add_column(sa.Column("remark", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("set_by_person", sa.JSON(), nullable=False, server_default="[]"))
        batch.add_column(sa.Column("made_by", sa.Integer(), nullable=True))
        batch.add_column(sa.Column("joined", sa.JSON(), nullable=False, server_default="[]"))
        batch.create_foreign_key(op.f("fk_line_made_by_user"), "user", ["made_by"], ["id"])
    # what the talk itself says is done is done
    op.execute("UPDATE line SET progress = 'done' WHERE kind = 'action' AND state = 'settled'")
    op.create_table(
        "minutes_version",
        sa.Column("id", sa.Integer(), nullable=False),
        sa.Column("meeting_id", sa.String(length=16), nullable=False),
        sa.Column("made_at", sa.DateTime(), nullable=False),
        sa.Column("replaced_at", sa.DateTime(), nullable=False),
        sa.Column("length", sa.String(length=10), nullable=False),
        sa.Column("sections", sa.JSON(), nullable=False),
        sa.Column("lines", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["meeting_id"], ["meeting.id"], name=op.f("fk_minutes_version_meeting_id_meeting"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_minutes_version")),
    )
    op.create_index(op.f("ix_minutes_version_meeting_id"), "minutes_version", ["meeting_id"])


def downgrade() -> None:
    op.drop_index(op.f("ix_minutes_version_meeting_id"), table_name="minutes_version")
    op.drop_table("minutes_version")
    with op.batch_alter_table("line", recreate="always") as batch:
        batch.drop_constraint(op.f("fk_line_made_by_user"), type_="foreignkey")
        for name in ("joined", "made_by", "set_by_person", "remark", "progress"):
            batch.drop_column(name)
