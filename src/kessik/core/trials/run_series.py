"""A run as the analysis takes it."""

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
    )


def edge_length_used_mm(run: Run, blade: Blade) -> float | None:
    """The length of edge that works: as recorded, else the zone, else the whole edge."""
    if run.edge_length_used_mm is not None:
        return run.edge_length_used_mm
    if run.zone_from_mm is not None and run.zone_to_mm is not None:
        return run.zone_to_mm - run.zone_from_mm
    return blade.edge_length_mm
