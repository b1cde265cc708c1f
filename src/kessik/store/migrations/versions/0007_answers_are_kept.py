"""Answers are kept, each with the revision of its trial that it was worked out from.

Triggers raise a trial's revision with everything its answer rests on, whoever writes it.
"""

from alembic import op

revision = "0007"
down_revision = "0006"

_TABLES = (
    "CREATE TABLE revision (trial_id TEXT PRIMARY KEY NOT NULL, number INTEGER NOT NULL,"
    " FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE) STRICT",
    "CREATE TABLE answer (trial_id TEXT PRIMARY KEY NOT NULL,"
    " revision INTEGER NOT NULL, version TEXT NOT NULL,"
    " sealed INTEGER NOT NULL, under_way INTEGER NOT NULL,"
    " summary TEXT NOT NULL, today TEXT NOT NULL,"
    " verdict TEXT NOT NULL, failed TEXT NOT NULL,"
    " FOREIGN KEY(trial_id) REFERENCES trial (id) ON DELETE CASCADE) STRICT",
    "INSERT INTO revision SELECT id, 1 FROM trial",
)
_OF_TRIAL = "= {row}.trial_id"
_OF_RUN = "= (SELECT trial_id FROM run WHERE id = {row}.run_id)"
_OF_BLADE = "IN (SELECT trial_id FROM trial_blade WHERE blade_id = {row}.{blade})"
_OF_GRADE = (
    "IN (SELECT trial_id FROM trial_blade JOIN blade ON blade.id = blade_id"
    " WHERE claimed_grade = {row}.name)"
)
_OF_LOT = "IN (SELECT trial_id FROM run WHERE instr(bookings, {row}.id) > 0)"
_RESTS_ON = {
    "trial_blade": _OF_TRIAL,
    "run": _OF_TRIAL,
    "event": _OF_RUN,
    "blade": _OF_BLADE.replace("{blade}", "id"),
    "edge": _OF_BLADE.replace("{blade}", "blade_id"),
    "measurement": _OF_BLADE.replace("{blade}", "blade_id"),
    "grade": _OF_GRADE,
    "lot": _OF_LOT,
}


def upgrade() -> None:
    for statement in _TABLES:
        op.execute(statement)
    op.execute(
        "CREATE TRIGGER trial_is_new AFTER INSERT ON trial"
        " BEGIN INSERT INTO revision VALUES (NEW.id, 1); END"
    )
    op.execute(
        "CREATE TRIGGER trial_changed AFTER UPDATE ON trial"
        " BEGIN UPDATE revision SET number = number + 1 WHERE trial_id = NEW.id; END"
    )
    for table, which in _RESTS_ON.items():
        for verb, row in (("INSERT", "NEW"), ("UPDATE", "NEW"), ("DELETE", "OLD")):
            op.execute(
                f"CREATE TRIGGER {table}_{verb.lower()} AFTER {verb} ON {table}"
                " BEGIN UPDATE revision SET number = number + 1"
                f" WHERE trial_id {which.format(row=row)}; END"
            )
