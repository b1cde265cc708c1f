"""Quantities and measurements over the wire."""

from dataclasses import asdict

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, Wire
from kessik.core.facts import QUANTITIES, Measurement, Owner, Provenance, Quantity, history, remark
from kessik.core.hardness import HardnessSummary
from kessik.core.limits import most
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.facts import hardness_summary


class QuantityOut(Wire):
    """What can be known of a blade or an edge: bounds, and what is usual."""

    name: str
    label: str
    of: Owner
    unit: str
    low: float | None
    high: float | None
    usual_low: float | None
    usual_high: float | None
    decimals: int
    suggested: list[str]
    zero_is_none: bool

    @classmethod
    def of_quantity(cls, quantity: Quantity) -> "QuantityOut":
        return cls(**{**asdict(quantity), "suggested": list(quantity.suggested)})


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


class MeasurementBody(Wire):
    """One more value of a fact; a number may be left out where the details give it."""

    id: Id
    quantity: ShortText
    edge_id: Id | None = None
    value: Finite | None = None
    words: ShortText = ""
    standing: Provenance = "measured_here"
    on: Day = ""
    instrument: ShortText = ""
    note: LongText = ""
    details: DetailsBody = Field(default_factory=DetailsBody)

    def to_core(self) -> Measurement:
        plain = self.model_dump(exclude={"edge_id", "details"})
        return Measurement(**plain, details=self.details.model_dump(exclude_defaults=True))


class HardnessOut(Wire):
    """Rockwell readings of one day, summed up."""

    mean_hrc: float
    low_hrc: float
    high_hrc: float
    sd_hrc: float | None
    correction_hrc: float
    used: list[float]
    dropped: list[float]
    warnings: list[str]

    @classmethod
    def of(cls, summary: HardnessSummary) -> "HardnessOut":
        return cls(**{name: getattr(summary, name) for name in cls.model_fields})


class MeasurementOut(Wire):
    """A measurement as it is kept; `in_use` marks the one that counts."""

    id: str
    quantity: str
    value: float | None
    words: str
    standing: Provenance
    on: str
    instrument: str
    note: str
    details: DetailsBody
    recorded_utc: str
    struck: str
    in_use: bool
    remark: str
    hardness: HardnessOut | None = None

    @classmethod
    def of(cls, m: Measurement, in_use: bool, blade: Blade | None = None) -> "MeasurementOut":
        quantity = QUANTITIES[m.quantity]
        summed = None
        if blade is not None and m.quantity == "hardness_hrc" and m.details.get("readings"):
            summed = HardnessOut.of(hardness_summary(m.details, blade))
        return cls(
            **{
                name: getattr(m, name)
                for name in cls.model_fields
                if hasattr(m, name) and name != "details"
            },
            details=DetailsBody(**m.details),
            in_use=in_use,
            remark=remark(quantity, m.value) if m.value is not None else "",
            hardness=summed,
        )


def histories(
    measurements: tuple[Measurement, ...], blade: Blade | None = None
) -> list[MeasurementOut]:
    """All measurements by quantity, the one in use first."""
    out = []
    for name in dict.fromkeys(q for q in QUANTITIES if any(m.quantity == q for m in measurements)):
        for index, m in enumerate(history(measurements, name)):
            out.append(MeasurementOut.of(m, index == 0 and not m.struck, blade))
    return out
