"""Blades and edges as rows of their files, in and out."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any
from uuid import uuid4

from kessik.core.facts import QUANTITIES, Measurement, Provenance, entered, used
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.sharpening.regimes import Step, final_abrasive
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.interchange.csv_tables import Column, Row, write_table
from kessik.interchange.record_csv import BLADE_COLUMNS, EDGE_COLUMNS

BLADE_PLAIN = (
    "claimed_grade", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "owner", "price", "note",
    "loan_from", "lent_to",
    "loan_due", "loan_returned",
)  # fmt: skip  # a table is read by its rows


BLADE_MEASURED = (
    "hardness_hrc", "edge_length_mm", "stock_mm", "primary_grind_side_deg", "grind", "profile",
    "finish", "coating",
    "grip",
)  # fmt: skip  # a table is read by its rows


_EDGE_PLAIN = (
    "arm",
    "regime",
    "minutes",
    "steel_removed_mm",
    "note",
    "made_on",
    "factory",
    "trouble",
    "number_is_least",
)


EDGE_MEASURED = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm", "start_gf")
_FROM_FILE = "as in the file"


def read_blade(
    code: str,
    row: Row | None,
    edge_rows: Mapping[int, Row | None],
    now_utc: str,
    blade_id: str | None = None,
) -> Blade:
    """A new blade as its row tells it, with one edge for each number; without a row only its code
    is known.
    """
    made = blade_id or str(uuid4())
    edges = tuple(
        edge_from_row(made, number, edge_rows[number], now_utc) for number in sorted(edge_rows)
    )
    if row is None:
        return Blade(made, code, edges=edges)
    stated = tuple(
        entered(made, name, value, standing, now_utc)
        for name, value, standing in stated_values(row, BLADE_MEASURED)
    )
    return Blade(
        made,
        code,
        measurements=stated,
        heat_treatment=HeatTreatment(note=row.values.get("heat_treatment") or ""),
        other=dict(row.extra),
        edges=edges,
        **given_values(row, BLADE_PLAIN),
    )


def edge_from_row(blade_id: str, number: int, row: Row | None, now_utc: str) -> Edge:
    """A new edge with what its row says."""
    made = str(uuid4())
    if row is None:
        return Edge(made, blade_id, number)
    stated = tuple(
        entered(made, name, value, standing, now_utc)
        for name, value, standing in stated_values(row, EDGE_MEASURED)
    )
    return replace(
        with_edge_row(Edge(made, blade_id, number), row), measurements=stated, other=dict(row.extra)
    )


def with_edge_row(edge: Edge, row: Row) -> Edge:
    """An edge with what a row says of it, measurements aside."""
    size, kind = row.values.get("last_abrasive_um"), row.values.get("last_abrasive_kind")
    steps = (
        (Step(kind or "abrasive", kind or "", size),) if size is not None or kind else edge.steps
    )
    settled = row.values.get("settled")
    said = {} if settled is None else {"overrule": settled, "overrule_reason": _FROM_FILE}
    return replace(edge, steps=steps, **given_values(row, _EDGE_PLAIN), **said)


def given_values(row: Row, names: Sequence[str]) -> dict[str, Any]:
    """The columns that hold something."""
    return {name: row.values[name] for name in names if row.values.get(name) is not None}


def stated_values(row: Row, names: Sequence[str]) -> list[tuple[str, float | str, Provenance]]:
    """The measured columns that hold something; a hardness without a standing is only claimed."""
    found = []
    for name in names:
        if (value := row.values.get(name)) is not None:
            standing: Provenance = "measured_here"
            if name == "hardness_hrc":
                standing = row.values.get("hardness_standing") or "claimed"
            found.append((name, value, standing))
    return found


def blades_csv(blades: Sequence[Blade]) -> str:
    """`*.blades.csv`: one row a blade, with the value in use of each fact."""
    rows = [_blade_row(blade) for blade in blades]
    return write_table(header(BLADE_COLUMNS, rows), rows)


def edges_csv(blades: Sequence[Blade]) -> str:
    """`*.edges.csv`: one row an edge."""
    rows = [_edge_row(blade, edge) for blade in blades for edge in blade.edges]
    return write_table(header(EDGE_COLUMNS, rows), rows)


def header(columns: Sequence[Column], rows: Sequence[Mapping[str, Any]]) -> list[str]:
    """The columns of a format, then what else the rows carry."""
    names = [column.name for column in columns]
    return names + [
        name for name in dict.fromkeys(key for row in rows for key in row) if name not in names
    ]


def _in_use(
    measurements: Sequence[Measurement], names: Sequence[str]
) -> dict[str, float | str | None]:
    found = {name: used(measurements, name) for name in names}
    return {
        name: None if m is None else m.value if QUANTITIES[name].is_number else m.words
        for name, m in found.items()
    }


def _blade_row(blade: Blade) -> dict[str, Any]:
    hardness = blade.used("hardness_hrc")
    return {
        **blade.other,
        "blade": blade.code,
        **{name: getattr(blade, name) or None for name in BLADE_PLAIN},
        **_in_use(blade.measurements, BLADE_MEASURED),
        "hardness_standing": hardness.standing if hardness else None,
        "heat_treatment": blade.heat_treatment.note or None,
    }


def _edge_row(blade: Blade, edge: Edge) -> dict[str, Any]:
    size, kind = final_abrasive(edge.steps)
    plain = {name: getattr(edge, name) for name in _EDGE_PLAIN}
    return {
        **edge.other,
        "blade": blade.code,
        "edge": edge.number,
        **{name: None if value in ("", False) else value for name, value in plain.items()},
        **_in_use(edge.measurements, EDGE_MEASURED),
        "last_abrasive_um": size,
        "last_abrasive_kind": kind or None,
        "settled": edge.overrule,
    }
