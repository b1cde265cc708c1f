"""Pictures belong to whatever shows them, shots that an analyser wrote wait to be used, and a run
may say the gap of its checks.
"""

from alembic import op

revision = "0008"
down_revision = "0007"

_HASH = "CASE WHEN json_valid(payload) THEN json_extract(payload, '$.picture') END"
_SHOWN = f"kind = 'outcome' AND typeof({_HASH}) = 'text' AND length({_HASH}) = 64"
_STEPS = (
    "CREATE TABLE picture (hash TEXT PRIMARY KEY NOT NULL, media_type TEXT NOT NULL,"
    " width_px INTEGER NOT NULL, height_px INTEGER NOT NULL,"
    " taken_at TEXT NOT NULL, added_utc TEXT NOT NULL) STRICT",
    "CREATE TABLE picture_use (hash TEXT NOT NULL, shown_by TEXT NOT NULL,"
    " owner_id TEXT NOT NULL, caption TEXT NOT NULL, added_utc TEXT NOT NULL,"
    " PRIMARY KEY (shown_by, owner_id, hash),"
    " FOREIGN KEY(hash) REFERENCES picture (hash)) STRICT",
    "CREATE TABLE shot_file (id TEXT PRIMARY KEY NOT NULL, instrument_id TEXT NOT NULL,"
    " name TEXT NOT NULL, read_utc TEXT NOT NULL, rows TEXT NOT NULL) STRICT",
    # The sizes of older pictures are in their files; 0 says that nobody looked.
    "INSERT OR IGNORE INTO picture SELECT hash, media_type, 0, 0, '', added_utc FROM photo",
    "INSERT INTO picture_use SELECT hash, 'blade', blade_id, caption, added_utc FROM photo",
    f"INSERT OR IGNORE INTO picture SELECT {_HASH}, '', 0, 0, '', server_utc FROM event"
    f" WHERE {_SHOWN}",
    f"INSERT OR IGNORE INTO picture_use SELECT {_HASH}, 'event', id, '', server_utc FROM event"
    f" WHERE {_SHOWN}",
    "DROP TABLE photo",
    "ALTER TABLE run ADD COLUMN check_every REAL",
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
