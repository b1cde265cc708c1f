"""The simulated edge-force tester: reads a true force with scatter and the odd bad reading."""

from dataclasses import dataclass

import numpy as np


@dataclass(frozen=True)
class SimulatedTester:
    """Scatter as standard deviation of ln force; `outlier_share` of readings go wrong by a further
    18 to 50 %.
    """

    scatter: float = 0.06
    outlier_share: float = 0.02

    def read_gf(self, true_gf: float, rng: np.random.Generator) -> float:
        """One reading in whole gf, as the display of such a tester shows it."""
        error = rng.normal(0.0, self.scatter)
        if rng.random() < self.outlier_share:
            error += rng.uniform(0.18, 0.5) * (1 if rng.random() < 0.7 else -1)
        return float(max(1.0, np.round(true_gf * np.exp(error))))
