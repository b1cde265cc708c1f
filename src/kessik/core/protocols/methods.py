"""The method of a force-limit rope series: its limits, how often it is checked and what ends a run."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.errors import OutOfRangeError

Schedule = Literal["adaptive", "every"]

LEAST_FORCE_GF, MOST_FORCE_GF = 1.0, 5000.0


@dataclass(frozen=True)
class Method:
    """Limits in gf; `every` is the gap between checks in cuts under the fixed schedule."""

    keen_gf: float = 300.0
    dull_gf: float = 400.0
    schedule: Schedule = "adaptive"
    every: int = 1

    def __post_init__(self) -> None:
        for field, value in (("keen_gf", self.keen_gf), ("dull_gf", self.dull_gf)):
            if not LEAST_FORCE_GF <= value <= MOST_FORCE_GF:
                raise OutOfRangeError(
                    f"the limit is {value:g} gf; it must lie between 1 and 5000", field=field, value=value
                )
        if self.keen_gf >= self.dull_gf:
            raise OutOfRangeError(
                f"keen ({self.keen_gf:g} gf) must lie below dull ({self.dull_gf:g} gf): it is met on the way",
                field="keen_gf",
                value=self.keen_gf,
            )
        if self.every < 1:
            raise OutOfRangeError("check at least every cut: 1 or more", field="every", value=self.every)

    @property
    def limits_gf(self) -> tuple[tuple[str, float], ...]:
        return ("keen", self.keen_gf), ("dull", self.dull_gf)

    def ends_when(self) -> str:
        """The stop rule in plain words."""
        if self.schedule == "adaptive":
            return f"ends when two checks in a row are above {self.dull_gf:g} gf"
        return f"ends when two readings in a row at one count are above {self.dull_gf:g} gf"
