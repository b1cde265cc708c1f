"""The bin: what hangs on a thing is named before it goes, and all of it comes back whole."""

from collections.abc import Callable, Mapping
from datetime import datetime

from kessik.core.bin import BIN_DAYS, Deletable, InBin
from kessik.core.errors import ConflictError, NotAllowedNowError, UnknownError
from kessik.core.moments import Moment
from kessik.core.runs import Run
from kessik.core.trials.run_admission import cut_twice
from kessik.core.words.bin import held_words, run_name
from kessik.services.reading.trials import get_trial
from kessik.services.record.bin_moves import coming_back, leaving
from kessik.services.shelf.blades import doubled_codes, get_blade, refuse_newly_doubled
from kessik.services.soaks.soaks import get_soak
from kessik.store import seen_days
from kessik.store.database import Database, Session
from kessik.store.queries import (
    bench_log,
    binning,
    methods,
    shelf,
    soaks,
    stock,
    trials,
)
from kessik.store.queries.restoring_rows import Back


def dependents(db: Database, kind: Deletable, owner_id: str) -> tuple[str, list[str]]:
    """What a thing is called, and what would go with it, in words."""
    with db.read() as session:
        return _LOOKS[kind](session, owner_id)


def move_to_bin(
    db: Database, bin_id: str, kind: Deletable, owner_id: str, reason: str, now: Moment
) -> InBin:
    """Put a thing into the bin with all that hangs on it; the same id twice is once."""
    with db.read() as session:
        known = binning.find_binned(session, bin_id)
        if known is not None:
            return known
        _LOOKS[kind](session, owner_id)
    with leaving(db, kind, {"id": owner_id}) as move, db.write() as session:
        known = binning.find_binned(session, bin_id)
        if known is not None:
            return known
        name, holds = _LOOKS[kind](session, owner_id)
        entry = InBin(bin_id, kind, owner_id, name, tuple(holds), reason.strip(), now.utc)
        move(session, entry)
    return entry


def in_bin(db: Database) -> list[InBin]:
    """What lies in the bin, the newest first."""
    with db.read() as session:
        return binning.all_binned(session)


def restore(db: Database, bin_id: str) -> InBin:
    """Bring a thing back whole."""
    with coming_back(db, bin_id) as land, db.write() as session:
        entry = _entry(session, bin_id)
        doubled = doubled_codes(session)
        back = land(session)
        refuse_newly_doubled(session, doubled)
        _refuse_cut_meanwhile(session, back)
    return entry


def _refuse_cut_meanwhile(session: Session, back: Back) -> None:
    """An edge is cut once; runs that stood beside each other before may do so again."""
    if back.beside is None:
        return
    for runs in bench_log.runs_beside(session, list(back.runs)).values():
        if cut_twice(back.runs, [run for run in runs if run.id not in back.beside]):
            raise ConflictError(
                "an edge of it was cut again meanwhile, and an edge is cut once; delete that"
                " run first",
                field="bin",
            )


def delete_for_good(db: Database, bin_id: str) -> None:
    """Let a thing go for good."""
    with db.write() as session:
        _entry(session, bin_id)
        binning.delete_for_good(session, bin_id)


def delete_expired(db: Database) -> None:
    """Let go for good what has lain in the bin for its days: days on which the folder was looked
    after, whatever the clock said between them.
    """
    for entry in in_bin(db):
        binned = datetime.fromisoformat(entry.binned_utc).date()
        if seen_days.days_since(db.folder, binned) >= BIN_DAYS:
            delete_for_good(db, entry.id)


def _entry(session: Session, bin_id: str) -> InBin:
    found = binning.find_binned(session, bin_id)
    if found is None:
        raise UnknownError("it is not in the bin; it may be back already", field="bin")
    return found


def _trial(session: Session, trial_id: str) -> tuple[str, list[str]]:
    trial = get_trial(session, trial_id)
    runs = len(bench_log.run_ids_of(session, trial_id))
    blades = len(trials.blades_of(session, trial_id))
    return trial.name, held_words([("run", runs), ("staying_blade", blades)])


def _run(session: Session, run_id: str) -> tuple[str, list[str]]:
    run = bench_log.find_run(session, run_id)
    if run is None:
        raise UnknownError("there is no such run", field="run")
    later = [r for r in bench_log.runs_on_edge(session, run.edge_id) if r.after_strop_of == run_id]
    if later:
        raise NotAllowedNowError(
            "this edge was cut again after it was stropped back; delete that run first",
            field="run",
        )
    trial = get_trial(session, run.trial_id)
    events = held_words([("event", len(bench_log.events_of(session, run_id)))])
    is_covered = trial.is_blind and not run.practice
    edge = None if is_covered else _edge_of(session, run)
    return run_name(trial.name, run.number, edge), events


def _edge_of(session: Session, run: Run) -> tuple[str, int] | None:
    blades = trials.blades_of(session, run.trial_id)
    own = ((b.code, e.number) for b in blades for e in b.edges if e.id == run.edge_id)
    return next(own, None)


def _blade(session: Session, blade_id: str) -> tuple[str, list[str]]:
    blade = get_blade(session, blade_id)
    runs = shelf.runs_by_blade(session).get(blade_id, 0)
    places = len(shelf.trials_of_blades(session).get(blade_id, ()))
    soaked = len(soaks.soaks_of_blades(session, [blade_id]))
    return blade.code, held_words(
        [
            ("edge", len(blade.edges)),
            ("measurement", len(blade.measurements)),
            ("run", runs),
            ("place", places),
            ("soak", soaked),
        ]
    )


def _lot(session: Session, lot_id: str) -> tuple[str, list[str]]:
    lot = stock.find_lot(session, lot_id)
    if lot is None:
        raise UnknownError("there is no such lot", field="lot")
    took = [
        run
        for run in bench_log.all_runs(session)
        if any(booking.lot_id == lot_id for booking in run.bookings)
    ]
    return lot.name, held_words([("run_of_lot", len(took))])


def _method(session: Session, line_id: str) -> tuple[str, list[str]]:
    lines = [v for v in methods.newest_versions(session) if v.line_id == line_id]
    if not lines:
        raise UnknownError("there is no such method", field="method")
    using = [t.name for t in trials.all_trials(session) if _goes_by(session, t.method_id, line_id)]
    if using or methods.runs_under(session, line_id):
        named = f"{', '.join(using[:3])} uses it" if using else "runs were cut under it"
        raise NotAllowedNowError(
            f"{named}, and results need their method; archive it instead",
            field="method",
        )
    return lines[0].method.name, []


def _goes_by(session: Session, method_id: str, line_id: str) -> bool:
    version = methods.find_version(session, method_id)
    return version is not None and version.line_id == line_id


def _soak(session: Session, soak_id: str) -> tuple[str, list[str]]:
    soak = get_soak(session, soak_id)
    looks = len(soaks.looks_by_soak(session, [soak_id])[soak_id])
    return soak.name, held_words([("coupon", len(soak.coupons)), ("look", looks)])


_LOOKS: Mapping[Deletable, Callable[[Session, str], tuple[str, list[str]]]] = {
    "trial": _trial,
    "run": _run,
    "blade": _blade,
    "lot": _lot,
    "method": _method,
    "soak": _soak,
}
