"""Standings kept: the last answer to each question about all trials."""

from alembic import op

revision = "0017"
down_revision = "0016"


def upgrade() -> None:
    op.execute(
        "CREATE TABLE board (question TEXT PRIMARY KEY NOT NULL, rests_on TEXT NOT NULL,"
        " asked_utc TEXT NOT NULL, answer TEXT NOT NULL, failed TEXT NOT NULL) STRICT"
    )
