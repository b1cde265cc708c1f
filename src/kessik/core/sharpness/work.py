"""How good an edge was all along: what lay under the limit on the way to losing it."""

from collections.abc import Sequence

import numpy as np

from kessik.core.sharpness.curves import CurveBand


def mean_reading_gf(curves: Sequence[CurveBand], to_count: float) -> float:
    """The mean force of fitted curves from the fresh edge to a count, by trapezoid, gf."""
    return float(np.mean([_mean_to(curve, to_count) for curve in curves]))


def _mean_to(curve: CurveBand, to_count: float) -> float:
    counts = np.linspace(0.0, min(to_count, float(curve.counts[-1])), 200)
    force = np.interp(counts, curve.counts, curve.middle_gf)
    return float(np.trapezoid(force, counts) / counts[-1])
