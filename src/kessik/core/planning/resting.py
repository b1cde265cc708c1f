"""Before a run ends on a force limit: whether its edge may only be resting just under it."""

from collections.abc import Sequence

import numpy as np

from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, by_count
from kessik.core.protocols.stop_rules import Progress, mean_force_gf, pair_of
from kessik.core.sharpness.joint import life_masses
from kessik.core.sharpness.posterior import ForceReadings, edge_likelihood

EXTRA_READINGS = 2
_LEAST_COUNTS, _JUST_OVER = 4, 1.25
_BEYOND, _CHANCE = 1.1, 0.1
"""Two readings more are asked for where the limit was passed by so little, after so many counts,
and the edge has such a chance to go on for so much longer: found in simulation."""


def is_to_be_read_again(checks: Sequence[Check], method: Method, progress: Progress) -> bool:
    """Whether the limit that ends the run was passed by so little that two readings more at this
    count decide first. Once they are taken, they have decided.
    """
    limit_gf = method.limit_gf(method.end_stage or "")
    if not progress.met or limit_gf is None or (method.end_stage or "") not in progress.lost:
        return False
    force = [check for check in checks if check.force_gf is not None]
    here = list(by_count(force))[-1][1] if force else []
    studied = method.reading_scatter
    return not _was_read_again(here, limit_gf) and may_be_resting(force, limit_gf, studied)


def _was_read_again(here: Sequence[Check], limit_gf: float) -> bool:
    """Whether two readings more followed the one, or the pair, that seemed to end the run."""
    pair = pair_of(here, limit_gf)
    return len(here) - (0 if pair is None else pair + 1) > EXTRA_READINGS


def may_be_resting(checks: Sequence[Check], limit_gf: float, studied: float | None = None) -> bool:
    """Whether the edge may well go on under the limit, by its unstruck force readings; `studied` is
    their scatter by a gauge study, s.d. of ln.
    """
    looks = list(by_count(checks))
    if len(looks) < _LEAST_COUNTS or mean_force_gf(looks[-1][1]) > _JUST_OVER * limit_gf:
        return False
    counts = np.array([check.count for check in checks], dtype=float)
    force = np.array([check.force_gf for check in checks], dtype=float)
    edge = edge_likelihood(ForceReadings(counts, force), limit_gf, studied)
    (known,) = life_masses([edge])
    return bool(known.mass[edge.log_life > np.log(_BEYOND * counts.max())].sum() > _CHANCE)
