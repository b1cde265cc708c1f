"""What a run may be cut on: edges not cut before, zones that are free."""

from collections.abc import Mapping, Sequence, Set

from kessik.core.errors import OutOfRangeError
from kessik.core.geometry import Zone
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge


def same_steel(run: Run, other: Run) -> bool:
    """Whether two runs share a stretch of their edge; a run without a zone takes all of it."""
    mine, theirs = (
        (
            Zone(r.zone_from_mm, r.zone_to_mm)
            if r.zone_from_mm is not None and r.zone_to_mm is not None
            else None
        )
        for r in (run, other)
    )
    return mine is None or theirs is None or mine.overlaps(theirs)


def gone_on_from(run: Run, by_id: Mapping[str, Run]) -> set[str]:
    """The runs on an edge that a run goes on from, each stropped back before the next."""
    found: set[str] = set()
    while run.after_strop_of is not None and run.after_strop_of in by_id:
        run = by_id[run.after_strop_of]
        found.add(run.id)
    return found


def cut_twice(back: Set[str], runs: Sequence[Run]) -> bool:
    """Whether runs that come back share a stretch of their edge with one that was cut meanwhile;
    `runs` are all of that edge.
    """
    by_id = {run.id: run for run in runs}
    counted = [run for run in runs if not run.practice]
    return any(
        same_steel(mine, other)
        and other.id not in gone_on_from(mine, by_id)
        and mine.id not in gone_on_from(other, by_id)
        for mine in counted
        if mine.id in back
        for other in counted
        if other.id not in back
    )


def check_zone(run: Run, blade: Blade, edge: Edge) -> None:
    """Refuse a zone that cannot be on the edge, or that reaches into its control."""
    start, end = run.zone_from_mm, run.zone_to_mm
    if (start is None) != (end is None):
        raise OutOfRangeError("give both ends of the zone, or neither", field="zone_to_mm")
    kept = next((zone for zone in edge.zones if zone.use == "control"), None)
    if start is None or end is None:
        if kept is not None:
            message = f"{kept.from_mm:g} to {kept.to_mm:g} mm is a control; say which zone is cut"
            raise OutOfRangeError(message, field="zone_to_mm")
        return
    if not 0 <= start < end:
        message = (
            f"the zone runs from {start:g} to {end:g} mm; count from the heel, the smaller first"
        )
        raise OutOfRangeError(message, field="zone_to_mm")
    if blade.edge_length_mm is not None and end > blade.edge_length_mm:
        message = (
            f"the zone ends at {end:g} mm, and the edge of {blade.code} at"
            f" {blade.edge_length_mm:g} mm"
        )
        raise OutOfRangeError(message, field="zone_to_mm")
    if kept is not None and kept.overlaps(Zone(start, end)):
        message = f"the zone reaches into {kept.from_mm:g} to {kept.to_mm:g} mm, which is a control"
        raise OutOfRangeError(message, field="zone_to_mm")
