"""The shelf: facts become measurements with a standing; edges get their regime; blades a mark, loan
and archive.

What stood in columns of blades and edges, or was kept unused from files, becomes the first
measurement of each fact.
"""

import json
from typing import Any
from uuid import NAMESPACE_URL, uuid5

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"

_BLADE_COLUMNS = (
    ("mark", "INTEGER NOT NULL DEFAULT 0"),
    ("owner", "TEXT NOT NULL DEFAULT ''"),
    ("price", "TEXT NOT NULL DEFAULT ''"),
    ("loan_from", "TEXT NOT NULL DEFAULT ''"),
    ("loan_due", "TEXT NOT NULL DEFAULT ''"),
    ("loan_returned", "TEXT NOT NULL DEFAULT ''"),
    ("heat_treatment", "TEXT NOT NULL DEFAULT '{}'"),
    ("origin", "TEXT NOT NULL DEFAULT ''"),
    ("archived_utc", "TEXT"),
)
_EDGE_COLUMNS = (
    ("made_on", "TEXT NOT NULL DEFAULT ''"),
    ("regime", "TEXT NOT NULL DEFAULT ''"),
    ("recipe_id", "TEXT"),
    ("steps", "TEXT NOT NULL DEFAULT '[]'"),
    ("minutes", "REAL"),
    ("trouble", "TEXT NOT NULL DEFAULT ''"),
    ("burr_check", "TEXT NOT NULL DEFAULT ''"),
    ("lamp_check", "TEXT NOT NULL DEFAULT ''"),
    ("steel_removed_mm", "REAL"),
    ("factory", "INTEGER NOT NULL DEFAULT 0"),
    ("damage", "TEXT NOT NULL DEFAULT '[]'"),
    ("zones", "TEXT NOT NULL DEFAULT '[]'"),
    ("zones_overlap", "INTEGER NOT NULL DEFAULT 0"),
    ("overrule", "INTEGER"),
    ("overrule_reason", "TEXT NOT NULL DEFAULT ''"),
)
# trials begun before there was a rule go on as they were: every edge counts
_TRIAL_COLUMNS = (
    ("effects", "TEXT NOT NULL DEFAULT '{}'"),
    ("let_go", "TEXT NOT NULL DEFAULT '[]'"),
    ("scale_edge_length", "INTEGER NOT NULL DEFAULT 0"),
    ("settled_rule", """TEXT NOT NULL DEFAULT '{"kind":"every_edge"}'"""),
)
_WORDS = ("grind", "profile", "coating")
_EDGE_NUMBERS = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm")


def upgrade() -> None:
    _make_tables()
    for table, columns in (
        ("blade", _BLADE_COLUMNS),
        ("edge", _EDGE_COLUMNS),
        ("trial", _TRIAL_COLUMNS),
    ):
        for name, declared in columns:
            op.execute(f"ALTER TABLE {table} ADD COLUMN {name} {declared}")
    op.execute("ALTER TABLE trial_blade ADD COLUMN role TEXT NOT NULL DEFAULT ''")
    _move_blade_facts()
    _move_edge_facts()
    for column in ("hardness_hrc", "hardness_standing", "edge_length_mm"):
        op.execute(f"ALTER TABLE blade DROP COLUMN {column}")
    for column in _EDGE_NUMBERS:
        op.execute(f"ALTER TABLE edge DROP COLUMN {column}")


def _make_tables() -> None:
    op.create_table(
        "measurement",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("blade_id", sa.Text(), nullable=False),
        sa.Column("edge_id", sa.Text(), nullable=True),
        sa.Column("quantity", sa.Text(), nullable=False),
        sa.Column("value", sa.REAL(), nullable=True),
        sa.Column("words", sa.Text(), nullable=False),
        sa.Column("standing", sa.Text(), nullable=False),
        sa.Column("made_on", sa.Text(), nullable=False),
        sa.Column("instrument", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("details", sa.Text(), nullable=False),
        sa.Column("recorded_utc", sa.Text(), nullable=False),
        sa.Column("struck", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["blade_id"], ["blade.id"]),
        sa.ForeignKeyConstraint(["edge_id"], ["edge.id"]),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_index("ix_measurement_blade_id", "measurement", ["blade_id"])
    op.create_index("ix_measurement_edge_id", "measurement", ["edge_id"])
    op.create_table(
        "recipe",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("steps", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("name"),
        sqlite_strict=True,
    )
    op.create_table(
        "abrasive",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("size_um", sa.REAL(), nullable=True),
        sa.Column("grit", sa.Text(), nullable=False),
        sa.Column("standing", sa.Text(), nullable=False),
        sa.Column("note", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_table(
        "grade",
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("usual_low_hrc", sa.REAL(), nullable=True),
        sa.Column("usual_high_hrc", sa.REAL(), nullable=True),
        sa.Column("standing", sa.Text(), nullable=False),
        sa.Column("source", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("name"),
        sqlite_strict=True,
    )
    op.create_table(
        "photo",
        sa.Column("blade_id", sa.Text(), nullable=False),
        sa.Column("hash", sa.Text(), nullable=False),
        sa.Column("media_type", sa.Text(), nullable=False),
        sa.Column("caption", sa.Text(), nullable=False),
        sa.Column("added_utc", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(["blade_id"], ["blade.id"]),
        sa.PrimaryKeyConstraint("blade_id", "hash"),
        sqlite_strict=True,
    )


def _move_blade_facts() -> None:
    connection = op.get_bind()
    # a blade keeps the mark it had by its place in its trial; blades of other trials follow on
    rows = connection.execute(
        sa.text(
            "SELECT blade.*, MIN(trial_blade.place) AS place FROM blade LEFT JOIN trial_blade "
            "ON trial_blade.blade_id = blade.id GROUP BY blade.id ORDER BY blade.rowid"
        )
    ).mappings()
    for row in rows.all():
        other = json.loads(row["other"])
        if row["hardness_hrc"] is not None:
            _measure(
                row["id"], None, "hardness_hrc", row["hardness_hrc"], "", row["hardness_standing"]
            )
        if row["edge_length_mm"] is not None:
            _measure(row["id"], None, "edge_length_mm", row["edge_length_mm"], "", "measured_here")
        if isinstance(stock := other.pop("stock_mm", None), int | float):
            _measure(row["id"], None, "stock_mm", stock, "", "measured_here")
        for quantity in _WORDS:
            if words := other.pop(quantity, None):
                _measure(row["id"], None, quantity, None, str(words), "measured_here")
        treatment = other.pop("heat_treatment", None)
        connection.execute(
            sa.text(
                "UPDATE blade SET mark = :mark, owner = :owner, price = :price, "
                "heat_treatment = :treatment, "
                "other = :other WHERE id = :id"
            ),
            {
                "mark": row["place"] or 0,
                "owner": str(other.pop("owner", None) or ""),
                "price": str(other.pop("price", None) or ""),
                "treatment": json.dumps({"note": str(treatment)} if treatment else {}),
                "other": json.dumps(other),
                "id": row["id"],
            },
        )


def _move_edge_facts() -> None:
    connection = op.get_bind()
    for row in connection.execute(sa.text("SELECT * FROM edge")).mappings().all():
        other = json.loads(row["other"])
        for quantity in _EDGE_NUMBERS:
            if row[quantity] is not None:
                _measure(row["blade_id"], row["id"], quantity, row[quantity], "", "measured_here")
        size, kind = other.pop("last_abrasive_um", None), other.pop("last_abrasive_kind", None)
        steps: list[dict[str, Any]] = []
        if size is not None or kind:
            steps = [{"abrasive": kind or "abrasive", "kind": kind or "", "size_um": size}]
        said = other.pop("settled", None)
        connection.execute(
            sa.text(
                "UPDATE edge SET regime = :regime, minutes = :minutes, steel_removed_mm "
                "= :removed, steps = :steps, "
                "overrule = :overrule, overrule_reason = :reason, other = :other WHERE id = :id"
            ),
            {
                "regime": str(other.pop("regime", None) or ""),
                "minutes": other.pop("minutes", None),
                "removed": other.pop("steel_removed_mm", None),
                "steps": json.dumps(steps),
                "overrule": None if said is None else int(bool(said)),
                "reason": "as in the file" if said is not None else "",
                "other": json.dumps(other),
                "id": row["id"],
            },
        )


def _measure(
    blade_id: str,
    edge_id: str | None,
    quantity: str,
    value: float | None,
    words: str,
    standing: str,
) -> None:
    op.get_bind().execute(
        sa.text(
            "INSERT INTO measurement (id, blade_id, edge_id, quantity, value, words, "
            "standing, made_on, instrument, "
            "note, details, recorded_utc, struck) VALUES (:id, :blade_id, :edge_id, "
            ":quantity, :value, :words, "
            ":standing, '', '', '', '{}', '', '')"
        ),
        {
            "id": str(uuid5(NAMESPACE_URL, f"kessik:{edge_id or blade_id}:{quantity}")),
            "blade_id": blade_id,
            "edge_id": edge_id,
            "quantity": quantity,
            "value": value,
            "words": words,
            "standing": standing,
        },
    )
