"""What blades are made of: grades with their ranges, batches sent to an analyser, and its shots."""

from alembic import op

revision = "0010"
down_revision = "0009"

_STEPS = (
    "ALTER TABLE grade ADD COLUMN also TEXT NOT NULL DEFAULT '[]'",
    "ALTER TABLE grade ADD COLUMN standard TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE grade ADD COLUMN route TEXT NOT NULL DEFAULT ''",
    "ALTER TABLE grade ADD COLUMN ranges TEXT NOT NULL DEFAULT '[]'",
    "ALTER TABLE grade ADD COLUMN equivalents TEXT NOT NULL DEFAULT '[]'",
    "CREATE TABLE assay_batch (id TEXT PRIMARY KEY NOT NULL, name TEXT NOT NULL,"
    " owner TEXT NOT NULL, sent_on TEXT NOT NULL, back_on TEXT NOT NULL,"
    " analyser TEXT NOT NULL, operator TEXT NOT NULL, note TEXT NOT NULL,"
    " created_utc TEXT NOT NULL) STRICT",
    "CREATE TABLE assay_blade (batch_id TEXT NOT NULL, blade_id TEXT NOT NULL,"
    " place INTEGER NOT NULL, PRIMARY KEY (batch_id, blade_id),"
    " FOREIGN KEY(batch_id) REFERENCES assay_batch (id) ON DELETE CASCADE,"
    " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT",
    "CREATE TABLE assay_shot (id TEXT PRIMARY KEY NOT NULL, blade_id TEXT NOT NULL,"
    " batch_id TEXT NOT NULL, name TEXT NOT NULL, readings TEXT NOT NULL,"
    " surface TEXT NOT NULL, normalised TEXT NOT NULL, made_on TEXT NOT NULL,"
    " analyser TEXT NOT NULL, operator TEXT NOT NULL, struck TEXT NOT NULL,"
    " recorded_utc TEXT NOT NULL,"
    " FOREIGN KEY(blade_id) REFERENCES blade (id)) STRICT",
    "CREATE INDEX ix_assay_shot_blade_id ON assay_shot (blade_id)",
    "CREATE INDEX ix_assay_blade_blade_id ON assay_blade (blade_id)",
)
_OF_BLADE = "IN (SELECT trial_id FROM trial_blade WHERE blade_id = {row}.blade_id)"
_OF_ASSAYED = (
    "IN (SELECT trial_id FROM trial_blade JOIN assay_shot ON"
    " assay_shot.blade_id = trial_blade.blade_id)"
)
_RESTS_ON = (
    ("assay_shot", "assay_shot", _OF_BLADE),
    ("assay_blade", "assay_blade", _OF_BLADE),
    ("grade", "grade_assayed", _OF_ASSAYED),
)


def upgrade() -> None:
    for statement in _STEPS:
        op.execute(statement)
    for table, trigger, which in _RESTS_ON:
        for verb, row in (("INSERT", "NEW"), ("UPDATE", "NEW"), ("DELETE", "OLD")):
            op.execute(
                f"CREATE TRIGGER {trigger}_{verb.lower()} AFTER {verb} ON {table}"
                " BEGIN UPDATE revision SET number = number + 1"
                f" WHERE trial_id {which.format(row=row)}; END"
            )
