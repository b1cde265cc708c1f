"""A run put right after it was cut: another edge, arm, block or trial; practice after all. What it
was stays to be seen as a trace.
"""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from kessik.core.bin import Trace
from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.moments import Moment
from kessik.core.runs import Run
from kessik.core.trials.run_admission import check_zone, same_steel
from kessik.services.bench.bench import Bench
from kessik.services.reading.trials import get_trial
from kessik.store.database import Session
from kessik.store.queries import bench_log, traces, trials

CHANGES = (
    "trial_id", "edge_id", "arm", "block", "practice", "verifies_run_id", "check_every",
    "operator", "started", "note",
)  # fmt: skip  # names, several a line
_WITHOUT_REASON = frozenset({"operator", "note"})


def change_run(
    bench: Bench, run_id: str, changes: Mapping[str, Any], reason: str, trace_id: str, now: Moment
) -> Run:
    """Change what is said of a run, for a reason; the same change twice is one.

    NotAllowedNowError where the run does not fit there.
    """
    if not reason.strip() and set(changes) - _WITHOUT_REASON:
        raise OutOfRangeError("say why: it stays in the record", field="reason")
    with bench.db.write() as session:
        before = bench_log.find_run(session, run_id)
        if before is None:
            raise UnknownError("there is no such run", field="run")
        after = _changed(before, changes)
        if after == before:
            return before
        _check_fits(session, before, after)
        if (after.trial_id, after.edge_id) != (before.trial_id, before.edge_id):
            others = bench_log.runs_on_edge(session, after.edge_id)
            own = [r for r in others if r.trial_id == after.trial_id and r.id != run_id]
            after = replace(after, number=1 + max((r.number for r in own), default=0))
        bench_log.save_run(session, after)
        for trace in _traces(session, before, after, reason.strip(), trace_id, now):
            traces.add(session, trace)
    bench.logs.evict(run_id)
    return after


def _changed(run: Run, changes: Mapping[str, Any]) -> Run:
    plain = {name: value for name, value in changes.items() if name != "note"}
    if "note" in changes:
        plain["other"] = {**run.other, "note": str(changes["note"]).strip()}
    return replace(run, **plain)


def _check_fits(session: Session, before: Run, after: Run) -> None:
    trial = get_trial(session, after.trial_id)
    blades = trials.blades_of(session, trial.id)
    blade = next((b for b in blades for edge in b.edges if edge.id == after.edge_id), None)
    if blade is None:
        raise UnknownError(f"this edge is of no blade in {trial.name}", field="edge_id")
    if before.trial_id != after.trial_id:
        if trial.is_blind:
            raise NotAllowedNowError(
                f"{trial.name} is blind; reveal its codes before a run is moved there",
                field="trial_id",
            )
        unit = trial.method.count_unit
        if unit != after.count_unit:
            raise NotAllowedNowError(
                f"this run counts {after.count_unit}, and {trial.name} counts {unit}",
                field="trial_id",
            )
    if before.practice and not after.practice and before.practice_seed is not None:
        raise NotAllowedNowError(
            "its readings came from the virtual bench; a practice run of that kind stays one",
            field="practice",
        )
    if after.verifies_run_id:
        verified = bench_log.find_run(session, after.verifies_run_id)
        if verified is None or verified.id == after.id or verified.trial_id != trial.id:
            raise UnknownError("the run to verify is not in this trial", field="verifies_run_id")
    edge = next(e for e in blade.edges if e.id == after.edge_id)
    moved = (before.edge_id, before.practice) != (after.edge_id, after.practice)
    if not after.practice and moved:
        check_zone(after, blade, edge)
        for other in bench_log.runs_on_edge(session, after.edge_id):
            if other.id != after.id and not other.practice and same_steel(after, other):
                raise NotAllowedNowError(
                    f"edge {edge.number} of {blade.code} carries another run already",
                    field="edge_id",
                )


def _traces(
    session: Session, before: Run, after: Run, reason: str, trace_id: str, now: Moment
) -> list[Trace]:
    told = {name: (_said(session, before, name), _said(session, after, name)) for name in CHANGES}
    where = dict.fromkeys((before.trial_id, after.trial_id))
    return [
        Trace(
            f"{trace_id}:{name}:{trial_id}",
            "run",
            before.id,
            trial_id,
            name,
            was,
            becomes,
            reason,
            now.utc,
        )
        for name, (was, becomes) in told.items()
        if was != becomes
        for trial_id in where
    ]


def _said(session: Session, run: Run, name: str) -> object:
    """What a run says at a field, in words where it is an id."""
    match name:
        case "trial_id":
            return get_trial(session, run.trial_id).name
        case "edge_id":
            blades = trials.blades_of(session, run.trial_id)
            named = ((b.code, e.number) for b in blades for e in b.edges if e.id == run.edge_id)
            return ", edge ".join(str(part) for part in next(named, (run.edge_id, "?")))
        case "started":
            return run.started.utc[:10]
        case "note":
            return run.other.get("note", "")
        case "verifies_run_id":
            return run.verifies_run_id or ""
    return getattr(run, name)
