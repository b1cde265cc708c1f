"""What waits on the shelf: blades lent, and hardness that is not known."""

from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.facts import Measurement
from kessik.store.queries.shelf import measurement_of
from kessik.store.tables import BladeRow, MeasurementRow, TrialBladeRow

_THERE = BladeRow.archived_utc.is_(None) & BladeRow.arriving.is_(None)


@dataclass(frozen=True)
class LentBlade:
    """A blade that is lent and has a day to go back."""

    id: str
    code: str
    mark: int
    loan_from: str
    lent_to: str
    loan_due: str
    loan_returned: str


def lent_blades(session: Session) -> list[LentBlade]:
    """The blades that are to go back to whoever lent them."""
    found = (
        select(
            *(BladeRow.id, BladeRow.code, BladeRow.mark),
            *(BladeRow.loan_from, BladeRow.lent_to, BladeRow.loan_due, BladeRow.loan_returned),
        )
        .where(_THERE, BladeRow.loan_due != "", BladeRow.loan_returned == "")
        .order_by(BladeRow.mark, BladeRow.code)
    )
    return [LentBlade(*row) for row in session.execute(found)]


@dataclass(frozen=True)
class MarkedBlade:
    """A blade by its code and its mark."""

    code: str
    mark: int


def blades_there(session: Session) -> dict[str, MarkedBlade]:
    """The blades that are not archived, by id, in the order of the shelf."""
    found = select(BladeRow.id, BladeRow.code, BladeRow.mark).where(_THERE)
    rows = session.execute(found.order_by(BladeRow.mark, BladeRow.code))
    return {blade_id: MarkedBlade(code, mark) for blade_id, code, mark in rows}


@dataclass(frozen=True)
class KnownHardness:
    """A blade with all that was ever said of its hardness."""

    id: str
    code: str
    mark: int
    measurements: tuple[Measurement, ...]


def hardness_of_blades_in_trials(session: Session) -> list[KnownHardness]:
    """Every blade that is in a trial, with its hardness."""
    in_trials = select(TrialBladeRow.blade_id)
    blades = session.execute(
        select(BladeRow.id, BladeRow.code, BladeRow.mark)
        .where(_THERE, BladeRow.id.in_(in_trials))
        .order_by(BladeRow.mark, BladeRow.code)
    )
    rows = session.scalars(
        select(MeasurementRow).where(
            MeasurementRow.quantity == "hardness_hrc", MeasurementRow.edge_id.is_(None)
        )
    )
    by_blade: dict[str, list[Measurement]] = {}
    for row in rows:
        by_blade.setdefault(row.blade_id, []).append(measurement_of(row))
    return [
        KnownHardness(blade_id, code, mark, tuple(by_blade.get(blade_id, ())))
        for blade_id, code, mark in blades
    ]
