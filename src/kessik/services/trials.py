"""Trials, blades and edges: made, changed, and laid out for the line-up."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from kessik.core.comparison.matching import FACTORS, BladeFacts, Cell, Fact, match
from kessik.core.comparison.verdict import pending_words, scope_words
from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.geometry import included_angle_deg
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, trials
from kessik.store.records import Blade, Edge, Run, Trial


@dataclass(frozen=True)
class LineUp:
    """A trial with its blades, what is matched, what is open, and the scope an answer could have."""

    trial: Trial
    blades: tuple[Blade, ...]
    runs: tuple[Run, ...]
    cells: tuple[Cell, ...]
    pending: tuple[str, ...]
    scope: str


def get_trial(session: Session, trial_id: str) -> Trial:
    """The trial, or UnknownError."""
    trial = trials.find_trial(session, trial_id)
    if trial is None:
        raise UnknownError("there is no such trial", field="trial")
    return trial


def make_trial(db: Database, trial: Trial) -> Trial:
    """Make a trial; an id that exists already is answered with the trial as it is, changed or not."""
    check_trial(trial)
    with db.write() as session:
        existing = trials.find_trial(session, trial.id)
        if existing is not None:
            return existing
        trials.save_trial(session, trial)
    return trial


def check_trial(trial: Trial) -> None:
    """Refuse a trial without a name, with an unknown factor, or with an impossible rope."""
    if not trial.name.strip():
        raise OutOfRangeError("give the trial a name", field="name")
    if trial.rule.factor not in FACTORS:
        raise OutOfRangeError(
            f"the factor {trial.rule.factor!r} is not one of {', '.join(FACTORS)}",
            field="factor",
            value=trial.rule.factor,
        )
    if trial.rope_diameter_mm is not None and not 0 < trial.rope_diameter_mm <= 200:
        raise OutOfRangeError(
            f"a rope of {trial.rope_diameter_mm:g} mm cannot be cut here; above 0 and up to 200 mm can",
            field="rope_diameter_mm",
            value=trial.rope_diameter_mm,
        )


def change_trial(db: Database, trial_id: str, changes: Mapping[str, Any]) -> Trial:
    """Change some of a trial's settings; its method is fixed once a counted run has begun."""
    with db.write() as session:
        trial = get_trial(session, trial_id)
        method_changes = {k: v for k, v in changes.items() if k in ("keen_gf", "dull_gf", "schedule", "every")}
        rule_changes = {k: v for k, v in changes.items() if k in ("factor", "hardness_reading", "tolerances")}
        rest = {k: v for k, v in changes.items() if k not in method_changes and k not in rule_changes}
        changed = replace(
            trial, method=replace(trial.method, **method_changes), rule=replace(trial.rule, **rule_changes), **rest
        )
        if changed.method != trial.method and any(not run.practice for run in bench_log.runs_of(session, trial_id)):
            raise NotAllowedNowError(
                "a run was cut under this method already; make a new trial for another", field="method"
            )
        check_trial(changed)
        trials.save_trial(session, changed)
    return changed


def add_blade(db: Database, trial_id: str, blade: Blade) -> Blade:
    """Add a new blade, with the edges it carries, to a trial."""
    with db.write() as session:
        get_trial(session, trial_id)
        place = insert_blade(session, trial_id, blade)
    return replace(blade, place=place)


def insert_blade(session: Session, trial_id: str, blade: Blade) -> int:
    """Add a blade inside a transaction; ConflictError where its code is taken in this trial."""
    check_blade(blade)
    others = trials.blades_of(session, trial_id)
    if any(other.id == blade.id for other in others):
        return next(other.place for other in others if other.id == blade.id)
    if any(other.code.casefold() == blade.code.strip().casefold() for other in others):
        raise ConflictError(
            f"there is a blade {blade.code} in this trial already; give this one another code", field="code"
        )
    trials.save_blade(session, blade)
    place = trials.place_blade(session, trial_id, blade.id)
    for edge in blade.edges:
        check_edge(edge)
        trials.save_edge(session, edge)
    return place


def change_blade(db: Database, trial_id: str, blade_id: str, changes: Mapping[str, Any]) -> Blade:
    """Change facts of a blade."""
    with db.write() as session:
        blades = trials.blades_of(session, trial_id)
        blade = next((b for b in blades if b.id == blade_id), None)
        if blade is None:
            raise UnknownError("there is no such blade in this trial", field="blade")
        changed = replace(blade, **changes)
        check_blade(changed)
        if any(b.code.casefold() == changed.code.casefold() and b.id != blade_id for b in blades):
            raise ConflictError(f"there is a blade {changed.code} in this trial already", field="code")
        trials.save_blade(session, changed)
    return changed


def drop_blade(db: Database, trial_id: str, blade_id: str) -> None:
    """Take a blade out of the trial; not once it has been cut in it."""
    with db.write() as session:
        edge_ids = {e.id for b in trials.blades_of(session, trial_id) if b.id == blade_id for e in b.edges}
        if any(run.edge_id in edge_ids for run in bench_log.runs_of(session, trial_id)):
            raise NotAllowedNowError(
                "this blade has been cut in this trial; its runs stay in the record", field="blade"
            )
        trials.remove_blade(session, trial_id, blade_id)


def save_edge(db: Database, trial_id: str, edge: Edge) -> Edge:
    """Record a sharpening, or change what is known of one."""
    check_edge(edge)
    with db.write() as session:
        blade = next((b for b in trials.blades_of(session, trial_id) if b.id == edge.blade_id), None)
        if blade is None:
            raise UnknownError("there is no such blade in this trial", field="blade")
        if any(e.number == edge.number and e.id != edge.id for e in blade.edges):
            raise ConflictError(f"{blade.code} has an edge {edge.number} already", field="number")
        trials.save_edge(session, edge)
    return edge


def check_blade(blade: Blade) -> None:
    if not blade.code.strip():
        raise OutOfRangeError("give the blade a code", field="code")
    _within(blade.hardness_hrc, 0, 75, "hardness", "HRC", "hardness_hrc")
    _within(blade.edge_length_mm, 0, 2000, "edge length", "mm", "edge_length_mm")
    low, high = blade.usual_hardness_low_hrc, blade.usual_hardness_high_hrc
    _within(low, 0, 75, "usual hardness", "HRC", "usual_hardness_low_hrc")
    _within(high, 0, 75, "usual hardness", "HRC", "usual_hardness_high_hrc")
    if low is not None and high is not None and low > high:
        raise OutOfRangeError(
            f"the usual hardness runs from {low:g} to {high:g}; put the lower first", field="usual_hardness_low_hrc"
        )


def check_edge(edge: Edge) -> None:
    if edge.number < 1:
        raise OutOfRangeError("edges are numbered from 1 since new", field="number", value=edge.number)
    for angle, field in ((edge.side_angle_deg, "side_angle_deg"), (edge.micro_bevel_side_deg, "micro_bevel_side_deg")):
        if angle is not None:
            included_angle_deg(angle)
            _within(angle, 0, 60, "angle per side", "°", field)
    _within(edge.thickness_behind_edge_mm, 0, 10, "thickness behind the edge", "mm", "thickness_behind_edge_mm")


def _within(value: float | None, above: float, most: float, what: str, unit: str, field: str) -> None:
    if value is not None and not above < value <= most:
        raise OutOfRangeError(
            f"{what} of {value:g} {unit} cannot be; above {above:g} and up to {most:g} {unit} can",
            field=field,
            value=value,
        )


def edges_in_use(blade: Blade, runs: Sequence[Run]) -> list[Edge]:
    """The edges a comparison rests on: those cut in counted runs, else the newest one."""
    cut = [edge for edge in blade.edges if any(run.edge_id == edge.id and not run.practice for run in runs)]
    return cut or list(blade.edges[-1:])


def blade_facts(blade: Blade, edges: Sequence[Edge]) -> BladeFacts:
    """What matching needs to know of a blade and its edges."""
    low, high = blade.usual_hardness_low_hrc, blade.usual_hardness_high_hrc
    return BladeFacts(
        code=blade.code,
        grade=blade.claimed_grade,
        hardness_hrc=Fact(blade.hardness_hrc, blade.hardness_standing),
        usual_hardness_hrc=(low, high) if low is not None and high is not None else None,
        edges={
            name: [getattr(edge, name) for edge in edges]
            for name in ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm")
        },
        micro_bevel_known=any(edge.side_angle_deg is not None for edge in edges),
    )


def line_up(db: Database, trial_id: str) -> LineUp:
    """The trial as the line-up shows it."""
    with db.read() as session:
        trial = get_trial(session, trial_id)
        blades = trials.blades_of(session, trial_id)
        runs = bench_log.runs_of(session, trial_id)
    facts = [blade_facts(blade, edges_in_use(blade, runs)) for blade in blades]
    cells = match(facts, trial.rule)
    pending = pending_words(cells, facts, trial.rule)
    scope = scope_words(trial.rule, bool(pending), any(cell.state == "confounded" for cell in cells))
    return LineUp(trial, tuple(blades), tuple(runs), tuple(cells), pending, scope)
