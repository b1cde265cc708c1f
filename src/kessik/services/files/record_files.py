"""Blades and edges files: rows become blades and edges with measurements, and the other way round;
onto the shelf.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any
from uuid import uuid4

from kessik.core.errors import Fault, NotAllowedNowError, RefusedFileError
from kessik.core.facts import QUANTITIES, Measurement, Standing, used
from kessik.core.limits import most
from kessik.core.moments import Moment
from kessik.core.sharpening.regimes import Step, final_abrasive
from kessik.core.shelf.blades import Blade, HeatTreatment
from kessik.core.shelf.edges import Edge
from kessik.interchange.csv_tables import Column, Row, Table, write_table
from kessik.interchange.record_csv import BLADE_COLUMNS, EDGE_COLUMNS
from kessik.services.shelf.blades import check_new_blades
from kessik.services.shelf.facts import entered, stated_again
from kessik.store.database import Database
from kessik.store.queries import shelf

_BLADE_PLAIN = (
    "claimed_grade", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "owner", "price", "note",
    "loan_from",
    "loan_due", "loan_returned",
)  # fmt: skip  # a table is read by its rows
_BLADE_MEASURED = (
    "hardness_hrc", "edge_length_mm", "stock_mm", "primary_grind_side_deg", "grind", "profile",
    "finish", "coating",
    "grip",
)  # fmt: skip  # a table is read by its rows
_EDGE_PLAIN = ("regime", "minutes", "steel_removed_mm", "note", "made_on", "factory", "trouble")
_EDGE_MEASURED = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm", "start_gf")
_FROM_FILE = "as the file said"
_TRIES = 5


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
    edges = tuple(_edge(made, number, edge_rows[number], now_utc) for number in sorted(edge_rows))
    if row is None:
        return Blade(made, code, edges=edges)
    stated = tuple(
        entered(made, name, value, standing, now_utc)
        for name, value, standing in _stated(row, _BLADE_MEASURED)
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
        entered(made, name, value, standing, now_utc)
        for name, value, standing in _stated(row, _EDGE_MEASURED)
    )
    return replace(
        _edge_plain(Edge(made, blade_id, number), row), measurements=stated, other=dict(row.extra)
    )


def _edge_plain(edge: Edge, row: Row) -> Edge:
    size, kind = row.values.get("last_abrasive_um"), row.values.get("last_abrasive_kind")
    steps = (
        (Step(kind or "abrasive", kind or "", size),) if size is not None or kind else edge.steps
    )
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


def import_onto_shelf(
    db: Database, blades: Sequence[Table], edges: Sequence[Table], now: Moment
) -> list[str]:
    """Blades and edges of files onto the shelf, all or nothing; returns the codes touched.

    A code on the shelf already is that blade: what the file says becomes one more measurement where
    it is new. All is worked out before the write lock is taken; where somebody changed one of the
    blades meanwhile, once more.
    """
    for _ in range(_TRIES):
        with db.read() as session:
            known = [blade for blade in shelf.all_blades(session) if blade.archived_utc is None]
        wanted = _brought_up_to_date(known, blades, edges, now)
        check_new_blades(wanted)
        touched = {blade.id for blade in wanted}
        with db.write() as session:
            still = [blade for blade in shelf.all_blades(session) if blade.id in touched]
            if still == [blade for blade in known if blade.id in touched]:
                new = [blade for blade in wanted if all(blade.id != other.id for other in still)]
                marks = dict(
                    zip((b.id for b in new), shelf.next_marks(session, len(new)), strict=True)
                )
                shelf.save_whole_blades(
                    session, [replace(b, mark=marks.get(b.id, b.mark)) for b in wanted]
                )
                return [blade.code for blade in wanted]
    raise NotAllowedNowError(
        "the shelf is being changed elsewhere; import again in a moment", field="file"
    )


def _brought_up_to_date(
    known: Sequence[Blade], blades: Sequence[Table], edges: Sequence[Table], now: Moment
) -> list[Blade]:
    """The blades of the files as they will stand on the shelf."""
    on_shelf: dict[str, list[Blade]] = {}
    for blade in known:
        on_shelf.setdefault(blade.code.casefold(), []).append(blade)
    faults = _shelf_faults(on_shelf, blades, edges)
    if faults:
        raise RefusedFileError(faults[: most("faults_listed")], len(faults))
    rows = {row.values["blade"]: row for table in blades for row in table.rows}
    edge_rows: dict[str, dict[int, Row]] = {}
    for row in (row for table in edges for row in table.rows):
        edge_rows.setdefault(row.values["blade"], {})[row.values["edge"]] = row
    found: dict[str, Blade] = {}
    for code in dict.fromkeys([*rows, *edge_rows]):
        key = code.casefold()
        there = found.get(key) or next(iter(on_shelf.get(key, ())), None)
        of_file, own_edges = rows.get(code), edge_rows.get(code, {})
        if there is None:
            found[key] = read_blade(code, of_file, own_edges, now.utc)
        else:
            found[key] = _bring_up_to_date(there, of_file, own_edges, now)
    return list(found.values())


def _shelf_faults(
    on_shelf: Mapping[str, Sequence[Blade]], blades: Sequence[Table], edges: Sequence[Table]
) -> list[Fault]:
    faults = []
    coming = {row.values["blade"].casefold() for table in blades for row in table.rows}
    for table in (*blades, *edges):
        for row in table.rows:
            code = row.values["blade"]
            if len(on_shelf.get(code.casefold(), ())) > 1:
                message = (
                    f"two blades on the shelf are coded {code}; give one another code, then import"
                )
                faults.append(Fault(table.file, row.line, "blade", message))
    for table in edges:
        for row in table.rows:
            code = row.values["blade"]
            if code.casefold() not in coming and code.casefold() not in on_shelf:
                message = f"no blade {code} is on the shelf or in a blades file beside this one"
                faults.append(Fault(table.file, row.line, "blade", message))
    return faults


def _bring_up_to_date(
    blade: Blade, row: Row | None, edge_rows: Mapping[int, Row], now: Moment
) -> Blade:
    found = blade
    if row is not None:
        treatment = row.values.get("heat_treatment")
        heat = replace(blade.heat_treatment, note=treatment) if treatment else blade.heat_treatment
        measured = _stated_anew(blade.measurements, _stated(row, _BLADE_MEASURED), now)
        plain = _given(row, _BLADE_PLAIN)
        other = {**blade.other, **row.extra}
        found = replace(blade, heat_treatment=heat, other=other, measurements=measured, **plain)
    by_number = {edge.number: edge for edge in found.edges}
    for number, edge_row in edge_rows.items():
        edge = by_number.get(number)
        if edge is None:
            by_number[number] = _edge(blade.id, number, edge_row, now.utc)
            continue
        measured = _stated_anew(edge.measurements, _stated(edge_row, _EDGE_MEASURED), now)
        other = {**edge.other, **edge_row.extra}
        by_number[number] = replace(_edge_plain(edge, edge_row), other=other, measurements=measured)
    return replace(found, edges=tuple(by_number[number] for number in sorted(by_number)))


def _stated_anew(
    known: Sequence[Measurement], stated: Sequence[tuple[str, float | str, Standing]], now: Moment
) -> tuple[Measurement, ...]:
    """The measurements with what is stated besides, where that is new."""
    by_id = {measurement.id: measurement for measurement in known}
    for quantity, value, standing in stated:
        for changed in stated_again(known, quantity, value, standing, now.utc):
            by_id[changed.id] = changed
    return tuple(by_id.values())


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
