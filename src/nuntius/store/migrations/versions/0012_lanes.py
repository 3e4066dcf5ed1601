"""lanes of jobs, jobs put away, series of meetings."""

import sqlalchemy as sa
from alembic import op

from nuntius.core.series import series_of

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None

meeting = sa.table("meeting", sa.column("id", sa.String), sa.column("title", sa.String), sa.column("series", sa.String))


def upgrade() -> None:
    with op.batch_alter_table("job") as batch:
        batch.add_column(sa.Column("lane", sa.String(length=8), nullable=False, server_default="long"))
        batch.add_column(sa.Column("put_away", sa.Boolean(), nullable=False, server_default=sa.false()))
        batch.create_index(op.f("ix_job_updated_at"), ["updated_at"])
    with op.batch_alter_table("meeting") as batch:
        batch.add_column(sa.Column("series", sa.String(length=200), nullable=False, server_default=""))
        batch.create_index(op.f("ix_meeting_series"), ["series"])
    connection = op.get_bind()
    for key, title in connection.execute(sa.select(meeting.c.id, meeting.c.title)).tuples().all():
        connection.execute(meeting.update().where(meeting.c.id == key).values(series=series_of(title)))


def downgrade() -> None:
    with op.batch_alter_table("meeting") as batch:
        batch.drop_index(op.f("ix_meeting_series"))
        batch.drop_column("series")
    with op.batch_alter_table("job") as batch:
        batch.drop_index(op.f("ix_job_updated_at"))
        batch.drop_column("put_away")
        batch.drop_column("lane")
