"""Blades and edges files: rows become blades and edges with measurements, and the other way round;
onto the shelf.
"""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from kessik.core.errors import Fault, NotAllowedNowError, RefusedFileError
from kessik.core.facts import Measurement, Provenance
from kessik.core.limits import most
from kessik.core.moments import Moment
from kessik.core.shelf.blades import Blade
from kessik.interchange.csv_tables import Row, Table
from kessik.services.files.shelf_rows import (
    BLADE_MEASURED,
    BLADE_PLAIN,
    EDGE_MEASURED,
    edge_from_row,
    given_values,
    read_blade,
    stated_values,
    with_edge_row,
)
from kessik.services.shelf.checks import check_new_blades
from kessik.services.shelf.facts import stated_again
from kessik.store.database import Database
from kessik.store.queries import shelf

_TRIES = 5


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
        measured = _stated_anew(blade.measurements, stated_values(row, BLADE_MEASURED), now)
        plain = given_values(row, BLADE_PLAIN)
        other = {**blade.other, **row.extra}
        found = replace(blade, heat_treatment=heat, other=other, measurements=measured, **plain)
    by_number = {edge.number: edge for edge in found.edges}
    for number, edge_row in edge_rows.items():
        edge = by_number.get(number)
        if edge is None:
            by_number[number] = edge_from_row(blade.id, number, edge_row, now.utc)
            continue
        measured = _stated_anew(edge.measurements, stated_values(edge_row, EDGE_MEASURED), now)
        other = {**edge.other, **edge_row.extra}
        by_number[number] = replace(
            with_edge_row(edge, edge_row), other=other, measurements=measured
        )
    return replace(found, edges=tuple(by_number[number] for number in sorted(by_number)))


def _stated_anew(
    known: Sequence[Measurement], stated: Sequence[tuple[str, float | str, Provenance]], now: Moment
) -> tuple[Measurement, ...]:
    """The measurements with what is stated besides, where that is new."""
    by_id = {measurement.id: measurement for measurement in known}
    for quantity, value, standing in stated:
        for changed in stated_again(known, quantity, value, standing, now.utc):
            by_id[changed.id] = changed
    return tuple(by_id.values())
