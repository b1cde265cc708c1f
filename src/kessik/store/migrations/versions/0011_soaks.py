"""Soaks: coupons, what was done to them, and looks."""

from alembic import op

revision = "0011"
down_revision = "0010"

_STEPS = (
    "CREATE TABLE soak (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL, question TEXT NOT NULL,"
    " factor TEXT NOT NULL, method TEXT NOT NULL, salt TEXT NOT NULL, water TEXT NOT NULL,"
    " note TEXT NOT NULL, let_go TEXT NOT NULL, started_utc TEXT NOT NULL,"
    " started_offset INTEGER NOT NULL, created_utc TEXT NOT NULL) STRICT",
    "CREATE TABLE soak_coupon (id TEXT PRIMARY KEY NOT NULL, soak_id TEXT NOT NULL,"
    " blade_id TEXT, place INTEGER NOT NULL, said TEXT NOT NULL,"
    " FOREIGN KEY(soak_id) REFERENCES soak (id),"
    " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT",
    "CREATE INDEX ix_soak_coupon_soak_id ON soak_coupon (soak_id)",
    "CREATE INDEX ix_soak_coupon_blade_id ON soak_coupon (blade_id)",
    "CREATE TABLE soak_act (id TEXT PRIMARY KEY NOT NULL, soak_id TEXT NOT NULL,"
    " at_utc TEXT NOT NULL, at_offset INTEGER NOT NULL, said TEXT NOT NULL, struck TEXT NOT NULL,"
    " recorded_utc TEXT NOT NULL, FOREIGN KEY(soak_id) REFERENCES soak (id)) STRICT",
    "CREATE INDEX ix_soak_act_soak_id ON soak_act (soak_id)",
    "CREATE TABLE soak_look (id TEXT PRIMARY KEY NOT NULL, soak_id TEXT NOT NULL,"
    " coupon_id TEXT NOT NULL, at_utc TEXT NOT NULL, at_offset INTEGER NOT NULL,"
    " said TEXT NOT NULL, measuring TEXT, strip BLOB, struck TEXT NOT NULL,"
    " recorded_utc TEXT NOT NULL,"
    " FOREIGN KEY(soak_id) REFERENCES soak (id),"
    " FOREIGN KEY(coupon_id) REFERENCES soak_coupon (id)) STRICT",
    "CREATE INDEX ix_soak_look_soak_id ON soak_look (soak_id)",
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
