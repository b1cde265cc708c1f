"""The life that a plan begins with: what is known of the blade, else of others, else what its
school usually gives.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import median
from typing import Literal

from kessik.core.limits import LIMITS
from kessik.core.protocols.methods import Method
from kessik.core.units import MM_PER_LENGTH

Basis = Literal["own_runs", "typed", "own_elsewhere", "others", "usual"]
_USUAL = {
    "force_limit_rope": (20.0, "cuts"),
    "paper_stop_rope": (60.0, "cuts"),
    "two_stage_board": (200.0, "ft"),
    "push_cut_board": (60.0, "cuts"),
    "resharpening_cycles": (16.0, "cuts"),
}
"""How far an edge usually goes, in the unit of its school: common practice, no source."""
_USUAL_CHECKS = 20.0
"""Where a school counts in another unit, so many gaps of its checks."""


@dataclass(frozen=True)
class KnownLife:
    """A life that some blade reached under a school and on a kind of medium, in its count unit."""

    blade_id: str
    school: str
    medium: str
    unit: str
    life: float


@dataclass(frozen=True)
class StartingLife:
    """A life to plan with, where it comes from, and of how many blades."""

    life: float
    basis: Basis
    blades: int = 1


def starting_life(
    blade_id: str,
    own: float | None,
    typed: float | None,
    method: Method,
    known: Sequence[KnownLife],
) -> StartingLife:
    """The life of a blade's next run: by its own runs in this trial, else as typed, else by its
    runs elsewhere, those of others, or what is usual.
    """
    if own is not None:
        return StartingLife(_within(own), "own_runs")
    if typed is not None:
        return StartingLife(_within(typed), "typed")
    alike = [
        (each.blade_id, each.life * factor)
        for each in known
        if (each.school, each.medium) == (method.school, method.medium)
        and (factor := _in_unit(each.unit, method.count_unit)) is not None
    ]
    mine = [life for of, life in alike if of == blade_id]
    if mine:
        return StartingLife(_within(median(mine)), "own_elsewhere")
    if alike:
        lives = [life for _, life in alike]
        return StartingLife(_within(median(lives)), "others", len({of for of, _ in alike}))
    return StartingLife(_within(_usual(method)), "usual")


def _usual(method: Method) -> float:
    if method.dose is not None:
        return method.dose
    life, unit = _USUAL.get(method.school, (0.0, ""))
    factor = _in_unit(unit, method.count_unit)
    return life * factor if factor is not None else _USUAL_CHECKS * method.every


def _in_unit(unit: str, to: str) -> float | None:
    """What a count in one unit is multiplied by to be one in another; None where they differ in
    kind.
    """
    if unit == to:
        return 1.0
    if unit in MM_PER_LENGTH and to in MM_PER_LENGTH:
        return MM_PER_LENGTH[unit] / MM_PER_LENGTH[to]
    return None


def _within(life: float) -> float:
    limit = LIMITS["expected_life"]
    return min(max(life, limit.least), limit.most)
