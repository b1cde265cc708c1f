"""What is noted of blades and grades: energies to break, hours wet without a soak."""

from dataclasses import dataclass, replace
from typing import TypeVar

from kessik.core.errors import ConflictError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS, most
from kessik.core.moments import Moment
from kessik.core.shelf.field_exposures import FieldExposure, check_exposure
from kessik.core.shelf.toughness import Energy, Toughness, check_toughness, energy_of_curve
from kessik.interchange.curves_csv import read_curve
from kessik.interchange.named_files import NamedFile
from kessik.services.reading.grades import get_grade, grades_by_name
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database, Session
from kessik.store.queries import hanging, shelf

N = TypeVar("N", Toughness, FieldExposure)


@dataclass(frozen=True)
class ToughnessPlace:
    """What is known of a blade's or a grade's toughness, and values of others to hold beside it, by
    what those are of.
    """

    own: tuple[Toughness, ...]
    beside: tuple[tuple[str, Toughness], ...]


def toughness_place(db: Database, blade_id: str, grade: str) -> ToughnessPlace:
    """The energies of a blade, or of a grade, with those of all others of an alike test."""
    with db.read() as session:
        every = hanging.all_toughness(session)
        codes = {blade.id: blade.code for blade in shelf.all_blades(session)}
    own = [t for t in every if (t.blade_id == blade_id if blade_id else t.grade == grade)]
    alike = {found.alike for found in own if not found.struck}
    beside = [
        (codes.get(t.blade_id, t.grade), t)
        for t in every
        if t not in own and t.alike in alike and not t.struck
    ]
    return ToughnessPlace(tuple(own), tuple(beside))


def keep_toughness(db: Database, found: Toughness, now: Moment) -> Toughness:
    """Keep an energy; the same id twice is one, with other content a ConflictError."""
    check_toughness(found)
    with db.write() as session:
        there = hanging.find_toughness(session, found.id)
        if there is not None:
            return _same(there, found)
        _check_owner(session, found)
        hanging.save_toughness(session, found, now.utc)
        return found


def _check_owner(session: Session, found: Toughness) -> None:
    if found.blade_id:
        get_blade(session, found.blade_id)
    else:
        get_grade(grades_by_name(session), found.grade)


def exclude_toughness(db: Database, toughness_id: str, reason: str, now: Moment) -> Toughness:
    """Leave an energy out with a reason, or let it count again; it stays visible."""
    with db.write() as session:
        found = hanging.find_toughness(session, toughness_id)
        if found is None:
            raise UnknownError("there is no such toughness", field="toughness")
        struck = replace(found, struck=reason.strip())
        hanging.save_toughness(session, struck, now.utc)
        return struck


def energy_of_file(file: NamedFile) -> Energy:
    """The energy under a force and deflection file; nothing is kept."""
    deflection_mm, force_n = read_curve(file.name, file.data)
    if len(force_n) > most("curve_points"):
        raise OutOfRangeError(LIMITS["curve_points"].says(str(len(force_n))), field="file")
    return energy_of_curve(deflection_mm, force_n)


def exposures_of_blade(db: Database, blade_id: str) -> list[FieldExposure]:
    """The hours that a blade was wet without a soak."""
    with db.read() as session:
        get_blade(session, blade_id)
        return hanging.exposures_of(session, [blade_id])


def keep_exposure(db: Database, found: FieldExposure, now: Moment) -> FieldExposure:
    """Keep an exposure; the same id twice is one, with other content a ConflictError."""
    check_exposure(found)
    with db.write() as session:
        there = hanging.find_exposure(session, found.id)
        if there is not None:
            return _same(there, found)
        get_blade(session, found.blade_id)
        hanging.save_exposure(session, found, now.utc)
        return found


def exclude_exposure(db: Database, exposure_id: str, reason: str, now: Moment) -> FieldExposure:
    """Leave an exposure out with a reason, or let it count again; it stays visible."""
    with db.write() as session:
        found = hanging.find_exposure(session, exposure_id)
        if found is None:
            raise UnknownError("there is no such exposure", field="exposure")
        struck = replace(found, struck=reason.strip())
        hanging.save_exposure(session, struck, now.utc)
        return struck


def _same(there: N, sent: N) -> N:
    if replace(there, struck="") != replace(sent, struck=""):
        raise ConflictError("this was saved before with other content", field="id")
    return there
