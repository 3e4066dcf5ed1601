"""people who are not their names, roles, sessions, invitations, activity, mail."""

import sqlalchemy as sa
from alembic import op

import nuntius.store.models.base
from nuntius.core.people import name_key

revision = "0011"
down_revision = "0010"
branch_labels = None
depends_on = None

Moment = nuntius.store.models.base.Moment


def upgrade() -> None:
    with op.batch_alter_table("user") as batch:
        batch.add_column(sa.Column("role", sa.String(length=20), nullable=False, server_default="member"))
        batch.add_column(sa.Column("totp_secret", sa.String(length=64), nullable=True))
        batch.add_column(sa.Column("totp_step", sa.Integer(), nullable=False, server_default="0"))
        batch.add_column(sa.Column("recovery_hashes", sa.JSON(), nullable=False, server_default="[]"))
        batch.add_column(sa.Column("ended_at", Moment(), nullable=True))
        batch.drop_column("session_key")
    with op.batch_alter_table("person") as batch:
        batch.add_column(sa.Column("name_key", sa.String(length=200), nullable=False, server_default=""))
        batch.add_column(sa.Column("distinction", sa.String(length=80), nullable=False, server_default=""))
        batch.add_column(sa.Column("removed_at", Moment(), nullable=True))
        batch.add_column(sa.Column("merged_into", sa.Integer(), nullable=True))
        batch.create_foreign_key("fk_person_merged_into_person", "person", ["merged_into"], ["id"])
        batch.create_index(batch.f("ix_person_name_key"), ["name_key"])
    for table in ("template", "term", "ready_question"):
        with op.batch_alter_table(table) as batch:
            batch.add_column(sa.Column("made_by", sa.Integer(), nullable=True))
            batch.create_foreign_key(f"fk_{table}_made_by_user", "user", ["made_by"], ["id"])
    with op.batch_alter_table("room") as batch:
        batch.add_column(sa.Column("announced_elsewhere", sa.String(length=200), nullable=False, server_default=""))
    with op.batch_alter_table("consent") as batch:
        batch.alter_column("ticked_by", existing_type=sa.Integer(), nullable=True)
    _new_tables()
    _fill()


def _fill() -> None:
    """The first account of each workspace administers it; names that two people have get a number each."""
    op.execute("UPDATE user SET role = 'administrator' WHERE id IN (SELECT min(id) FROM user GROUP BY workspace_id)")
    op.execute("UPDATE template SET made_by = changed_by")
    connection, seen = op.get_bind(), dict[tuple[int, str], int]()
    people = connection.execute(
        sa.text("SELECT id, workspace_id, name FROM person ORDER BY user_id IS NULL, id")  # accounts keep the bare name
    ).all()
    for number, workspace, name in people:
        key = name_key(name)
        seen[workspace, key] = seen.get((workspace, key), 0) + 1
        distinction = str(seen[workspace, key]) if seen[workspace, key] > 1 else ""
        connection.execute(
            sa.text("UPDATE person SET name_key = :key, distinction = :distinction WHERE id = :number"),
            {"key": key, "distinction": distinction, "number": number},
        )


def _new_tables() -> None:
    op.create_table(
        "merging",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("workspace_id", sa.Integer(), sa.ForeignKey("workspace.id"), nullable=False, index=True),
        sa.Column("kept_id", sa.Integer(), sa.ForeignKey("person.id"), nullable=False),
        sa.Column("merged_id", sa.Integer(), sa.ForeignKey("person.id"), nullable=False),
        sa.Column("moved", sa.JSON(), nullable=False),
        sa.Column("made_at", Moment(), nullable=False),
        sa.Column("undone_at", Moment(), nullable=True),
    )
    op.create_table(
        "access_token",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("purpose", sa.String(length=20), nullable=False),
        sa.Column("token_hash", sa.String(length=64), nullable=False, unique=True),
        sa.Column("person_id", sa.Integer(), sa.ForeignKey("person.id"), nullable=False, index=True),
        sa.Column("email", sa.String(length=320), nullable=False),
        sa.Column("role", sa.String(length=20), nullable=False),
        sa.Column("made_by", sa.Integer(), sa.ForeignKey("user.id"), nullable=True),
        sa.Column("made_at", Moment(), nullable=False),
        sa.Column("expires_at", Moment(), nullable=False),
        sa.Column("used_at", Moment(), nullable=True),
    )
    op.create_table(
        "sign_in_session",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("user_id", sa.Integer(), sa.ForeignKey("user.id"), nullable=False, index=True),
        sa.Column("token_hash", sa.String(length=64), nullable=False, unique=True),
        sa.Column("address", sa.String(length=64), nullable=False),
        sa.Column("agent", sa.String(length=200), nullable=False),
        sa.Column("made_at", Moment(), nullable=False),
        sa.Column("seen_at", Moment(), nullable=False),
    )
    op.create_table(
        "sign_in_failures",
        sa.Column("key", sa.String(length=400), primary_key=True),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("last_at", Moment(), nullable=False),
    )
    op.create_table(
        "activity",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("workspace_id", sa.Integer(), sa.ForeignKey("workspace.id"), nullable=False, index=True),
        sa.Column("at", Moment(), nullable=False, index=True),
        sa.Column("by", sa.String(length=200), nullable=False),
        sa.Column("what", sa.String(length=40), nullable=False),
        sa.Column("about", sa.String(length=400), nullable=False),
        sa.Column("address", sa.String(length=64), nullable=False),
    )
    op.create_table(
        "mail",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("recipient", sa.String(length=320), nullable=False),
        sa.Column("subject", sa.String(length=200), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("state", sa.String(length=12), nullable=False, index=True),
        sa.Column("tries", sa.Integer(), nullable=False),
        sa.Column("error", sa.String(length=300), nullable=False),
        sa.Column("made_at", Moment(), nullable=False),
        sa.Column("due_at", Moment(), nullable=False),
    )


def downgrade() -> None:
    for table in ("mail", "activity", "sign_in_failures", "sign_in_session", "access_token", "merging"):
        op.drop_table(table)
    with op.batch_alter_table("consent") as batch:
        batch.alter_column("ticked_by", existing_type=sa.Integer(), nullable=False)
    with op.batch_alter_table("room") as batch:
        batch.drop_column("announced_elsewhere")
    for table in ("template", "term", "ready_question"):
        with op.batch_alter_table(table) as batch:
            batch.drop_constraint(f"fk_{table}_made_by_user", type_="foreignkey")
            batch.drop_column("made_by")
    with op.batch_alter_table("person") as batch:
        batch.drop_index("ix_person_name_key")
        batch.drop_constraint("fk_person_merged_into_person", type_="foreignkey")
        for column in ("merged_into", "removed_at", "distinction", "name_key"):
            batch.drop_column(column)
    with op.batch_alter_table("user") as batch:
        for column in ("ended_at", "recovery_hashes", "totp_step", "totp_secret", "role"):
            batch.drop_column(column)
        batch.add_column(sa.Column("session_key", sa.String(length=32), nullable=False, server_default=""))
