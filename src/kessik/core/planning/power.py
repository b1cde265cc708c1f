"""What a plan can show: the smallest ratio of lives it detects, and the edges a wanted ratio needs.

The model is the verdict's: ln life = blade + edge, edge-to-edge spread with a prior, each life with
its own estimation error. With k edges a blade, the difference of two blades scatters with variance
2 (s² + e²) / k; how well the spread s is known grows with the edges of all blades.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.comparison.lives import SPREAD_NODES, spread_prior
from kessik.core.comparison.ratios import pair_level
from kessik.core.errors import OutOfRangeError

Floats = NDArray[np.float64]

POWER = 0.8
LEVEL = 0.95
MOST_EDGES = 60


@dataclass(frozen=True)
class Detectable:
    """With `edges` a blade: the ratio found in four of five trials, longer over shorter; always
    above 1.
    """

    edges: int
    ratio: float

    @property
    def percent(self) -> float:
        return 100.0 * (self.ratio - 1.0)


def detectable(
    edges: int,
    estimation_error: float,
    blades: int = 2,
    spread: tuple[Floats, Floats] | None = None,
    between_blades: float = 0.0,
) -> Detectable:
    """The smallest ratio that k edges a blade tell apart with 80 % power at simultaneous 95 %.

    `estimation_error` is the standard deviation of one estimated ln life; `spread` gives nodes of
    the edge-to-edge spread and their weights (default: the prior of the comparison).
    `between_blades` is what two blades that count as alike may still differ by, as a standard
    deviation of ln life, which no number of edges averages out. Raises
    OutOfRangeError for less than one edge, less than two blades, or a negative error.
    """
    if edges < 1 or blades < 2:
        raise OutOfRangeError(
            "a comparison needs two blades with one edge each at least", field="edges_per_blade"
        )
    if not 0.0 <= estimation_error < 10.0:
        raise OutOfRangeError(
            f"an estimation error of {estimation_error:g} is out of range",
            field="estimation_error",
            value=estimation_error,
        )
    belief = spread if spread is not None else (SPREAD_NODES, spread_prior())
    nodes, weights = belief
    sd = np.sqrt(2.0 * ((nodes**2 + estimation_error**2) / edges + between_blades**2))
    critical = _critical_difference(edges, estimation_error, blades, belief, sd)

    def missed(difference: float) -> float:
        return float(weights @ _found(difference, critical, sd)) - POWER

    widest = float(critical.max() + 6.0 * sd.max())
    return Detectable(edges, float(np.exp(scipy.optimize.brentq(missed, 0.0, widest))))


def power_of(
    ratio: float,
    edges: int,
    estimation_error: float,
    blades: int = 2,
    spread: tuple[Floats, Floats] | None = None,
    true_spread: float | None = None,
) -> float:
    """How often k edges a blade tell lives of a ratio apart, at simultaneous 95 %.

    Where edges truly scatter by `true_spread` (standard deviation of ln life), for that; else
    averaged over what is believed of the spread. A ratio of 1 is told apart falsely that often.
    """
    belief = spread if spread is not None else (SPREAD_NODES, spread_prior())
    nodes, weights = belief
    sd = np.sqrt(2.0 * (nodes**2 + estimation_error**2) / edges)
    critical = _critical_difference(edges, estimation_error, blades, belief, sd)
    found = _found(abs(math.log(ratio)), critical, sd)
    if true_spread is None:
        return float(weights @ found)
    return float(np.interp(true_spread, nodes, found))


def _critical_difference(
    edges: int, error: float, blades: int, belief: tuple[Floats, Floats], sd: Floats
) -> Floats:
    """The difference of ln lives that excludes none, for each spread that may be true."""
    alpha = 1.0 - pair_level(blades, LEVEL)
    return _critical(sd, _known_spread(*belief, error, blades * (edges - 1)), alpha)


def _found(difference: float, critical: Floats, sd: Floats) -> Floats:
    """How often a true difference is found, for each spread that may be true."""
    above = 1.0 - scipy.special.ndtr((critical - difference) / sd)
    return np.asarray(above + scipy.special.ndtr((-critical - difference) / sd))


def _known_spread(nodes: Floats, weights: Floats, estimation_error: float, freedom: int) -> Floats:
    """What will be believed of the spread, row by row for each spread that may be true: prior and
    expected data.
    """
    variance = nodes**2 + estimation_error**2
    fit = -0.5 * freedom * (np.log(variance)[None, :] + variance[:, None] / variance[None, :])
    # on the log scale: where many repeats have spoken, most weights are next to nothing
    fit = fit + np.log(np.maximum(weights, np.finfo(float).tiny))
    believed = np.exp(fit - fit.max(axis=1, keepdims=True))
    return np.asarray(believed / believed.sum(axis=1, keepdims=True))


def _critical(sd: Floats, believed: Floats, alpha: float) -> Floats:
    """The difference beyond which an interval excludes none, for each row of beliefs: a mixture's
    quantile.
    """
    low, high = np.zeros(len(believed)), np.full(len(believed), 12.0 * float(sd.max()))
    for _ in range(50):
        middle = (low + high) / 2.0
        beyond = (believed * 2.0 * scipy.special.ndtr(-middle[:, None] / sd[None, :])).sum(axis=1)
        low, high = np.where(beyond > alpha, middle, low), np.where(beyond > alpha, high, middle)
    return np.asarray((low + high) / 2.0)


def detectable_by_edges(
    most: int, estimation_error: float, blades: int = 2, spread: tuple[Floats, Floats] | None = None
) -> list[Detectable]:
    """The same for one edge a blade up to `most`."""
    return [detectable(edges, estimation_error, blades, spread) for edges in range(1, most + 1)]


def edges_needed(
    ratio: float,
    estimation_error: float,
    blades: int = 2,
    spread: tuple[Floats, Floats] | None = None,
    between_blades: float = 0.0,
) -> int | None:
    """The fewest edges a blade that detect a wanted ratio; None where even 60 do not."""
    wanted = max(ratio, 1.0 / ratio) if ratio > 0 else 0.0
    if not 1.0 < wanted < 100.0:
        raise OutOfRangeError(
            f"a ratio of {ratio:g} is out of range: give more than 1, like 1.2 for a fifth longer",
            field="wanted_ratio",
            value=ratio,
        )
    low, high = 0, MOST_EDGES
    if detectable(high, estimation_error, blades, spread, between_blades).ratio > wanted:
        return None
    while high - low > 1:
        middle = (low + high) // 2
        shows = detectable(middle, estimation_error, blades, spread, between_blades)
        enough = shows.ratio <= wanted
        low, high = (low, middle) if enough else (middle, high)
    return high


def spread_from_repeats(
    log_lives: Sequence[Sequence[float]], estimation_error: float
) -> tuple[Floats, Floats, int]:
    """The tester's own edge-to-edge spread: the prior, updated by past repeats of single blades.

    `log_lives` holds ln lives of the edges of each blade; returns nodes, weights and how many
    repeats spoke. A worked example: two edges of 50 and 60 cuts differ by ln 1.2 = 0.18. A spread
    of 2.6 % makes that 0.1 / 0.026 · exp(−0.18² / 4 · (1 / 0.026² − 1 / 0.1²)) = 0.00004 times as
    likely as one of 10 % does: the small spreads lose their weight.
    """
    nodes, weights = SPREAD_NODES, spread_prior()
    variance = nodes**2 + estimation_error**2
    log_weights, repeats = np.log(weights), 0
    for lives in log_lives:
        if len(lives) < 2:
            continue
        mean = math.fsum(lives) / len(lives)
        scatter = math.fsum((life - mean) ** 2 for life in lives)
        freedom = len(lives) - 1
        log_weights = log_weights - 0.5 * (freedom * np.log(variance) + scatter / variance)
        repeats += freedom
    learned = np.exp(log_weights - log_weights.max())
    return nodes, np.asarray(learned / learned.sum()), repeats
