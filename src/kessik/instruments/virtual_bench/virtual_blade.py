"""A simulated blade for practice runs: its true sharpness follows the cuts made."""

from dataclasses import dataclass

import numpy as np

from kessik.instruments.virtual_bench.true_decay import TrueEdge, true_edge

USUAL_LIFE_CUTS = {
    "1.4034": 14.0,
    "1.4112": 24.0,
    "1.2436": 33.0,
    "1.2842": 17.0,
    "1.3344": 40.0,
    "1.2363": 22.0,
}
"""Invented lives through 32 mm rope, to practise on; they describe no real steel."""
UNKNOWN_LIFE_CUTS = 20.0
_EDGE_TO_EDGE = 0.05
_USUAL_HRC, _USUAL_SIDE_DEG = 59.0, 15.0
_LIFE_PER_HRC, _LIFE_PER_DEG = 0.05, -0.05
# How an edge fails: soft or thin ones roll, hard and thin ones chip, the others wear; invented, as
# the lives are.
_ROLLS = ("burr_then_wear", "levelling", "logarithmic")
_CHIPS = ("sudden_end", "work_up")
_WEARS = ("wear_power", "steady", "levelling", "work_up")


@dataclass(frozen=True)
class VirtualSteel:
    """What the virtual edge is made of: designation, hardness (HRC) and angle per side, where they
    are known.
    """

    grade: str = ""
    hardness_hrc: float | None = None
    side_angle_deg: float | None = None


def virtual_edge(
    seed: int, steel: VirtualSteel, dull_gf: float, keen_start_gf: float = 150.0
) -> TrueEdge:
    """The true edge of a practice run; the same seed is the same edge, another sharpening decays in
    another shape.
    """
    rng = np.random.default_rng(seed)
    life = usual_life(steel) * float(np.exp(rng.normal(0.0, _EDGE_TO_EDGE)))
    start = min(keen_start_gf * float(np.exp(rng.normal(0.0, 0.05))), 0.6 * dull_gf)
    kind = _how_it_fails(_harder(steel), _steeper(steel), rng)
    return true_edge(kind, life, rng, start_gf=start, limit_gf=dull_gf)


def usual_life(steel: VirtualSteel) -> float:
    """The life in cuts about which the edges of a virtual steel scatter."""
    life = USUAL_LIFE_CUTS.get(steel.grade.split(" ")[0], UNKNOWN_LIFE_CUTS)
    shift = _LIFE_PER_HRC * _harder(steel) + _LIFE_PER_DEG * _steeper(steel)
    return life * float(np.exp(shift))


def _harder(steel: VirtualSteel) -> float:
    return (steel.hardness_hrc or _USUAL_HRC) - _USUAL_HRC


def _steeper(steel: VirtualSteel) -> float:
    return (steel.side_angle_deg or _USUAL_SIDE_DEG) - _USUAL_SIDE_DEG


def _how_it_fails(harder: float, steeper: float, rng: np.random.Generator) -> str:
    rolls = float(np.clip(0.3 - 0.08 * harder - 0.04 * steeper, 0.05, 0.9))
    chips = float(np.clip(0.15 + 0.07 * harder - 0.05 * steeper, 0.02, 0.9 - 0.5 * rolls))
    draw = rng.random()
    kinds = _ROLLS if draw < rolls else _CHIPS if draw < rolls + chips else _WEARS
    return str(rng.choice(kinds))
