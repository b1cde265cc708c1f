"""What the strop brought back after a run."""

from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.sharpening.strop_back import AbilityBack, StropBack, ability_back, strop_back


def strop_tests(state: RunState, method: Method) -> list[StropBack]:
    """Share regained after each stropping of an ended run; empty before its first reading."""
    forces = [check for check in state.worked_checks if check.force_gf is not None]
    if not forces or (method.limits_gf == () and method.dose is None):
        return []
    first, last = forces[0].count, forces[-1].count
    start = [c.force_gf for c in forces if c.count == first and c.force_gf is not None]
    end = [c.force_gf for c in forces if c.count == last and c.force_gf is not None]
    return [
        strop_back(start, end, test.readings_gf, test.strokes, method.force_scatter)
        for test in state.strops
        if test.readings_gf
    ]


def abilities_back(state: RunState) -> list[AbilityBack]:
    """What an ended edge did again after each stropping, by paper, hair or lamp."""
    return [ability_back(test.strokes, test.tries) for test in state.strops if test.tries]
