"""A check sum over each event, and marks of what is still being brought in."""

import sqlalchemy as sa
from alembic import op

from kessik.store.check_sums import check_sum

revision = "0006"
down_revision = "0005"

_SUMMED = (
    "id, run_id, kind, device, device_sequence, last_seen_position, count_at, client_time, payload"
)


def upgrade() -> None:
    op.execute("ALTER TABLE event ADD COLUMN check_sum INTEGER")
    op.execute("ALTER TABLE trial ADD COLUMN arriving TEXT")
    op.execute("ALTER TABLE blade ADD COLUMN arriving TEXT")
    connection = op.get_bind()
    found = connection.exec_driver_sql(f"SELECT position, {_SUMMED} FROM event").all()
    sums = [{"position": row[0], "sum": check_sum(*row[1:])} for row in found]
    if sums:
        connection.execute(
            sa.text("UPDATE event SET check_sum = :sum WHERE position = :position"), sums
        )
