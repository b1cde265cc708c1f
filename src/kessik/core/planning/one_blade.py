"""What it saves to compare preparations on one blade instead of on blades that count as alike."""

import math
from dataclasses import dataclass

from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.variables import VARIABLES
from kessik.core.planning.power import Floats, edges_needed


@dataclass(frozen=True)
class OneBladeSaves:
    """To find `wanted_percent`: edges an arm on one blade, and on a blade for each arm (None where
    no number would do), which may differ unseen by `unseen_percent` of life.
    """

    blade: str
    wanted_percent: float
    edges: int
    edges_on_several: int | None
    unseen_percent: float


def one_blade_saves(
    blade: str,
    wanted_percent: float,
    estimation_error: float,
    arms: int,
    spread: tuple[Floats, Floats],
    rule: MatchingRule,
) -> OneBladeSaves | None:
    """What one blade saves; None where even on one blade the wanted difference is not found."""
    ratio = 1.0 + wanted_percent / 100.0
    edges = edges_needed(ratio, estimation_error, arms, spread)
    if edges is None:
        return None
    unseen = unseen_between_blades(rule)
    several = edges_needed(ratio, estimation_error, arms, spread, unseen / math.sqrt(3.0))
    return OneBladeSaves(blade, wanted_percent, edges, several, 100.0 * unseen)


def unseen_between_blades(rule: MatchingRule) -> float:
    """How far two blades that are matched may lie apart in ln life, by the tolerances of the trial
    and the sizes of effect it assumes; what has no assumed size is not in it.
    """
    sizes = [
        rule.tolerance(variable) * effect / 100.0
        for variable in rule.held(VARIABLES)
        if variable.of == "blade" and (effect := rule.effect(variable)) is not None
    ]
    return math.hypot(*sizes)
