"""A use that a blade is wanted for, named and kept: what matters in it and how much."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

from kessik.core.choice.axes import BY_KEY, AxisKey
from kessik.core.choice.decision import MOST_WEIGHT
from kessik.core.choice.upkeep import CostAssumptions
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit

ChosenBy = Literal["blade", "grade"]


@dataclass(frozen=True)
class Use:
    """A use by its name: weights of axes, which lives count, which soak tells of rust, whether
    grades or blades are chosen, and only of what is at hand. `life` is the class of lives as
    standings have it, `key:value` by `|`; empty for that with most blades.
    """

    id: str
    name: str
    weights: Mapping[AxisKey, float] = field(default_factory=lambda: {"edge": 5.0, "price": 3.0})
    life: str = ""
    soak_id: str = ""
    by: ChosenBy = "blade"
    in_hand: bool = False
    steel_to_lose_mm: float = 6.0
    hour_costs: float = 0.0

    @property
    def assumed(self) -> CostAssumptions:
        """What the cost of cutting rests on."""
        return CostAssumptions(self.steel_to_lose_mm, self.hour_costs)


def check_use(use: Use) -> None:
    """Refuse a use without a name, or with weights and costs that cannot be."""
    if not use.name.strip():
        raise OutOfRangeError("give the use a name, such as deck knife", field="name")
    for key, weight in use.weights.items():
        if key not in BY_KEY:
            raise OutOfRangeError(f"{key!r} is nothing that is weighed", field="weights")
        if not 0.0 <= weight <= MOST_WEIGHT:
            raise OutOfRangeError(
                f"give a weight from 0 to {MOST_WEIGHT:g}", field="weights", value=weight
            )
    check_limit("steel_to_lose_mm", use.steel_to_lose_mm, "steel_to_lose_mm")
    check_limit("stock", use.hour_costs, "hour_costs")
