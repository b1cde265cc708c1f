"""A simulated blade for practice runs: its true sharpness follows the cuts made."""

import numpy as np

from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import TEXTBOOK, TrueEdge, true_edge

USUAL_LIFE_CUTS = {"1.4034": 14.0, "1.4112": 24.0, "1.2436": 33.0, "1.2842": 17.0, "1.3344": 40.0, "1.2363": 22.0}
"""Invented lives through 32 mm rope, to practise on; they describe no real steel."""
UNKNOWN_LIFE_CUTS = 20.0
_EDGE_TO_EDGE = 0.05


def virtual_edge(seed: int, grade: str | None, dull_gf: float, keen_start_gf: float = 150.0) -> TrueEdge:
    """The true edge of a practice run; the same seed is the same edge."""
    rng = np.random.default_rng(seed)
    designation = (grade or "").split(" ")[0]
    life = USUAL_LIFE_CUTS.get(designation, UNKNOWN_LIFE_CUTS) * np.exp(rng.normal(0.0, _EDGE_TO_EDGE))
    start = min(keen_start_gf * np.exp(rng.normal(0.0, 0.05)), 0.6 * dull_gf)
    return true_edge(str(rng.choice(list(TEXTBOOK))), float(life), rng, start_gf=float(start), limit_gf=dull_gf)


def virtual_reading_gf(seed: int, grade: str | None, dull_gf: float, count: float, reading: int) -> float:
    """One reading of the simulated tester on a practice edge, in gf; `reading` numbers the readings of the run."""
    edge = virtual_edge(seed, grade, dull_gf)
    rng = np.random.default_rng([seed, reading])
    return SimulatedTester().read_gf(float(edge.force_gf(count)[0]), rng)
