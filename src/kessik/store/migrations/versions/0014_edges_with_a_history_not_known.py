"""An edge whose number is only known to be at least so much: what was sharpened before nobody
knows.
"""

from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.execute("ALTER TABLE edge ADD COLUMN number_is_least INTEGER NOT NULL DEFAULT 0")
