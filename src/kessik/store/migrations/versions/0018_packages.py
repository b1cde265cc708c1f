"""Packages of other testers: who they are, which trials came from whom, and when; the last
report of each trial, uses that blades are chosen for, care of blades, and to whom they are lent.
"""

from alembic import op

revision = "0018"
down_revision = "0017"


def upgrade() -> None:
    op.execute(
        "CREATE TABLE tester (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL,"
        " is_here INTEGER NOT NULL) STRICT"
    )
    op.execute(
        "CREATE TABLE trial_origin (trial_id TEXT PRIMARY KEY NOT NULL, tester_id TEXT NOT NULL,"
        " made_utc TEXT NOT NULL, content TEXT NOT NULL,"
        " FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE,"
        " FOREIGN KEY(tester_id) REFERENCES tester (id)) STRICT"
    )
    op.execute("CREATE INDEX ix_trial_origin_tester_id ON trial_origin (tester_id)")
    op.execute(
        "CREATE TABLE same_blade (one_id TEXT NOT NULL, other_id TEXT NOT NULL,"
        " is_same INTEGER NOT NULL, said_utc TEXT NOT NULL,"
        " PRIMARY KEY (one_id, other_id),"
        " FOREIGN KEY(one_id) REFERENCES blade (id) ON DELETE CASCADE,"
        " FOREIGN KEY(other_id) REFERENCES blade (id) ON DELETE CASCADE) STRICT"
    )
    op.execute(
        "CREATE TABLE report_made (trial_id TEXT PRIMARY KEY NOT NULL, content TEXT NOT NULL,"
        " made_utc TEXT NOT NULL,"
        " FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE) STRICT"
    )
    op.execute(
        "CREATE TABLE blade_use (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL,"
        " body TEXT NOT NULL, changed_utc TEXT NOT NULL) STRICT"
    )
    op.execute(
        "CREATE TABLE care (id TEXT PRIMARY KEY NOT NULL, blade_id TEXT NOT NULL,"
        " said TEXT NOT NULL, struck TEXT NOT NULL, recorded_utc TEXT NOT NULL,"
        " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT"
    )
    op.execute(
        "CREATE TABLE kept_elsewhere (kind TEXT NOT NULL, owner_id TEXT NOT NULL,"
        " tester_id TEXT NOT NULL, PRIMARY KEY (kind, owner_id),"
        " FOREIGN KEY(tester_id) REFERENCES tester (id)) STRICT"
    )
    op.execute("CREATE INDEX ix_kept_elsewhere_tester_id ON kept_elsewhere (tester_id)")
    op.execute("CREATE INDEX ix_care_blade_id ON care (blade_id)")
    op.execute("ALTER TABLE blade ADD COLUMN lent_to TEXT NOT NULL DEFAULT ''")
    op.execute("CREATE INDEX ix_same_blade_other_id ON same_blade (other_id)")
