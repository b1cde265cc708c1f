"""Differences of ln life between arms, with intervals by Satterthwaite.

References
----------
[1] F. E. Satterthwaite, Biometrics Bulletin 2 (1946): degrees of a sum of variances.
"""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.standings.fit import Fit

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Differences:
    """ln life of every arm less every other, shape (arms, arms) each; NaN where it is not known
    on both sides.
    """

    log_ratio: Floats
    variance: Floats
    df: Floats

    def half_width(self, level: float = 0.95) -> Floats:
        """How far the interval of each reaches to either side."""
        quantile = scipy.special.stdtrit(np.maximum(self.df, 1.0), 0.5 + 0.5 * level)
        return np.asarray(quantile * np.sqrt(self.variance))


def differences(fit: Fit) -> Differences:
    """All pairs of arms of one firm group."""
    design, variances = fit.design, fit.variances
    effect, covariance = fit.arm_effect(), fit.arm_covariance()
    own = np.diag(covariance)
    variance = own[:, None] + own[None, :] - 2.0 * covariance
    gains = np.vstack([fit.gains, np.zeros(design.runs.size)])[design.arm_column]
    squared_parts = np.zeros_like(variance)
    explained = np.zeros_like(variance)
    for trial in np.unique(design.trial):
        here = design.trial == trial
        scaled = gains[:, here] / np.sqrt(fit.weights[here])
        if not scaled.any():
            continue
        part = _squared_distances(scaled)
        explained += part
        squared_parts += part**2 / variances.edge_df[trial]
    tester = np.maximum(variance - explained, 0.0)
    squared_parts += tester**2 / variances.tester_df
    group = design.network.group_of
    known = (group[:, None] == group[None, :]) & design.placed[:, None] & design.placed[None, :]
    np.fill_diagonal(known, False)
    with np.errstate(invalid="ignore", divide="ignore"):
        df = variance**2 / squared_parts
    return Differences(
        np.where(known, effect[:, None] - effect[None, :], np.nan),
        np.where(known, np.maximum(variance, 0.0), np.nan),
        np.where(known, df, np.nan),
    )


def _squared_distances(points: Floats) -> Floats:
    """Between all rows, shape (rows, rows)."""
    gram = points @ points.T
    own = np.diag(gram)
    return np.asarray(np.maximum(own[:, None] + own[None, :] - 2.0 * gram, 0.0))
