"""`*.runs.csv`, `*.blades.csv` and `*.edges.csv`: the files that stand beside a series."""

from collections.abc import Sequence
from dataclasses import replace

from kessik.core.errors import Fault
from kessik.core.facts import QUANTITIES, STANDINGS
from kessik.core.limits import LIMITS
from kessik.interchange.csv_tables import Column, Table, limited, read_table
from kessik.interchange.faults import Faults

RUN_COLUMNS = (
    Column("trial"),
    Column("blade", required=True),
    limited("edge", "edge_number", "integer", required=True),
    limited("run", "run_number", "integer"),
    Column("arm", longest="word"),
    Column("method"),
    Column("medium"),
    Column("lot"),
    Column("block"),
    limited("zone_from_mm", "position_mm"),
    limited("zone_to_mm", "position_mm"),
    Column("edge_length_used_mm", "number", above=0, high=LIMITS["position_mm"].most, unit="mm"),
    Column("verifies_run"),
    Column("check_every", "number", above=0, high=LIMITS["count"].most),
    Column("after_strop", "yes_no"),
    Column("operator"),
    Column("started", "time"),
    Column("practice", "yes_no"),
    Column("round", "integer", low=1, high=1000),
    Column("from_paper"),
    Column("note"),
)


def _measured(name: str, column: str = "") -> Column:
    """A column of a number whose bounds are those of the quantity."""
    quantity = QUANTITIES[name]
    return Column(
        column or name,
        "number",
        low=quantity.low,
        high=quantity.high,
        unit=quantity.unit,
        zero_is_none=quantity.zero_is_none,
    )


BLADE_COLUMNS = (
    Column("blade", required=True, longest="word"),
    Column("claimed_grade"),
    _measured("hardness_hrc"),
    Column("hardness_standing", "choice", choices=STANDINGS),
    Column("grind"),
    Column("profile"),
    _measured("stock_mm"),
    _measured("edge_length_mm"),
    Column("coating"),
    Column("heat_treatment"),
    Column("owner"),
    Column("price"),
    Column("note"),
    _measured("hardness_hrc", "usual_hardness_low_hrc"),
    _measured("hardness_hrc", "usual_hardness_high_hrc"),
    Column("finish"),
    Column("grip"),
    _measured("primary_grind_side_deg"),
    Column("loan_from"),
    Column("loan_due", "day"),
    Column("loan_returned", "day"),
    Column("lent_to"),
)
EDGE_COLUMNS = (
    Column("blade", required=True, longest="word"),
    limited("edge", "edge_number", "integer", required=True),
    Column("arm", longest="word"),
    _measured("side_angle_deg"),
    _measured("micro_bevel_side_deg"),
    _measured("thickness_behind_edge_mm"),
    limited("last_abrasive_um", "abrasive_um"),
    Column("last_abrasive_kind"),
    Column("regime"),
    limited("minutes", "minutes"),
    Column("steel_removed_mm", "number", low=0, high=1000, unit="mm"),
    Column("settled", "yes_no"),
    Column("note"),
    Column("made_on", "day"),
    _measured("start_gf"),
    Column("factory", "yes_no"),
    Column("trouble"),
    Column("number_is_least", "yes_no"),
)


def read_runs(file: str, data: bytes) -> Table:
    """Runs; one row for each (trial, blade, edge, run)."""
    return _unique(
        read_table(file, data, RUN_COLUMNS), ("trial", "blade", "edge", "run"), "this run"
    )


def read_blades(file: str, data: bytes) -> Table:
    """Blades; a code may stand once."""
    return _unique(read_table(file, data, BLADE_COLUMNS), ("blade",), "the blade code")


def read_edges(file: str, data: bytes) -> Table:
    """Edges; one row for each edge of a blade."""
    return _unique(read_table(file, data, EDGE_COLUMNS), ("blade", "edge"), "this edge")


def _unique(table: Table, keys: Sequence[str], what: str) -> Table:
    seen: dict[tuple[object, ...], int] = {}
    faults = Faults.of(table.faults)
    for row in table.rows:
        key = tuple(row.values.get(name) for name in keys)
        if None in (row.values.get("blade"),):
            continue
        if key in seen:
            said = " ".join(str(part) for part in key if part is not None)
            message = f"{what} {said} is listed twice, first on line {seen[key]}"
            faults.add(Fault(table.file, row.line, keys[-1], message))
        seen.setdefault(key, row.line)
    return replace(table, faults=faults.found())
