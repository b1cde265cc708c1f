"""What hangs on a blade or a run is found without reading all there are: every change of an edge
asks for its trials, and a run that leaves for the runs that go on after it.
"""

from alembic import op

revision = "0013"
down_revision = "0012"


def upgrade() -> None:
    op.execute("CREATE INDEX ix_trial_blade_blade_id ON trial_blade (blade_id)")
    op.execute("CREATE INDEX ix_run_after_strop_of ON run (after_strop_of)")
