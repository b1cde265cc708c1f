"""What was practised with the trainers, the rater's error learned from it, and gauge studies."""

from alembic import op

revision = "0019"
down_revision = "0018"


def upgrade() -> None:
    op.execute(
        "CREATE TABLE training (id TEXT PRIMARY KEY NOT NULL, kind TEXT NOT NULL,"
        " seed INTEGER NOT NULL, answers TEXT NOT NULL, judged TEXT NOT NULL,"
        " made_utc TEXT NOT NULL, made_offset_minutes INTEGER NOT NULL) STRICT"
    )
    op.execute(
        "CREATE TABLE rater_error (id TEXT PRIMARY KEY NOT NULL, points REAL NOT NULL,"
        " bias_points REAL NOT NULL, rounds INTEGER NOT NULL, agreed_utc TEXT NOT NULL) STRICT"
    )
    op.execute(
        "CREATE TABLE gauge_study (id TEXT PRIMARY KEY NOT NULL, instrument TEXT NOT NULL,"
        " measures TEXT NOT NULL, unit TEXT NOT NULL, readings TEXT NOT NULL,"
        " made_utc TEXT NOT NULL, made_offset_minutes INTEGER NOT NULL,"
        " in_use INTEGER NOT NULL) STRICT"
    )
