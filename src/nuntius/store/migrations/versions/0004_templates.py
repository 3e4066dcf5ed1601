"""templates, vocabulary, ready questions; minutes in sections."""

import sqlalchemy as sa
from alembic import op

import nuntius.store.models.base

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None

GENERAL = '[["Notes", ""], ["Decisions", ""], ["Actions", ""], ["Still open", ""], ["What was said", "chapter"]]'
PLACES = (
    "UPDATE line SET place = CASE WHEN kind = 'note' THEN 0 WHEN kind = 'decision' THEN 1 WHEN kind = 'action' THEN 2 "
    "WHEN kind = 'question' AND state = 'open' THEN 3 ELSE 4 END"
)


def upgrade() -> None:
    op.create_table(
        "template",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("workspace_id", sa.Integer(), sa.ForeignKey("workspace.id"), nullable=False),
        sa.Column("name", sa.String(length=200), nullable=False),
        sa.Column("body", sa.JSON(), nullable=False),
        sa.Column("changed_by", sa.Integer(), sa.ForeignKey("user.id"), nullable=False),
        sa.Column("changed_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.UniqueConstraint("workspace_id", "name"),
    )
    op.create_table(
        "term",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("workspace_id", sa.Integer(), sa.ForeignKey("workspace.id"), nullable=False),
        sa.Column("text", sa.String(length=200), nullable=False),
        sa.Column("heard", sa.JSON(), nullable=False),
        sa.Column("refused", sa.JSON(), nullable=False),
        sa.Column("made_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.UniqueConstraint("workspace_id", "text"),
    )
    op.create_table(
        "ready_question",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("workspace_id", sa.Integer(), sa.ForeignKey("workspace.id"), nullable=False),
        sa.Column("text", sa.String(length=500), nullable=False),
        sa.Column("made_at", nuntius.store.models.base.Moment(), nullable=False),
        sa.UniqueConstraint("workspace_id", "text"),
    )
    with op.batch_alter_table("meeting") as batch:
        batch.add_column(sa.Column("template_id", sa.Integer(), nullable=True))
        batch.create_foreign_key("fk_meeting_template", "template", ["template_id"], ["id"], ondelete="SET NULL")
    with op.batch_alter_table("minutes") as batch:
        batch.add_column(sa.Column("sections", sa.JSON(), nullable=False, server_default=GENERAL))
        batch.add_column(sa.Column("remark", sa.String(), nullable=False, server_default=""))
        batch.add_column(sa.Column("detailed", sa.JSON(), nullable=False, server_default="[]"))
    with op.batch_alter_table("line") as batch:
        batch.add_column(sa.Column("place", sa.Integer(), nullable=False, server_default="0"))
    op.execute(PLACES)


def downgrade() -> None:
    with op.batch_alter_table("line") as batch:
        batch.drop_column("place")
    with op.batch_alter_table("minutes") as batch:
        batch.drop_column("detailed")
        batch.drop_column("remark")
        batch.drop_column("sections")
    with op.batch_alter_table("meeting") as batch:
        batch.drop_constraint("fk_meeting_template", type_="foreignkey")
        batch.drop_column("template_id")
    for table in ("ready_question", "term", "template"):
        op.drop_table(table)
