"""Energies to break and hours wet without a soak, of a blade or a grade; what an analyser read of a
reference alloy before a batch; which device did what, and what it may do.
"""

from alembic import op

revision = "0016"
down_revision = "0015"

_STEPS = (
    "CREATE TABLE toughness (id TEXT PRIMARY KEY NOT NULL, blade_id TEXT, grade TEXT NOT NULL,"
    " said TEXT NOT NULL, struck TEXT NOT NULL, recorded_utc TEXT NOT NULL,"
    " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT",
    "CREATE INDEX ix_toughness_blade_id ON toughness (blade_id)",
    "CREATE INDEX ix_toughness_grade ON toughness (grade)",
    "CREATE TABLE field_exposure (id TEXT PRIMARY KEY NOT NULL, blade_id TEXT NOT NULL,"
    " said TEXT NOT NULL, struck TEXT NOT NULL, recorded_utc TEXT NOT NULL,"
    " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT",
    "CREATE INDEX ix_field_exposure_blade_id ON field_exposure (blade_id)",
    "ALTER TABLE assay_batch ADD COLUMN reference TEXT",
    "ALTER TABLE trace ADD COLUMN by_device TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE bin ADD COLUMN by_device TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE paired_device ADD COLUMN grants TEXT NOT NULL DEFAULT '[]'",
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
