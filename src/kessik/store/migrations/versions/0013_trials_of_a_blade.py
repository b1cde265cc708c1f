"""The trials of a blade are found without reading all of them: every change of an edge asks."""

from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    op.execute("CREATE INDEX ix_trial_blade_blade_id ON trial_blade (blade_id)")
