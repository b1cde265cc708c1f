"""What is still being brought in: stored in pieces, seen by nobody until all of it is there."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import ColumnElement, delete, select, text, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import InstrumentedAttribute, Session

from kessik.core.errors import ConflictError
from kessik.store.tables import (
    BladeRow,
    EdgeRow,
    EventRow,
    MeasurementRow,
    MethodRow,
    RevisionRow,
    RunRow,
    TrialBladeRow,
    TrialRow,
)

_AT_ONCE = 400


def mark(
    session: Session, arrival: str, trial_ids: Sequence[str] = (), blade_ids: Sequence[str] = ()
) -> None:
    """Hide trials and blades until their arrival lands."""
    session.execute(update(TrialRow).where(TrialRow.id.in_(trial_ids)).values(arriving=arrival))
    session.execute(update(BladeRow).where(BladeRow.id.in_(blade_ids)).values(arriving=arrival))


def stand_in_trial(session: Session, arrival: str, trial_id: str) -> None:
    """Hide a trial that only stands in for another: no answer to it is ever asked for, so that
    nothing counts how often it changes.
    """
    mark(session, arrival, trial_ids=[trial_id])
    session.execute(delete(RevisionRow).where(RevisionRow.trial_id == trial_id))


def land(session: Session, arrival: str) -> None:
    """All of it is there: from here on it is seen."""
    session.execute(update(TrialRow).where(TrialRow.arriving == arrival).values(arriving=None))
    session.execute(update(BladeRow).where(BladeRow.arriving == arrival).values(arriving=None))


@dataclass(frozen=True)
class PlaceholderRows:
    """What was stored in the place of a trial, of blades and of edges that are there already, each
    with what it stands for.
    """

    trial: tuple[str, str]
    blades: Mapping[str, str]
    edges: Mapping[str, str]


def move_in(session: Session, stand_ins: PlaceholderRows) -> None:
    """Move runs and edges from their stand-ins to what these stand for; ConflictError where a place
    was taken meanwhile.
    """
    aside, trial_id = stand_ins.trial
    try:
        if stand_ins.edges:
            driver = session.connection()
            driver.exec_driver_sql(
                "UPDATE run SET edge_id = ? WHERE edge_id = ?",
                [(edge_id, stand_in) for stand_in, edge_id in stand_ins.edges.items()],
            )
            gone = [(stand_in,) for stand_in in stand_ins.edges]
            driver.exec_driver_sql("DELETE FROM edge WHERE id = ?", gone)
        for stand_in, blade_id in stand_ins.blades.items():
            of_blade = update(EdgeRow).where(EdgeRow.blade_id == stand_in)
            session.execute(of_blade.values(blade_id=blade_id))
        session.execute(update(RunRow).where(RunRow.trial_id == aside).values(trial_id=trial_id))
    except IntegrityError as taken:
        raise ConflictError(
            "one of these edges came onto the shelf meanwhile, or its blade or trial was taken"
            " away; look it over again",
            field="file",
        ) from taken
    session.execute(delete(BladeRow).where(BladeRow.id.in_(stand_ins.blades)))
    session.execute(delete(TrialRow).where(TrialRow.id == aside))


def all_arrivals(session: Session) -> set[str]:
    """Arrivals that have not landed."""
    trials = session.scalars(select(TrialRow.arriving).where(TrialRow.arriving.is_not(None)))
    blades = session.scalars(select(BladeRow.arriving).where(BladeRow.arriving.is_not(None)))
    return {arrival for arrival in (*trials, *blades) if arrival is not None}


def delete_some(session: Session, arrival: str) -> bool:
    """Take a piece of an arrival away again; whether there is more of it."""
    trials = select(TrialRow.id).where(TrialRow.arriving == arrival)
    blades = select(BladeRow.id).where(BladeRow.arriving == arrival)
    runs = select(RunRow.id).where(RunRow.trial_id.in_(trials))
    many: Sequence[tuple[InstrumentedAttribute[Any], ColumnElement[bool]]] = (
        (EventRow.position, EventRow.run_id.in_(runs)),
        (RunRow.id, RunRow.trial_id.in_(trials)),
        (MeasurementRow.id, MeasurementRow.blade_id.in_(blades)),
        (EdgeRow.id, EdgeRow.blade_id.in_(blades)),
    )
    for key, where in many:
        found = select(key).where(where).limit(_AT_ONCE)
        if key.class_ is RunRow:
            found = found.order_by(text("run.rowid DESC"))  # a run may go on from an older one
        some = session.scalars(found).all()
        if some:
            session.execute(delete(key.class_).where(key.in_(some)))
            return True
    _delete_rest(session, arrival)
    return False


def _delete_rest(session: Session, arrival: str) -> None:
    trials = select(TrialRow.id).where(TrialRow.arriving == arrival)
    methods = session.scalars(select(TrialRow.method_id).where(TrialRow.arriving == arrival)).all()
    others = select(TrialRow.method_id).where(
        TrialRow.method_id.is_not(None), TrialRow.arriving.is_distinct_from(arrival)
    )
    lines = session.scalars(
        select(MethodRow.line_id).where(MethodRow.id.in_(methods), MethodRow.id.not_in(others))
    ).all()
    session.execute(delete(TrialBladeRow).where(TrialBladeRow.trial_id.in_(trials)))
    session.execute(delete(BladeRow).where(BladeRow.arriving == arrival))
    session.execute(delete(TrialRow).where(TrialRow.arriving == arrival))
    session.execute(delete(MethodRow).where(MethodRow.line_id.in_(lines)))
