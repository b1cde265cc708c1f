"""Blades and edges files: rows become blades and edges with measurements, and the other way round; onto the shelf."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any
from uuid import uuid4

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.facts import QUANTITIES, Measurement, Standing, used
from kessik.core.sharpening.regimes import Step, final_abrasive
from kessik.interchange.csv_tables import Column, Row, Table, write_table
from kessik.interchange.record_csv import BLADE_COLUMNS, EDGE_COLUMNS
from kessik.services.facts import entered, stated_again
from kessik.services.shelf import insert_blade
from kessik.store.database import Database, Session
from kessik.store.queries import shelf
from kessik.store.records import Blade, Edge, HeatTreatment, Moment

_BLADE_PLAIN = (
    "claimed_grade", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "owner", "price", "note", "loan_from",
    "loan_due", "loan_returned",
)  # fmt: skip
_BLADE_MEASURED = (
    "hardness_hrc", "edge_length_mm", "stock_mm", "primary_grind_side_deg", "grind", "profile", "finish", "coating",
    "grip",
)  # fmt: skip
_EDGE_PLAIN = ("regime", "minutes", "steel_removed_mm", "note", "made_on", "factory", "trouble")
_EDGE_MEASURED = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm", "start_gf")
_FROM_FILE = "as the file said"


def read_blade(
    code: str, row: Row | None, edge_rows: Mapping[int, Row | None], now_utc: str, blade_id: str | None = None
) -> Blade:
    """A new blade as its row tells it, with one edge for each number; without a row only its code is known."""
    made = blade_id or str(uuid4())
    edges = tuple(_edge(made, number, edge_rows[number], now_utc) for number in sorted(edge_rows))
    if row is None:
        return Blade(made, code, edges=edges)
    stated = tuple(
        entered(made, name, value, standing, now_utc) for name, value, standing in _stated(row, _BLADE_MEASURED)
    )
    return Blade(
        made,
        code,
        measurements=stated,
        heat_treatment=HeatTreatment(note=row.values.get("heat_treatment") or ""),
        other=dict(row.extra),
        edges=edges,
        **_given(row, _BLADE_PLAIN),
    )


def _edge(blade_id: str, number: int, row: Row | None, now_utc: str) -> Edge:
    made = str(uuid4())
    if row is None:
        return Edge(made, blade_id, number)
    stated = tuple(
        entered(made, name, value, standing, now_utc) for name, value, standing in _stated(row, _EDGE_MEASURED)
    )
    return replace(_edge_plain(Edge(made, blade_id, number), row), measurements=stated, other=dict(row.extra))


def _edge_plain(edge: Edge, row: Row) -> Edge:
    size, kind = row.values.get("last_abrasive_um"), row.values.get("last_abrasive_kind")
    steps = (Step(kind or "abrasive", kind or "", size),) if size is not None or kind else edge.steps
    settled = row.values.get("settled")
    said = {} if settled is None else {"overrule": settled, "overrule_reason": _FROM_FILE}
    return replace(edge, steps=steps, **_given(row, _EDGE_PLAIN), **said)


def _given(row: Row, names: Sequence[str]) -> dict[str, Any]:
    return {name: row.values[name] for name in names if row.values.get(name) is not None}


def _stated(row: Row, names: Sequence[str]) -> list[tuple[str, float | str, Standing]]:
    """The measured columns that hold something; a hardness without a standing is only claimed."""
    found = []
    for name in names:
        if (value := row.values.get(name)) is not None:
            standing: Standing = "measured_here"
            if name == "hardness_hrc":
                standing = row.values.get("hardness_standing") or "claimed"
            found.append((name, value, standing))
    return found


def import_onto_shelf(db: Database, blades: Sequence[Table], edges: Sequence[Table], now: Moment) -> list[str]:
    """Blades and edges of files onto the shelf, all or nothing; returns the codes touched.

    A code on the shelf already is that blade: what the file says becomes one more measurement where it is new.
    """
    with db.write() as session:
        on_shelf: dict[str, list[Blade]] = {}
        for blade in shelf.all_blades(session):
            if blade.archived_utc is None:
                on_shelf.setdefault(blade.code.casefold(), []).append(blade)
        faults = _shelf_faults(on_shelf, blades, edges)
        if faults:
            raise RefusedFileError(faults)
        rows = {row.values["blade"]: row for table in blades for row in table.rows}
        edge_rows: dict[str, dict[int, Row]] = {}
        for row in (row for table in edges for row in table.rows):
            edge_rows.setdefault(row.values["blade"], {})[row.values["edge"]] = row
        for code in dict.fromkeys([*rows, *edge_rows]):
            known = on_shelf.get(code.casefold())
            if known:
                _bring_up_to_date(session, known[0], rows.get(code), edge_rows.get(code, {}), now)
            else:
                insert_blade(session, read_blade(code, rows.get(code), edge_rows.get(code, {}), now.utc))
    return list(dict.fromkeys([*rows, *edge_rows]))


def _shelf_faults(
    on_shelf: Mapping[str, Sequence[Blade]], blades: Sequence[Table], edges: Sequence[Table]
) -> list[Fault]:
    faults = []
    coming = {row.values["blade"].casefold() for table in blades for row in table.rows}
    for table in (*blades, *edges):
        for row in table.rows:
            code = row.values["blade"]
            if len(on_shelf.get(code.casefold(), ())) > 1:
                message = f"two blades on the shelf are coded {code}; give one another code, then import"
                faults.append(Fault(table.file, row.line, "blade", message))
    for table in edges:
        for row in table.rows:
            code = row.values["blade"]
            if code.casefold() not in coming and code.casefold() not in on_shelf:
                message = f"no blade {code} is on the shelf or in a blades file beside this one"
                faults.append(Fault(table.file, row.line, "blade", message))
    return faults


def _bring_up_to_date(
    session: Session, blade: Blade, row: Row | None, edge_rows: Mapping[int, Row], now: Moment
) -> None:
    if row is not None:
        treatment = row.values.get("heat_treatment")
        heat = replace(blade.heat_treatment, note=treatment) if treatment else blade.heat_treatment
        other = {**blade.other, **row.extra}
        shelf.save_blade(session, replace(blade, heat_treatment=heat, other=other, **_given(row, _BLADE_PLAIN)))
        _state(session, blade.id, None, blade.measurements, _stated(row, _BLADE_MEASURED), now)
    for number, edge_row in edge_rows.items():
        edge = blade.edge(number)
        if edge is None:
            made = _edge(blade.id, number, edge_row, now.utc)
            shelf.save_edge(session, made)
            shelf.save_measurements(session, blade.id, made.id, made.measurements)
        else:
            shelf.save_edge(session, replace(_edge_plain(edge, edge_row), other={**edge.other, **edge_row.extra}))
            _state(session, blade.id, edge.id, edge.measurements, _stated(edge_row, _EDGE_MEASURED), now)


def _state(
    session: Session,
    blade_id: str,
    edge_id: str | None,
    known: Sequence[Measurement],
    stated: Sequence[tuple[str, float | str, Standing]],
    now: Moment,
) -> None:
    for quantity, value, standing in stated:
        shelf.save_measurements(session, blade_id, edge_id, stated_again(known, quantity, value, standing, now.utc))


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
    return names + [name for name in dict.fromkeys(key for row in rows for key in row) if name not in names]


def _in_use(measurements: Sequence[Measurement], names: Sequence[str]) -> dict[str, float | str | None]:
    found = {name: used(measurements, name) for name in names}
    return {
        name: None if m is None else m.value if QUANTITIES[name].is_number else m.words for name, m in found.items()
    }


def _blade_row(blade: Blade) -> dict[str, Any]:
    hardness = blade.used("hardness_hrc")
    return {
        **blade.other,
        "blade": blade.code,
        **{name: getattr(blade, name) or None for name in _BLADE_PLAIN},
        **_in_use(blade.measurements, _BLADE_MEASURED),
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
        **_in_use(edge.measurements, _EDGE_MEASURED),
        "last_abrasive_um": size,
        "last_abrasive_kind": kind or None,
        "settled": edge.overrule,
    }
