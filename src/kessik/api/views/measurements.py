"""Quantities and measurements over the wire."""

from kessik.api.schemas.measurements import (
    DetailsBody,
    HardnessOut,
    MeasurementOut,
)
from kessik.core.facts import QUANTITIES, Measurement, history, remark
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.facts import hardness_summary


def measurement_out(m: Measurement, in_use: bool, blade: Blade | None = None) -> MeasurementOut:
    """A measurement, with a remark where it is unusual; hardness readings are summed up."""
    quantity = QUANTITIES[m.quantity]
    summed = None
    if blade is not None and m.quantity == "hardness_hrc" and m.details.get("readings"):
        summed = HardnessOut.showing(hardness_summary(m.details, blade))
    return MeasurementOut.showing(
        m,
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
            out.append(measurement_out(m, index == 0 and not m.struck, blade))
    return out
