"""What is noted of blades and grades: energies to break, hours wet without a soak, care."""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from kessik.core.errors import ConflictError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS, most
from kessik.core.moments import Moment
from kessik.core.shelf.care import CareAct, check_care
from kessik.core.shelf.field_exposures import FieldExposure, check_exposure
from kessik.core.shelf.toughness import Energy, Toughness, check_toughness, energy_of_curve
from kessik.interchange.curves_csv import read_curve
from kessik.interchange.named_files import NamedFile
from kessik.services.reading.grades import get_grade, grades_by_name
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database
from kessik.store.queries import hanging, shelf
from kessik.store.queries.hanging import Noted

_CALLED: Mapping[type, str] = {
    Toughness: "toughness", FieldExposure: "exposure", CareAct: "act of care",
}  # fmt: skip  # a table is read by its rows


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
        every = hanging.all_noted(session, Toughness)
        codes = {blade.id: blade.code for blade in shelf.all_blades(session)}
    own = [t for t in every if (t.blade_id == blade_id if blade_id else t.grade == grade)]
    alike = {found.alike for found in own if not found.struck}
    beside = [
        (codes.get(t.blade_id, t.grade), t)
        for t in every
        if t not in own and t.alike in alike and not t.struck
    ]
    return ToughnessPlace(tuple(own), tuple(beside))


def noted_of_blade(db: Database, kind: type[Noted], blade_id: str) -> list[Noted]:
    """What of a kind is noted of a blade."""
    with db.read() as session:
        get_blade(session, blade_id)
        return hanging.noted_of(session, kind, [blade_id])


def keep(db: Database, found: Noted, now: Moment) -> Noted:
    """Keep what is noted; the same id twice is one, with other content a ConflictError."""
    _check(found)
    with db.write() as session:
        there = hanging.find_noted(session, type(found), found.id)
        if there is not None:
            return _same(there, found)
        if found.blade_id:
            get_blade(session, found.blade_id)
        elif isinstance(found, Toughness):
            get_grade(grades_by_name(session), found.grade)
        hanging.save_noted(session, found, now.utc)
        return found


def exclude(db: Database, kind: type[Noted], noted_id: str, reason: str, now: Moment) -> Noted:
    """Leave something out with a reason, or let it count again; it stays visible."""
    with db.write() as session:
        found = hanging.find_noted(session, kind, noted_id)
        if found is None:
            raise UnknownError(f"there is no such {_CALLED[kind]}", field="id")
        struck = replace(found, struck=reason.strip())
        hanging.save_noted(session, struck, now.utc)
        return struck


def _check(found: Toughness | FieldExposure | CareAct) -> None:
    match found:
        case Toughness():
            check_toughness(found)
        case FieldExposure():
            check_exposure(found)
        case CareAct():
            check_care(found)


def _same(there: Noted, sent: Noted) -> Noted:
    if replace(there, struck="") != replace(sent, struck=""):
        raise ConflictError("this was saved before with other content", field="id")
    return there


def energy_of_file(file: NamedFile) -> Energy:
    """The energy under a force and deflection file; nothing is kept."""
    deflection_mm, force_n = read_curve(file.name, file.data)
    if len(force_n) > most("curve_points"):
        raise OutOfRangeError(LIMITS["curve_points"].says(str(len(force_n))), field="file")
    return energy_of_curve(deflection_mm, force_n)
