"""Blades with their edges and measurements, recipes and abrasives."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from itertools import islice
from typing import Any

from sqlalchemy import Table, delete, func, select
from sqlalchemy.dialects import sqlite
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kessik.core.errors import ConflictError
from kessik.core.facts import Measurement
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Abrasive, Edge, Recipe
from kessik.store.queries.bench_log import IS_SEEN
from kessik.store.queries.inserting import insert_many
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import (
    AbrasiveRow,
    BladeRow,
    EdgeRow,
    MeasurementRow,
    RecipeRow,
    RunRow,
    TrialBladeRow,
)
from kessik.store.tables.base import Base

_EDGE: Table = EdgeRow.__table__  # type: ignore[assignment]  # declared as FromClause, and is the table


def all_blades(session: Session) -> list[Blade]:
    """Every blade, archived ones too, in the order of their marks."""
    there = select(BladeRow).where(BladeRow.arriving.is_(None))
    return whole_blades(
        session, session.scalars(there.order_by(BladeRow.mark, BladeRow.code)).all()
    )


def codes_there(session: Session) -> dict[str, str]:
    """The codes of all blades that are not archived, by their ids."""
    there = select(BladeRow.id, BladeRow.code).where(
        BladeRow.arriving.is_(None), BladeRow.archived_utc.is_(None)
    )
    return dict(session.execute(there).tuples().all())


def find_blade(session: Session, blade_id: str) -> Blade | None:
    row = session.get(BladeRow, blade_id)
    return whole_blades(session, [row])[0] if row and row.arriving is None else None


def blades_by_id(session: Session, ids: Iterable[str]) -> list[Blade]:
    """Those of these blades that are on the shelf."""
    wanted = select(BladeRow).where(BladeRow.arriving.is_(None), BladeRow.id.in_(list(ids)))
    return whole_blades(session, session.scalars(wanted).all())


def known_ids(session: Session, ids: Iterable[str]) -> set[str]:
    """Those of these ids that are blades on the shelf."""
    wanted = select(BladeRow.id).where(BladeRow.arriving.is_(None), BladeRow.id.in_(list(ids)))
    return set(session.scalars(wanted))


def whole_blades(session: Session, rows: Sequence[BladeRow]) -> list[Blade]:
    """Blades of these rows with all their edges and measurements."""
    ids = [row.id for row in rows]
    edges = session.scalars(
        select(EdgeRow).where(EdgeRow.blade_id.in_(ids)).order_by(EdgeRow.number)
    ).all()
    found = session.scalars(select(MeasurementRow).where(MeasurementRow.blade_id.in_(ids))).all()
    measured: dict[str, list[Measurement]] = defaultdict(list)
    for row in found:
        measured[row.edge_id or row.blade_id].append(measurement_of(row))
    by_blade: dict[str, list[Edge]] = defaultdict(list)
    for edge in edges:
        by_blade[edge.blade_id].append(record_of(Edge, edge, measurements=tuple(measured[edge.id])))
    return [
        record_of(Blade, row, measurements=tuple(measured[row.id]), edges=tuple(by_blade[row.id]))
        for row in rows
    ]


def save_blade(session: Session, blade: Blade) -> None:
    """Insert or update what is the blade's own; edges and measurements are saved by themselves."""
    session.merge(BladeRow(**row_values(BladeRow, blade)))
    session.flush()


def _measurement_row(m: Measurement, blade_id: str, edge_id: str | None) -> dict[str, Any]:
    return row_values(MeasurementRow, m, made_on=m.on, blade_id=blade_id, edge_id=edge_id)


def save_edge(session: Session, edge: Edge) -> None:
    """Insert or update; its measurements are saved by themselves."""
    session.merge(EdgeRow(**row_values(EdgeRow, edge)))
    session.flush()


def add_edges(session: Session, edges: Sequence[Edge]) -> None:
    """Add many new edges at once."""
    try:
        insert_many(session, _EDGE, [row_values(EdgeRow, edge) for edge in edges])
    except IntegrityError as there:
        raise ConflictError(
            "an edge of this number was added to the shelf meanwhile; check the rows again",
            field="edge",
        ) from there


def save_measurements(
    session: Session, blade_id: str, edge_id: str | None, measurements: Iterable[Measurement]
) -> None:
    """Insert or update measurements of a blade, or of one of its edges."""
    for m in measurements:
        session.merge(MeasurementRow(**_measurement_row(m, blade_id, edge_id)))
    session.flush()


def find_measurement(
    session: Session, measurement_id: str
) -> tuple[str, str | None, Measurement] | None:
    """A measurement with the blade and the edge it belongs to."""
    row = session.get(MeasurementRow, measurement_id)
    return (row.blade_id, row.edge_id, measurement_of(row)) if row else None


def runs_by_blade(session: Session) -> dict[str, int]:
    """How many runs, practice included, each blade has."""
    counted = select(EdgeRow.blade_id, func.count()).join(RunRow, RunRow.edge_id == EdgeRow.id)
    by_blade = counted.where(IS_SEEN).group_by(EdgeRow.blade_id)
    return dict(session.execute(by_blade).tuples().all())


def cut_edges(session: Session) -> set[str]:
    """The ids of all edges that a counted run was cut on."""
    counted = select(RunRow.edge_id).where(RunRow.practice.is_(False), IS_SEEN)
    return set(session.scalars(counted))


def cut_stretches(session: Session) -> dict[str, list[tuple[float, float] | None]]:
    """What counted runs cut of each edge, by its id: zones in mm from the heel, None for all."""
    cut = select(RunRow.edge_id, RunRow.zone_from_mm, RunRow.zone_to_mm)
    found: dict[str, list[tuple[float, float] | None]] = defaultdict(list)
    for edge_id, start, end in session.execute(cut.where(RunRow.practice.is_(False), IS_SEEN)):
        found[edge_id].append(None if start is None or end is None else (start, end))
    return dict(found)


def next_mark(session: Session) -> int:
    """The mark of the next new blade: the lowest that no blade carries."""
    return next_marks(session, 1)[0]


def next_marks(session: Session, how_many: int) -> list[int]:
    """The marks of the next new blades: the lowest that no blade carries."""
    taken = set(session.scalars(select(BladeRow.mark)))
    free = (mark for mark in range(len(taken) + how_many) if mark not in taken)
    return list(islice(free, how_many))


def save_whole_blades(session: Session, blades: Sequence[Blade]) -> None:
    """Insert or update many blades with their edges and measurements, a statement a table."""
    rows = [row_values(BladeRow, blade) for blade in blades]
    edges = [row_values(EdgeRow, edge) for blade in blades for edge in blade.edges]
    measured = [
        _measurement_row(m, blade.id, edge_id)
        for blade in blades
        for edge_id, known in [
            (None, blade.measurements),
            *((e.id, e.measurements) for e in blade.edges),
        ]
        for m in known
    ]
    _upsert(session, BladeRow, rows)
    _upsert(session, EdgeRow, edges)
    _upsert(session, MeasurementRow, measured)
    session.expire_all()


def _upsert(session: Session, table: type[Base], rows: Sequence[Mapping[str, Any]]) -> None:
    if not rows:
        return
    statement = sqlite.insert(table)
    changed = {name: statement.excluded[name] for name in rows[0] if name != "id"}
    session.execute(
        statement.on_conflict_do_update(index_elements=["id"], set_=changed), list(rows)
    )


def trials_of_blades(session: Session) -> dict[str, list[str]]:
    """The ids of the trials that each blade is in."""
    found: dict[str, list[str]] = defaultdict(list)
    for row in session.scalars(select(TrialBladeRow)):
        found[row.blade_id].append(row.trial_id)
    return found


def all_recipes(session: Session) -> list[Recipe]:
    rows = session.scalars(select(RecipeRow).order_by(RecipeRow.name))
    return [record_of(Recipe, row) for row in rows]


def save_recipe(session: Session, recipe: Recipe) -> None:
    session.merge(RecipeRow(**row_values(RecipeRow, recipe)))
    session.flush()


def delete_recipe(session: Session, recipe_id: str) -> None:
    session.execute(delete(RecipeRow).where(RecipeRow.id == recipe_id))


def all_abrasives(session: Session) -> list[Abrasive]:
    rows = session.scalars(select(AbrasiveRow).order_by(AbrasiveRow.name))
    return [record_of(Abrasive, row) for row in rows]


def save_abrasive(session: Session, abrasive: Abrasive) -> None:
    session.merge(AbrasiveRow(**row_values(AbrasiveRow, abrasive)))
    session.flush()


def delete_abrasive(session: Session, abrasive_id: str) -> None:
    session.execute(delete(AbrasiveRow).where(AbrasiveRow.id == abrasive_id))


def measurement_of(row: MeasurementRow) -> Measurement:
    """The measurement of a row."""
    return record_of(Measurement, row, on=row.made_on)


def find_edge_owner(session: Session, edge_id: str) -> str | None:
    """The id of the blade an edge belongs to."""
    row = session.get(EdgeRow, edge_id)
    return row.blade_id if row else None


def delete_edge(session: Session, edge_id: str) -> None:
    """Take an edge off its blade with its measurements; only where it has no runs."""
    session.execute(delete(MeasurementRow).where(MeasurementRow.edge_id == edge_id))
    session.execute(delete(EdgeRow).where(EdgeRow.id == edge_id))
    session.flush()
