"""The shelf: blades made, changed, archived; their measurements and photos; abrasives."""

from collections import Counter
from collections.abc import Mapping, Set
from dataclasses import dataclass, replace
from typing import Any

from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.facts import QUANTITIES, Measurement, Provenance
from kessik.core.limits import check_limit
from kessik.core.moments import Moment
from kessik.core.pictures import Shown
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Abrasive, check_edge_facts
from kessik.core.shelf.facts import completed
from kessik.core.trials.edges_that_count import edge_waits
from kessik.services.pictures.storing import hide_pictures, keep_picture
from kessik.services.shelf.checks import check_blade
from kessik.services.shelf.facts import restated
from kessik.store.database import Database, Session
from kessik.store.queries import pictures, shelf, soaks

STATED = ("hardness_hrc", "edge_length_mm")


@dataclass(frozen=True)
class Shelved:
    """A blade on the shelf: how many runs it has, the trials it is in, whether its newest edge
    waits to be cut.
    """

    blade: Blade
    runs: int
    trial_ids: tuple[str, ...]
    waiting: bool


def the_shelf(db: Database) -> list[Shelved]:
    """Every blade, archived ones too."""
    with db.read() as session:
        blades = shelf.all_blades(session)
        runs = shelf.runs_by_blade(session)
        trials, cut = shelf.trials_of_blades(session), shelf.cut_edges(session)
    return [
        Shelved(b, runs.get(b.id, 0), tuple(trials.get(b.id, ())), edge_waits(b, cut))
        for b in blades
    ]


def shelved(db: Database, blade_id: str) -> Shelved:
    """One blade of the shelf, or UnknownError."""
    with db.read() as session:
        blade = get_blade(session, blade_id)
        runs = shelf.runs_by_blade(session).get(blade_id, 0)
        trials = shelf.trials_of_blades(session).get(blade_id, ())
        return Shelved(blade, runs, tuple(trials), edge_waits(blade, shelf.cut_edges(session)))


def get_blade(session: Session, blade_id: str) -> Blade:
    """The blade, or UnknownError."""
    blade = shelf.find_blade(session, blade_id)
    if blade is None:
        raise UnknownError("there is no such blade", field="blade")
    return blade


def make_blade(db: Database, blade: Blade) -> Blade:
    """Put a new blade on the shelf; the same id twice is one blade."""
    with db.write() as session:
        return insert_blade(session, blade)


def insert_blade(session: Session, blade: Blade, *, shared_code: bool = False) -> Blade:
    """Add a blade with its edges and measurements inside a transaction.

    ConflictError where its code is taken, unless `shared_code` (a trial read from a file brings its
    own blades).
    """
    check_blade(blade)
    there = shelf.find_blade(session, blade.id)
    if there is not None:
        return there
    if not shared_code:
        refuse_taken_code(session, blade)
    for edge in blade.edges:
        check_edge_facts(edge)
    marked = replace(blade, code=blade.code.strip(), mark=shelf.next_mark(session))
    shelf.save_blade(session, marked)
    shelf.save_measurements(session, blade.id, None, blade.measurements)
    for edge in blade.edges:
        shelf.save_edge(session, edge)
        shelf.save_measurements(session, blade.id, edge.id, edge.measurements)
    return marked


def refuse_taken_code(session: Session, blade: Blade) -> None:
    """A code names one blade; archived ones have given theirs up."""
    there = shelf.codes_there(session)
    others = {code.casefold() for blade_id, code in there.items() if blade_id != blade.id}
    if blade.code.strip().casefold() in others:
        raise _taken(blade.code.strip())


def doubled_codes(session: Session) -> set[str]:
    """Codes, in small letters, that more than one blade has; archived ones have given theirs up."""
    codes = Counter(code.casefold() for code in shelf.codes_there(session).values())
    return {code for code, blades in codes.items() if blades > 1}


def refuse_newly_doubled(session: Session, before: Set[str]) -> None:
    """The same where blades came back onto the shelf, each with its code."""
    doubled = doubled_codes(session) - before
    if doubled:
        codes = shelf.codes_there(session).values()
        raise _taken(next(code for code in codes if code.casefold() in doubled))


def _taken(code: str) -> ConflictError:
    return ConflictError(
        f"there is a blade {code} on the shelf already; use that one, or give this another code",
        field="code",
    )


def change_blade(db: Database, blade_id: str, changes: Mapping[str, Any], now: Moment) -> Blade:
    """Change what is said of a blade; hardness and edge length become one more measurement each."""
    with db.write() as session:
        blade = get_blade(session, blade_id)
        return apply_changes(session, blade, changes, now)


def apply_changes(session: Session, blade: Blade, changes: Mapping[str, Any], now: Moment) -> Blade:
    """The same inside a transaction."""
    plain = {k: v for k, v in changes.items() if k not in (*STATED, "hardness_standing")}
    changed = replace(blade, **plain)
    check_blade(changed)
    if changed.code.strip().casefold() != blade.code.casefold():
        refuse_taken_code(session, changed)
    shelf.save_blade(session, replace(changed, code=changed.code.strip()))
    for quantity in STATED:
        if quantity in changes or (quantity == "hardness_hrc" and "hardness_standing" in changes):
            known = blade.used(quantity)
            value = changes.get(quantity, known.value if known else None)
            standing: Provenance = "measured_here"
            if quantity == "hardness_hrc":
                standing = changes.get("hardness_standing") or standing
            stated = restated(blade.measurements, quantity, value, standing, now.utc)
            shelf.save_measurements(session, blade.id, None, stated)
    return get_blade(session, blade.id)


def archive_blade(db: Database, blade_id: str, archived: bool, now: Moment) -> Blade:
    """Put a blade away, or take it out again."""
    with db.write() as session:
        blade = get_blade(session, blade_id)
        changed = replace(blade, archived_utc=now.utc if archived else None)
        if not archived and blade.archived_utc is not None:
            refuse_taken_code(session, changed)
        shelf.save_blade(session, changed)
    return changed


def check_deletable(db: Database, blade_id: str) -> None:
    """Refuse to take a blade away in passing that something hangs on."""
    with db.read() as session:
        blade = get_blade(session, blade_id)
        if shelf.runs_by_blade(session).get(blade_id):
            raise NotAllowedNowError(
                f"{blade.code} has runs, and they stay in the record; archive it instead",
                field="blade",
            )
        if soaks.soaks_of_blades(session, [blade_id]):
            raise NotAllowedNowError(
                f"{blade.code} is in a soak, which stays in the record; archive it instead",
                field="blade",
            )


def measure(
    db: Database, blade_id: str, edge_id: str | None, measurement: Measurement, now: Moment
) -> Measurement:
    """Keep one more measurement of a blade or of one of its edges; the same id twice is one
    measurement.
    """
    with db.write() as session:
        blade = get_blade(session, blade_id)
        known = shelf.find_measurement(session, measurement.id)
        _check_owner(blade, edge_id, measurement.quantity)
        made = completed(measurement, blade, now.utc)
        if known is not None:
            same = replace(known[2], recorded_utc="", struck="") == replace(
                made, recorded_utc="", struck=""
            )
            if known[:2] != (blade_id, edge_id) or not same:
                raise ConflictError("this id was used for another measurement", field="id")
            return known[2]
        shelf.save_measurements(session, blade_id, edge_id, [made])
    return made


def _check_owner(blade: Blade, edge_id: str | None, name: str) -> None:
    if edge_id is not None and all(edge.id != edge_id for edge in blade.edges):
        raise UnknownError("there is no such edge on this blade", field="edge_id")
    quantity = QUANTITIES.get(name)
    if quantity is None:
        return
    if quantity.of == "edge" and edge_id is None:
        raise OutOfRangeError(f"{quantity.label} belongs to an edge; say which", field="edge_id")
    if quantity.of == "blade" and edge_id is not None:
        raise OutOfRangeError(
            f"{quantity.label} belongs to the blade, not to one edge", field="edge_id"
        )


def exclude_measurement(db: Database, measurement_id: str, reason: str) -> Measurement:
    """Strike a measurement out with a reason, or, with an empty one, let it stand again; it stays
    visible.
    """
    with db.write() as session:
        known = shelf.find_measurement(session, measurement_id)
        if known is None:
            raise UnknownError("there is no such measurement", field="measurement")
        blade_id, edge_id, measurement = known
        struck = replace(measurement, struck=reason.strip())
        shelf.save_measurements(session, blade_id, edge_id, [struck])
    return struck


def add_photo(db: Database, blade_id: str, data: bytes, caption: str, now: Moment) -> Shown:
    """Keep a picture of a blade; RefusedFileError where it is no picture."""
    with db.read() as session:
        get_blade(session, blade_id)
    picture = keep_picture(db, data, now.utc)
    with db.write() as session:
        get_blade(session, blade_id)
        shown = Shown(picture, "blade", blade_id, caption.strip(), now.utc)
        pictures.keep(session, picture)
        pictures.show(session, shown)
    return shown


def delete_photo(db: Database, blade_id: str, content_hash: str) -> None:
    """Take a picture off a blade's page."""
    with db.read() as session:
        shown = pictures.shown_by(session, "blade", blade_id)
    hide_pictures(db, [each for each in shown if each.picture.hash == content_hash])


def save_abrasive(db: Database, abrasive: Abrasive) -> Abrasive:
    """Keep an abrasive of the tester's own."""
    if not abrasive.name.strip():
        raise OutOfRangeError("name the abrasive", field="name")
    if abrasive.size_um is not None:
        check_limit("abrasive_um", abrasive.size_um, "size_um")
    with db.write() as session:
        shelf.save_abrasive(session, abrasive)
    return abrasive
