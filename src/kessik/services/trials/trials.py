"""Trials: made, changed, and which blades are in them."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from kessik.core.bin import Trace
from kessik.core.errors import ConflictError, NotAllowedNowError, UnknownError
from kessik.core.moments import Moment
from kessik.core.shelf.blades import Blade, TrialRole, split_arm_id
from kessik.core.trials.arms import check_arms
from kessik.core.trials.trial import Trial, check_trial
from kessik.services.reading.trials import get_trial
from kessik.services.shelf.blades import apply_changes, get_blade, insert_blade
from kessik.services.trials.methods import with_version
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, traces, trials

_RULE = ("factor", "hardness_reading", "tolerances", "effects", "let_go", "scale_edge_length")
_SETTLED = {
    "settled_kind": "kind",
    "settled_edge_number": "edge_number",
    "settled_steel_removed_mm": "steel_removed_mm",
}


def make_trial(db: Database, trial: Trial) -> Trial:
    """Make a trial; an id that exists already is answered with the trial as it is, changed or
    not.
    """
    check_trial(trial)
    with db.write() as session:
        existing = trials.find_trial(session, trial.id)
        if existing is not None:
            return existing
        made = with_version(session, trial, trial.created.utc)
        trials.save_trial(session, made)
    return made


def change_trial(
    db: Database, trial_id: str, changes: Mapping[str, Any], now: Moment, reason: str = ""
) -> Trial:
    """Change some of a trial's settings, each with a trace; which edges count is fixed once a
    counted run has begun.
    """
    with db.write() as session:
        trial = get_trial(session, trial_id)
        changed = _changed(trial, changes)
        begun = any(not run.practice for run in bench_log.runs_of(session, trial_id))
        if changed.settled_rule != trial.settled_rule and begun:
            raise NotAllowedNowError(
                "which edges count was fixed before the first cut; decide otherwise for single"
                " edges, with a reason",
                field="settled_kind",
            )
        check_trial(changed)
        trials.save_trial(session, changed)
        for what in changes:
            was, becomes = _told(trial, what), _told(changed, what)
            if was != becomes:
                key = f"{trial_id}:{what}:{now.utc}"
                made = Trace(
                    key, "trial", trial_id, trial_id, what, was, becomes, reason.strip(), now.utc
                )
                traces.add(session, made)
    return changed


def _told(trial: Trial, what: str) -> object:
    """What a trial says at a field that can be changed, as plain JSON."""
    if what == "created":
        return trial.created.utc[:10]
    if what in _RULE:
        found = getattr(trial.rule, what)
        return list(found) if isinstance(found, tuple) else found
    if what in _SETTLED:
        return getattr(trial.settled_rule, _SETTLED[what])
    return getattr(trial, what)


def put_trial_away(db: Database, trial_id: str, archived: bool, now: Moment) -> None:
    """Put a trial into the archive, or take it out."""
    with db.write() as session:
        get_trial(session, trial_id)
        traces.set_archived(session, "trial", trial_id, now.utc if archived else None)


def archived_trials(db: Database) -> dict[str, str]:
    """The trials that were put away: since when, by id."""
    with db.read() as session:
        return traces.archived(session, "trial")


def see_cautions(db: Database, trial_id: str, seen_utc: str | None) -> Trial:
    """Put the cautions of a trial away once they were read, or bring them back."""
    with db.write() as session:
        changed = replace(get_trial(session, trial_id), cautions_seen_utc=seen_utc)
        trials.save_trial(session, changed)
    return changed


def _changed(trial: Trial, changes: Mapping[str, Any]) -> Trial:
    grouped = {*_RULE, *_SETTLED}
    rest = {k: v for k, v in changes.items() if k not in grouped}
    settled = {_SETTLED[k]: v for k, v in changes.items() if k in _SETTLED}
    rule: dict[str, Any] = {
        k: tuple(v) if k == "let_go" else v for k, v in changes.items() if k in _RULE
    }
    return replace(
        trial,
        rule=replace(trial.rule, **rule),
        settled_rule=replace(trial.settled_rule, **settled),
        **rest,
    )


def add_blade(db: Database, trial_id: str, blade: Blade) -> Blade:
    """Add a new blade, with the edges it carries, to the shelf and to a trial."""
    with db.write() as session:
        get_trial(session, trial_id)
        _refuse_second_code(session, trial_id, blade)
        made = insert_blade(session, blade)
        place = trials.place_blade(session, trial_id, blade.id, blade.role)
    return replace(made, place=place, role=blade.role)


def take_from_shelf(
    db: Database, trial_id: str, blade_id: str, role: TrialRole, arms: Sequence[str] | None = None
) -> Blade:
    """Put a blade of the shelf in a trial, or change what it is there for, and under which
    preparations it is compared.
    """
    with db.write() as session:
        trial = get_trial(session, trial_id)
        blade = get_blade(session, blade_id)
        if blade.archived_utc is not None:
            raise NotAllowedNowError(
                f"{blade.code} is archived; restore it from the archive first", field="blade"
            )
        _refuse_second_code(session, trial_id, blade)
        place = trials.place_blade(session, trial_id, blade_id, role)
        trials.set_role(session, trial_id, blade_id, role)
        if arms is not None:
            before = next(b for b in trials.blades_of(session, trial_id) if b.id == blade_id)
            stated = check_arms(trial, before, arms)
            trials.set_arms(session, trial_id, blade_id, stated)
            blade = replace(blade, arms=stated)
    return replace(blade, place=place, role=role)


def _refuse_second_code(session: Session, trial_id: str, blade: Blade) -> None:
    for other in trials.blades_of(session, trial_id):
        if other.id != blade.id and other.code.casefold() == blade.code.strip().casefold():
            raise ConflictError(
                f"there is a blade {other.code} in this trial already; give this one another code",
                field="code",
            )


def change_blade(
    db: Database, trial_id: str, blade_id: str, changes: Mapping[str, Any], now: Moment
) -> Blade:
    """Change facts of a blade of this trial."""
    with db.write() as session:
        placed = next((b for b in trials.blades_of(session, trial_id) if b.id == blade_id), None)
        if placed is None:
            raise UnknownError("there is no such blade in this trial", field="blade")
        if "code" in changes:
            _refuse_second_code(session, trial_id, replace(placed, code=changes["code"]))
        changed = apply_changes(session, placed, changes, now)
    return replace(changed, place=placed.place, role=placed.role)


def delete_place(db: Database, trial_id: str, blade_id: str) -> None:
    """Take a blade out of the trial; not once it has been cut in it."""
    with db.write() as session:
        edge_ids = {
            e.id for b in trials.blades_of(session, trial_id) if b.id == blade_id for e in b.edges
        }
        if any(run.edge_id in edge_ids for run in bench_log.runs_of(session, trial_id)):
            raise NotAllowedNowError(
                "this blade has been cut in this trial; its runs stay in the record", field="blade"
            )
        trials.delete_place(session, trial_id, blade_id)


def check_in_trial(db: Database, trial_id: str, arm_ids: Sequence[str]) -> None:
    """UnknownError where a blade of one of these arms is not in the trial."""
    with db.read() as session:
        get_trial(session, trial_id)
        there = {blade.id for blade in trials.blades_of(session, trial_id)}
    if not {split_arm_id(arm_id)[0] for arm_id in arm_ids} <= there:
        raise UnknownError("one of these blades is not in this trial", field="edge_ids")
