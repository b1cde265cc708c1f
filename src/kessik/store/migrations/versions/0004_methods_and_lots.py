"""Methods get versions of their own, and runs keep the one they were cut under; lots with what is
used of them.

The limits and schedule that stood with a trial become the first version of its method.
"""

import json
from datetime import UTC, datetime

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"

_RUN_COLUMNS = (
    ("method_id", "TEXT REFERENCES method(id)"),
    ("block", "INTEGER"),
    ("round", "INTEGER"),
    ("operator", "TEXT NOT NULL DEFAULT ''"),
    ("verifies_run_id", "TEXT"),
    ("lot_change", "TEXT NOT NULL DEFAULT ''"),
    ("bookings", "TEXT NOT NULL DEFAULT '[]'"),
)


def upgrade() -> None:
    _make_tables()
    for name, declared in _RUN_COLUMNS:
        op.execute(f"ALTER TABLE run ADD COLUMN {name} {declared}")
    op.execute("ALTER TABLE trial ADD COLUMN method_id TEXT REFERENCES method(id)")
    op.execute("ALTER TABLE trial ADD COLUMN blind_seed INTEGER")
    op.execute("ALTER TABLE trial ADD COLUMN unblinded_utc TEXT")
    _first_versions()
    for column in ("keen_gf", "dull_gf", "schedule", "check_every"):
        op.execute(f"ALTER TABLE trial DROP COLUMN {column}")
    op.execute("CREATE INDEX ix_run_method_id ON run (method_id)")


def _make_tables() -> None:
    op.execute(
        "CREATE TABLE method (id TEXT PRIMARY KEY NOT NULL, line_id TEXT NOT NULL, "
        "number INTEGER NOT NULL, "
        "body TEXT NOT NULL, made_utc TEXT NOT NULL, UNIQUE (line_id, number)) STRICT"
    )
    op.execute("CREATE INDEX ix_method_line_id ON method (line_id)")
    op.execute(
        "CREATE TABLE lot (id TEXT PRIMARY KEY NOT NULL, kind TEXT NOT NULL, name TEXT "
        "NOT NULL, unit TEXT NOT NULL, "
        "bought_amount REAL, bought_on TEXT NOT NULL, price REAL, currency TEXT NOT "
        "NULL, details TEXT NOT NULL, "
        "state TEXT NOT NULL, note TEXT NOT NULL, archived_utc TEXT) STRICT"
    )
    op.execute(
        "CREATE TABLE lot_correction (id TEXT PRIMARY KEY NOT NULL, lot_id TEXT NOT "
        "NULL REFERENCES lot(id), "
        "amount REAL NOT NULL, reason TEXT NOT NULL, made_utc TEXT NOT NULL) STRICT"
    )
    op.execute("CREATE INDEX ix_lot_correction_lot_id ON lot_correction (lot_id)")


def _first_versions() -> None:
    connection = op.get_bind()
    now = datetime.now(UTC).isoformat(timespec="seconds")
    rows = connection.execute(
        sa.text("SELECT id, keen_gf, dull_gf, schedule, check_every FROM trial")
    ).all()
    for trial_id, keen_gf, dull_gf, schedule, every in rows:
        body = {
            "school": "force_limit_rope",
            "name": "Force-limit rope series",
            "checks": [{"kind": "force"}],
            "stages": [
                {"name": "keen", "limit_gf": keen_gf},
                {"name": "dull", "limit_gf": dull_gf},
            ],
            "ends": [
                {
                    "kind": "limit",
                    "stage": "dull",
                    "confirm": "next_check" if schedule == "adaptive" else "same_count",
                }
            ],
            "schedule": schedule,
            "every": every,
        }
        method = {"id": f"{trial_id}-m1", "body": json.dumps(body), "now": now, "trial": trial_id}
        connection.execute(sa.text("INSERT INTO method VALUES (:id, :id, 1, :body, :now)"), method)
        connection.execute(sa.text("UPDATE trial SET method_id = :id WHERE id = :trial"), method)
        connection.execute(
            sa.text("UPDATE run SET method_id = :id WHERE trial_id = :trial"), method
        )
