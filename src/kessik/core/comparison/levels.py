"""Lives of edges with the levels of their blocks taken out, and how they repeat then."""

import math
from collections.abc import Mapping, Sequence

import numpy as np

from kessik.core.sharpness.life import AsWritten, Bracketed, Crossed, Found
from kessik.core.spreads import Z_95, flat_sd

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


def spread_percent(log_lives: Sequence[float]) -> float | None:
    """Spread of the edges of one blade as one sees them: s.d. of their ln lives in per cent; None
    with one edge.
    """
    if len(log_lives) < 2:
        return None
    return float(100.0 * np.std(log_lives, ddof=1))


def log_life_of(found: Found) -> tuple[float, float] | None:
    """Ln of a life with its own standard error; None for one with an open end."""
    match found:
        case Crossed(estimate, low, high):
            return math.log(estimate), math.log(high / low) / (2 * Z_95)
        case Bracketed(last_pass, first_fail) if last_pass > 0:
            middle = 0.5 * (math.log(last_pass) + math.log(first_fail))
            return middle, flat_sd(math.log(first_fail / last_pass))
        case AsWritten(at, gap):
            return math.log(at), flat_sd((gap or 0.0) / at)
    return None
