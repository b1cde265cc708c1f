"""A trial's plan is kept with it."""

from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.execute("ALTER TABLE trial ADD COLUMN plan TEXT NOT NULL DEFAULT '{}'")
