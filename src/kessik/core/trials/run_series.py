"""A run as the analysis takes it."""

from collections.abc import Iterable

from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.protocols.series import RunSeries
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge


def run_series(run: Run, blade: Blade, edge: Edge, state: RunState) -> RunSeries:
    """A run's checks as the analysis takes them; the same for the bench and for a file."""
    checks = tuple(logged.check for logged in state.checks)
    length = edge_length_used_mm(run, blade)
    return RunSeries(
        blade.code,
        edge.number,
        run.number,
        checks,
        run.count_unit,
        run.practice,
        length,
        run.worked_mm,
        run.block,
        run.check_every,
        cut_with=blade.own_code,
        passes_noted=state.one_holds,
        round=run.round,
    )


def edge_length_used_mm(run: Run, blade: Blade) -> float | None:
    """The length of edge that works: as recorded, else the zone, else the whole edge."""
    recorded = _recorded_mm(run)
    return blade.edge_length_mm if recorded is None else recorded


def usual_length_mm(runs: Iterable[Run], method: Method) -> float | None:
    """The length of edge to take where a run says none: what the other runs of its trial agree on,
    else what its method asks for.
    """
    recorded = {_recorded_mm(run) for run in runs if run.compares} - {None}
    return recorded.pop() if len(recorded) == 1 else method.zone_length_mm


def _recorded_mm(run: Run) -> float | None:
    if run.edge_length_used_mm is not None or run.worked_mm is None:
        return run.edge_length_used_mm
    start, end = run.worked_mm
    return end - start
