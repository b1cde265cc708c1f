"""Lives of edges with the levels of their blocks taken out, and how they repeat then."""

import math
from collections.abc import Mapping, Sequence

import numpy as np

from kessik.core.comparison.lives import SPREAD_NODES, spread_prior
from kessik.core.sharpness.life import Bracketed, Crossed, Found

Place = tuple[str, int, int]
"""Of an edge: its blade, its number, and the block it was cut in."""


def levelled(log_lives: Mapping[Place, float]) -> dict[Place, float]:
    """Ln lives without the level of their block: ln life = blade + block + edge, fitted by least
    squares.

    What is left of an edge is enlarged by what the fit of the levels takes from it. Empty where
    there are too few edges to tell levels and edges apart.

    References
    ----------
    [1] H. Scheffé, The Analysis of Variance, 1959: two-way layouts; from memory.
    """
    places = list(log_lives)
    blades = list(dict.fromkeys(blade for blade, _, _ in places))
    blocks = list(dict.fromkeys(block for _, _, block in places))
    spare = len(places) - len(blades) - len(blocks) + 1
    if not places or spare < 1:
        return {}
    values = np.array([log_lives[place] for place in places])
    design = np.array(
        [
            [float(blade == b) for b in blades] + [float(block == k) for k in blocks[1:]]
            for blade, _, block in places
        ]
    )
    fit = np.linalg.lstsq(design, values, rcond=None)[0]
    own = dict(zip(blades, fit, strict=False))
    left = values - design @ fit
    enlarged = np.sqrt((len(places) - len(blades)) / spare)
    return {
        place: float(own[place[0]] + enlarged * rest)
        for place, rest in zip(places, left, strict=True)
    }


def spread_percent(log_lives: Sequence[float], log_sds: Sequence[float]) -> float | None:
    """Edge-to-edge spread of one blade from the ln lives of its edges and their own errors, with
    the prior of the comparison; None with one edge.
    """
    if len(log_lives) < 2:
        return None
    error = float(np.mean(np.square(log_sds)))
    variance = SPREAD_NODES**2 + error
    freedom, around = len(log_lives) - 1, float(np.var(log_lives) * len(log_lives))
    log_weights = np.log(spread_prior()) - 0.5 * (freedom * np.log(variance) + around / variance)
    weights = np.exp(log_weights - log_weights.max())
    cumulative = np.cumsum(weights / weights.sum()) - 0.5 * weights / weights.sum()
    return float(100.0 * np.exp(np.interp(0.5, cumulative, np.log(SPREAD_NODES))))


def log_life_of(found: Found) -> tuple[float, float] | None:
    """Ln of a life with its own standard error; None for one with an open end."""
    match found:
        case Crossed(estimate, low, high):
            return math.log(estimate), math.log(high / low) / (2 * 1.959964)
        case Bracketed(last_pass, first_fail) if last_pass > 0:
            middle = 0.5 * (math.log(last_pass) + math.log(first_fail))
            return middle, math.log(first_fail / last_pass) / math.sqrt(12.0)
    return None
