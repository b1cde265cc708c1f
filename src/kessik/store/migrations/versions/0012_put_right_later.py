"""Results from paper, and what is put right later: who entered a run, traces of what was changed,
what is archived, what lies in the bin, and how sheets of results were read.
"""

from alembic import op

revision = "0012"
down_revision = "0011"

_STEPS = (
    "ALTER TABLE run ADD COLUMN from_paper TEXT NOT NULL DEFAULT ''",
    "CREATE TABLE archived (kind TEXT NOT NULL, owner_id TEXT NOT NULL,"
    " archived_utc TEXT NOT NULL, PRIMARY KEY (kind, owner_id)) STRICT",
    "CREATE TABLE trace (id TEXT PRIMARY KEY NOT NULL, kind TEXT NOT NULL,"
    " owner_id TEXT NOT NULL, trial_id TEXT NOT NULL, what TEXT NOT NULL, was TEXT, becomes TEXT,"
    " reason TEXT NOT NULL, made_utc TEXT NOT NULL) STRICT",
    "CREATE INDEX ix_trace_owner_id ON trace (owner_id)",
    "CREATE INDEX ix_trace_trial_id ON trace (trial_id)",
    "CREATE TABLE bin (id TEXT PRIMARY KEY NOT NULL, kind TEXT NOT NULL, owner_id TEXT NOT NULL,"
    " name TEXT NOT NULL, holds TEXT NOT NULL, reason TEXT NOT NULL, binned_utc TEXT NOT NULL,"
    " content BLOB NOT NULL) STRICT",
    "CREATE TABLE sheet_reading (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL,"
    " heads TEXT NOT NULL, body TEXT NOT NULL, used_utc TEXT NOT NULL) STRICT",
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
