"""Blades and what is kept of them."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any, Literal

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, Measurement, check_value, used
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.records import Day, LongText
from kessik.core.shelf.edges import Edge

TrialRole = Literal["", "low_reference", "high_reference"]


@dataclass(frozen=True)
class Blade:
    """A physical specimen with its edges. `mark` is its own everywhere; `place` is its place in a
    trial.

    `arms` are the preparations under which a trial compares it. As one of them it goes by the code
    of the arm, with its own code as `blade_code` and the ids of the edges prepared so.
    """

    id: str
    code: str
    mark: int = 0
    place: int = 0
    role: TrialRole = ""
    arms: tuple[str, ...] = ()
    arm: str = ""
    blade_code: str = ""
    arm_edge_ids: frozenset[str] | None = None
    claimed_grade: str | None = None
    usual_hardness_low_hrc: float | None = None
    usual_hardness_high_hrc: float | None = None
    owner: str = ""
    price: str = ""
    loan_from: str = ""
    lent_to: str = ""
    loan_due: Day = ""
    loan_returned: Day = ""
    heat_treatment: HeatTreatment = field(default_factory=HeatTreatment)
    origin: str = ""
    archived_utc: str | None = None
    note: LongText = ""
    other: Mapping[str, Any] = field(default_factory=dict)
    measurements: tuple[Measurement, ...] = ()
    edges: tuple[Edge, ...] = ()

    @property
    def own_code(self) -> str:
        """The code of the blade itself."""
        return self.blade_code or self.code

    @property
    def arm_id(self) -> str:
        """Tells the arms of a trial apart."""
        return f"{self.id}/{self.arm}" if self.arm else self.id

    @property
    def own_edges(self) -> tuple[Edge, ...]:
        """The edges of the arm; all of the blade's, where it is its own arm."""
        if self.arm_edge_ids is None:
            return self.edges
        return tuple(edge for edge in self.edges if edge.id in self.arm_edge_ids)

    def edge(self, number: int) -> Edge | None:
        return next((edge for edge in self.edges if edge.number == number), None)

    def used(self, quantity: str) -> Measurement | None:
        """The measurement of the blade itself that counts."""
        return used(self.measurements, quantity)

    def value(self, quantity: str) -> float | None:
        found = self.used(quantity)
        return found.value if found else None

    @property
    def edge_length_mm(self) -> float | None:
        return self.value("edge_length_mm")


def split_arm_id(arm_id: str) -> tuple[str, str]:
    """The id of the blade and the name of the arm in the id of an arm."""
    blade_id, _, arm = arm_id.partition("/")
    return blade_id, arm


def check_usual(low: float | None, high: float | None, low_field: str, high_field: str) -> None:
    """Refuse a usual hardness that cannot be, or that stands the wrong way round."""
    quantity = QUANTITIES["hardness_hrc"]
    for value, named in ((low, low_field), (high, high_field)):
        if value is not None:
            check_value(replace(quantity, name=named, label="usual hardness"), value)
    if low is not None and high is not None and low > high:
        raise OutOfRangeError(
            f"the usual hardness runs from {low:g} to {high:g}; put the lower first",
            field=low_field,
        )
