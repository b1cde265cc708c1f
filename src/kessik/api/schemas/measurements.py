"""Quantities and measurements over the wire."""

from pydantic import Field

from kessik.api.schemas.common import Finite, Id, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.facts import Measurement, Quantity
from kessik.core.hardness import HardnessSummary
from kessik.core.limits import most


class QuantityOut(Answer[Quantity]):
    """What can be known of a blade or an edge: bounds, and what is usual."""


class StationBody(Wire):
    """Thickness at one place, mm from the heel."""

    position_mm: Finite
    value_mm: Finite


class DetailsBody(Wire):
    """What a measurement was made from: caliper stations, or single readings with the day's test
    block.
    """

    stations: list[StationBody] = Field(default_factory=list, max_length=most("readings_listed"))
    readings: list[Finite] = Field(default_factory=list, max_length=most("readings_listed"))
    places_mm: list[Finite] = Field(default_factory=list, max_length=most("readings_listed"))
    block_nominal_hrc: Finite | None = None
    block_readings: list[Finite] = Field(default_factory=list, max_length=most("readings_listed"))
    after_change: bool = False
    tapered: bool = False
    spacing_mm: Finite | None = None
    from_edge_mm: Finite | None = None


class MeasurementBody(Body[Measurement], without="recorded_utc struck"):
    """One more value of a fact; a number may be left out where the details give it."""

    edge_id: Id | None = None
    details: DetailsBody = Field(default_factory=DetailsBody)

    def to_core(self, **said: object) -> Measurement:
        return super().to_core(details=self.details.model_dump(exclude_defaults=True))


class HardnessOut(Answer[HardnessSummary]):
    """Rockwell readings of one day, summed up."""


class MeasurementOut(Answer[Measurement]):
    """A measurement as it is kept; `in_use` marks the one that counts."""

    details: DetailsBody
    in_use: bool
    remark: str
    hardness: HardnessOut | None = None
