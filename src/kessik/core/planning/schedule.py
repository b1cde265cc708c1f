"""The next check of a live run, under whichever schedule its method names."""

import math
from collections.abc import Sequence

from kessik.core.planning.adaptive import NextCheck, next_check
from kessik.core.planning.reasons import (
    BySchedule,
    FreshEdge,
    LastCheck,
    MayBeResting,
    PlannedReason,
    RuleMet,
    SeveralTries,
    StageAwaitsCheck,
    StageIsLost,
    ToConfirm,
)
from kessik.core.planning.resting import EXTRA_READINGS, is_to_be_read_again
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.joined_stages import asked_of, is_waiting
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import Progress, assess

_SAME = 1e-9


def plan_next(
    checks: Sequence[Check], method: Method, count: float, progress: Progress | None = None
) -> NextCheck:
    """Where to check next after the unstruck checks so far; `count` is how far the run has been
    cut.
    """
    progress = progress or assess(checks, method, count)
    if is_to_be_read_again(checks, method, progress):
        here = max(check.count for check in checks if check.force_gf is not None)
        passed_gf = method.limit_gf(method.end_stage or "")
        why = MayBeResting(passed_gf or 0.0)
        return NextCheck(here, EXTRA_READINGS, False, why, None, method.end_stage)
    if progress.met:
        return NextCheck(None, 0, True, RuleMet(method), None, method.end_stage)
    own = [check for check in checks if check.kind == progress.asked]
    if method.schedule == "adaptive":
        planned = next_check(
            own, method.limits_gf, count, method.start_readings, method.reading_scatter
        )
        return _at_stations(planned, method)
    wanted = method.readings(progress.asked)
    stage = next((s.name for s in method.stages if s.name not in progress.lost), None)
    last = max((check.count for check in own), default=None)
    standing = next((s for s in method.stages if s.name == stage and s.also), None)
    if standing is not None and is_waiting(checks, standing, method):
        _, here = asked_of(checks, standing, method)
        if here >= count - _SAME:
            taken = sum(abs(check.count - here) < _SAME for check in own)
            awaits = StageAwaitsCheck(standing.name)
            return NextCheck(here, max(wanted - taken, 1), False, awaits, None, stage)
    if last is not None and progress.confirmation_wanted:
        confirms = ToConfirm(method.limit_gf(method.end_stage or ""))
        return NextCheck(last, 1, False, confirms, None, stage)
    if last is None:
        return _first(method, progress, count, wanted, stage)
    taken = sum(abs(check.count - last) < _SAME for check in own)
    if taken < wanted and last >= count - _SAME and last > 0:
        return NextCheck(last, wanted - taken, False, _tries(method, wanted), None, stage)
    due = next_count(method, last)
    if due is None:
        return NextCheck(max(last, count), wanted, False, LastCheck(), None, stage)
    return NextCheck(max(due, count), wanted, False, BySchedule(method), None, stage)


def next_count(method: Method, last: float) -> float | None:
    """The count after `last` at which a fixed schedule checks again; None where it names no
    more.
    """
    dose = method.dose
    match method.schedule:
        case "at":
            due = next((at for at in method.at if at > last + _SAME), dose)
        case "ends":
            due = dose
        case "geometric":
            steps = math.ceil(
                max(last * (method.growth - 1.0), method.every) / method.piece - _SAME
            )
            due = last + max(steps, 1) * method.piece
        case "every" | "adaptive":
            due = (math.floor(last / method.every + _SAME) + 1) * method.every
    if due is None or (dose is not None and last >= dose - _SAME):
        return None
    return due if dose is None else min(due, dose)


def _first(
    method: Method, progress: Progress, count: float, wanted: int, stage: str | None
) -> NextCheck:
    """The fresh edge is checked before the first cut, unless the check is a cut itself; a new
    check starts here.
    """
    if method.row(progress.asked).is_the_cut:
        first = max(next_count(method, 0.0) or 1.0, count)
        return NextCheck(first, wanted, False, BySchedule(method), None, stage)
    if progress.lost:
        why = StageIsLost(_last_of(progress), method.row(progress.asked).name)
        return NextCheck(count, wanted, False, why, None, stage)
    readings = max(wanted, method.start_readings) if progress.asked == FORCE else wanted
    return NextCheck(0.0, readings, False, FreshEdge(), None, stage)


def _last_of(progress: Progress) -> str:
    return max(progress.lost, key=lambda name: progress.lost[name])


def _tries(method: Method, wanted: int) -> PlannedReason:
    return SeveralTries(wanted) if wanted > 1 else BySchedule(method)


def _at_stations(planned: NextCheck, method: Method) -> NextCheck:
    stations = max(len(method.stations_mm), 1)
    least = method.readings(FORCE) // stations
    if planned.stop or planned.readings >= least * stations:
        return planned
    return NextCheck(
        planned.next_count,
        max(planned.readings, least) * stations,
        False,
        planned.why,
        planned.band,
        planned.stage,
    )
