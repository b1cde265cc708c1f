"""Scatter of edges by trial, moderated across trials, and of an arm between testers.

Priors (common practice, no source): edges of one blade re-sharpened alike scatter by about 9 % of
their life, trials differ in that as a χ² of some 10 degrees would, and an arm differs from tester
to tester by about 6 %. A worked example: a trial with 4 degrees of its own and a scatter of 20 %,
where trials usually have 10 %, is taken to have √((10 · 0.1² + 4 · 0.2²) / 14) = 13.6 %.
"""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaln

Floats = NDArray[np.float64]

TESTER_SD = 0.06
USUAL_EDGE_SD, USUAL_EDGE_SD_LOG_SD = 0.09, 0.7
USUAL_DF, USUAL_DF_LOG_SD = 10.0, 1.0
_DF_GRID = np.geomspace(2.0, 200.0, 25)
_SD_GRID = np.geomspace(0.01, 0.6, 83)
_LEAST_SD = 0.005
_TAKEN_AS_GIVEN = 1e6


@dataclass(frozen=True)
class Variances:
    """`edge_sd` and `edge_df` by trial, of ln life; the common ones that they are moderated to;
    `tester_sd` between testers of one arm, with its degrees.
    """

    edge_sd: Floats
    edge_df: Floats
    common_sd: float
    common_df: float
    tester_sd: float
    tester_df: float

    def distance(self, other: "Variances") -> float:
        """The largest share by which any scatter differs."""
        mine = np.append(self.edge_sd, self.tester_sd)
        theirs = np.append(other.edge_sd, other.tester_sd)
        return float(np.abs(np.log(mine / theirs)).max())

    def for_trials(self, count: int) -> "Variances":
        """The common scatter for so many trials."""
        sd, df = np.full(count, self.common_sd), np.full(count, self.common_df)
        return Variances(sd, df, self.common_sd, self.common_df, self.tester_sd, self.tester_df)


START = Variances(np.empty(0), np.empty(0), USUAL_EDGE_SD, USUAL_DF, TESTER_SD, 1.0)


@dataclass(frozen=True)
class VarianceEvidence:
    """What the residuals of a fit say: sums of squares and degrees by trial, and of testers."""

    edge_squares: Floats
    edge_df: Floats
    tester_squares: float
    tester_df_seen: float
    tester_df: float


def renewed(before: Variances, seen: VarianceEvidence) -> Variances:
    """The variances that what was seen speaks for."""
    common_sd, common_df = _common(seen.edge_squares, seen.edge_df)
    total_df = common_df + seen.edge_df
    edge = np.sqrt((common_df * common_sd**2 + seen.edge_squares) / total_df)
    tester = np.sqrt((TESTER_SD**2 + seen.tester_squares) / (1.0 + seen.tester_df_seen))
    return Variances(
        np.maximum(edge, _LEAST_SD),
        total_df,
        common_sd,
        common_df,
        float(max(tester, _LEAST_SD)),
        1.0 + seen.tester_df if seen.tester_df > 0 else _TAKEN_AS_GIVEN,
    )


def _common(squares: Floats, df: Floats) -> tuple[float, float]:
    """Common scatter and its degrees: sums of squares over it follow F(df, degrees), by trial."""
    told = df > 1e-6
    squares, df = squares[told], df[told]
    wanted = _DF_GRID[:, None] * _SD_GRID[None, :] ** 2
    height = -0.5 * (np.log(_DF_GRID / USUAL_DF) / USUAL_DF_LOG_SD)[:, None] ** 2
    height = height - 0.5 * (np.log(_SD_GRID / USUAL_EDGE_SD) / USUAL_EDGE_SD_LOG_SD) ** 2
    for own_squares, own_df in zip(squares, df, strict=True):
        both = 0.5 * (own_df + _DF_GRID)
        height = height + (gammaln(both) - gammaln(0.5 * _DF_GRID))[:, None]
        height = height - 0.5 * own_df * np.log(wanted)
        height = height - both[:, None] * np.log1p(own_squares / wanted)
    row, column = np.unravel_index(int(np.argmax(height)), height.shape)
    return float(_SD_GRID[column]), float(_DF_GRID[row])
