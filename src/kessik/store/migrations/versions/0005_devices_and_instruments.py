"""Instruments with their reference checks, devices paired with this machine, and runs after a
strop-back.
"""

from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.execute(
        "CREATE TABLE instrument (id TEXT PRIMARY KEY NOT NULL, kind TEXT NOT NULL, "
        "name TEXT NOT NULL, "
        "address TEXT NOT NULL, baud INTEGER NOT NULL, unit TEXT NOT NULL, range_low "
        "REAL, range_high REAL, "
        "reference TEXT NOT NULL, in_use INTEGER NOT NULL, archived_utc TEXT) STRICT"
    )
    op.execute(
        "CREATE TABLE reference_check (id TEXT PRIMARY KEY NOT NULL, "
        "instrument_id TEXT NOT NULL REFERENCES instrument(id), readings TEXT NOT NULL, "
        "reference TEXT NOT NULL, "
        "note TEXT NOT NULL, made_utc TEXT NOT NULL, made_offset_minutes INTEGER NOT NULL) STRICT"
    )
    op.execute("CREATE INDEX ix_reference_check_instrument_id ON reference_check (instrument_id)")
    op.execute(
        "CREATE TABLE paired_device (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL, "
        "session_hash TEXT NOT NULL UNIQUE, paired_utc TEXT NOT NULL) STRICT"
    )
    op.execute("ALTER TABLE run ADD COLUMN after_strop_of TEXT REFERENCES run(id)")
    op.execute("ALTER TABLE trial ADD COLUMN cautions_seen_utc TEXT")
