"""`*.runs.csv`, `*.blades.csv` and `*.edges.csv`: the files that stand beside a series."""

from collections.abc import Sequence
from dataclasses import replace

from kessik.core.errors import Fault
from kessik.interchange.csv_tables import Column, Table, read_table

STANDINGS = ("measured_here", "measured_elsewhere", "standard", "literature", "claimed", "guessed")

RUN_COLUMNS = (
    Column("trial"),
    Column("blade", required=True),
    Column("edge", "integer", required=True, low=1),
    Column("run", "integer", low=1),
    Column("method"),
    Column("medium"),
    Column("lot"),
    Column("block"),
    Column("zone_from_mm", "number", low=0, unit="mm"),
    Column("zone_to_mm", "number", above=0, unit="mm"),
    Column("edge_length_used_mm", "number", above=0, unit="mm"),
    Column("verifies_run"),
    Column("operator"),
    Column("started", "time"),
    Column("practice", "yes_no"),
    Column("round", "integer", low=1),
    Column("note"),
)
BLADE_COLUMNS = (
    Column("blade", required=True),
    Column("claimed_grade"),
    Column("hardness_hrc", "number", above=0, high=75, unit="HRC"),
    Column("hardness_standing", "choice", choices=STANDINGS),
    Column("grind"),
    Column("profile"),
    Column("stock_mm", "number", above=0, unit="mm"),
    Column("edge_length_mm", "number", above=0, unit="mm"),
    Column("coating"),
    Column("heat_treatment"),
    Column("owner"),
    Column("price"),
    Column("note"),
    Column("usual_hardness_low_hrc", "number", above=0, high=75, unit="HRC"),
    Column("usual_hardness_high_hrc", "number", above=0, high=75, unit="HRC"),
)
EDGE_COLUMNS = (
    Column("blade", required=True),
    Column("edge", "integer", required=True, low=1),
    Column("side_angle_deg", "number", above=0, high=60, unit="°"),
    Column("micro_bevel_side_deg", "number", above=0, high=60, unit="°"),
    Column("thickness_behind_edge_mm", "number", above=0, high=10, unit="mm"),
    Column("last_abrasive_um", "number", above=0, unit="µm"),
    Column("last_abrasive_kind"),
    Column("regime"),
    Column("minutes", "number", low=0),
    Column("steel_removed_mm", "number", low=0, unit="mm"),
    Column("settled", "yes_no"),
    Column("note"),
)


def read_runs(file: str, data: bytes) -> Table:
    """Runs; one row for each (trial, blade, edge, run)."""
    return _unique(read_table(file, data, RUN_COLUMNS), ("trial", "blade", "edge", "run"), "this run")


def read_blades(file: str, data: bytes) -> Table:
    """Blades; a code may stand once."""
    return _unique(read_table(file, data, BLADE_COLUMNS), ("blade",), "the blade code")


def read_edges(file: str, data: bytes) -> Table:
    """Edges; one row for each edge of a blade."""
    return _unique(read_table(file, data, EDGE_COLUMNS), ("blade", "edge"), "this edge")


def _unique(table: Table, keys: Sequence[str], what: str) -> Table:
    seen: dict[tuple[object, ...], int] = {}
    faults = list(table.faults)
    for row in table.rows:
        key = tuple(row.values.get(name) for name in keys)
        if None in (row.values.get("blade"),):
            continue
        if key in seen:
            said = " ".join(str(part) for part in key if part is not None)
            faults.append(
                Fault(table.file, row.line, keys[-1], f"{what} {said} stands twice, first on line {seen[key]}")
            )
        seen.setdefault(key, row.line)
    return replace(table, faults=tuple(sorted(faults, key=lambda fault: fault.line)))
