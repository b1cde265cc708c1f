"""The first tables: trials, blades, edges, runs and the bench log."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "blade",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("code", sa.Text(), nullable=False),
        sa.Column("claimed_grade", sa.Text(), nullable=True),
        sa.Column("hardness_hrc", sa.REAL(), nullable=True),
        sa.Column("hardness_standing", sa.Text(), nullable=False),
        sa.Column("usual_hardness_low_hrc", sa.REAL(), nullable=True),
        sa.Column("usual_hardness_high_hrc", sa.REAL(), nullable=True),
        sa.Column("edge_length_mm", sa.REAL(), nullable=True),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("other", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_table(
        "trial",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("name", sa.Text(), nullable=False),
        sa.Column("question", sa.Text(), nullable=False),
        sa.Column("factor", sa.Text(), nullable=False),
        sa.Column("hardness_reading", sa.Text(), nullable=False),
        sa.Column("tolerances", sa.Text(), nullable=False),
        sa.Column("keen_gf", sa.REAL(), nullable=False),
        sa.Column("dull_gf", sa.REAL(), nullable=False),
        sa.Column("schedule", sa.Text(), nullable=False),
        sa.Column("check_every", sa.Integer(), nullable=False),
        sa.Column("edges_per_blade", sa.Integer(), nullable=False),
        sa.Column("medium", sa.Text(), nullable=False),
        sa.Column("rope_diameter_mm", sa.REAL(), nullable=True),
        sa.Column("created_utc", sa.Text(), nullable=False),
        sa.Column("created_offset_minutes", sa.Integer(), nullable=False),
        sa.Column("source", sa.Text(), nullable=False),
        sa.PrimaryKeyConstraint("id"),
        sqlite_strict=True,
    )
    op.create_table(
        "edge",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("blade_id", sa.Text(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("side_angle_deg", sa.REAL(), nullable=True),
        sa.Column("micro_bevel_side_deg", sa.REAL(), nullable=True),
        sa.Column("thickness_behind_edge_mm", sa.REAL(), nullable=True),
        sa.Column("note", sa.Text(), nullable=False),
        sa.Column("other", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(
            ["blade_id"],
            ["blade.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("blade_id", "number"),
        sqlite_strict=True,
    )
    op.create_index("ix_edge_blade_id", "edge", ["blade_id"])

    op.create_table(
        "trial_blade",
        sa.Column("trial_id", sa.Text(), nullable=False),
        sa.Column("blade_id", sa.Text(), nullable=False),
        sa.Column("place", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["blade_id"],
            ["blade.id"],
        ),
        sa.ForeignKeyConstraint(
            ["trial_id"],
            ["trial.id"],
        ),
        sa.PrimaryKeyConstraint("trial_id", "blade_id"),
        sa.UniqueConstraint("trial_id", "place"),
        sqlite_strict=True,
    )
    op.create_table(
        "run",
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("trial_id", sa.Text(), nullable=False),
        sa.Column("edge_id", sa.Text(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("practice", sa.Integer(), nullable=False),
        sa.Column("practice_seed", sa.Integer(), nullable=True),
        sa.Column("count_unit", sa.Text(), nullable=False),
        sa.Column("zone_from_mm", sa.REAL(), nullable=True),
        sa.Column("zone_to_mm", sa.REAL(), nullable=True),
        sa.Column("edge_length_used_mm", sa.REAL(), nullable=True),
        sa.Column("started_utc", sa.Text(), nullable=False),
        sa.Column("started_offset_minutes", sa.Integer(), nullable=False),
        sa.Column("other", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(
            ["edge_id"],
            ["edge.id"],
        ),
        sa.ForeignKeyConstraint(
            ["trial_id"],
            ["trial.id"],
        ),
        sa.PrimaryKeyConstraint("id"),
        sa.UniqueConstraint("trial_id", "edge_id", "number"),
        sqlite_strict=True,
    )
    op.create_index("ix_run_edge_id", "run", ["edge_id"])
    op.create_index("ix_run_trial_id", "run", ["trial_id"])

    op.create_table(
        "event",
        sa.Column("position", sa.Integer(), autoincrement=True, nullable=False),
        sa.Column("id", sa.Text(), nullable=False),
        sa.Column("run_id", sa.Text(), nullable=False),
        sa.Column("kind", sa.Text(), nullable=False),
        sa.Column("device", sa.Text(), nullable=False),
        sa.Column("device_sequence", sa.Integer(), nullable=False),
        sa.Column("last_seen_position", sa.Integer(), nullable=False),
        sa.Column("count_at", sa.REAL(), nullable=False),
        sa.Column("client_time", sa.Text(), nullable=False),
        sa.Column("server_utc", sa.Text(), nullable=False),
        sa.Column("payload", sa.Text(), nullable=False),
        sa.ForeignKeyConstraint(
            ["run_id"],
            ["run.id"],
        ),
        sa.PrimaryKeyConstraint("position"),
        sa.UniqueConstraint("device", "device_sequence"),
        sa.UniqueConstraint("id"),
        sqlite_autoincrement=True,
        sqlite_strict=True,
    )
    op.create_index("ix_event_run_id", "event", ["run_id"])
