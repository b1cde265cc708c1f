"""A trial compares arms: an edge is prepared as one, a run may be cut as another, and a trial
states which of them each blade carries. Until now every blade was its own arm.
"""

from alembic import op

revision = "0009"
down_revision = "0008"

_STEPS = (
    "ALTER TABLE edge ADD COLUMN arm TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE run ADD COLUMN arm TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE trial_blade ADD COLUMN arms TEXT NOT NULL DEFAULT '[]'",
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
