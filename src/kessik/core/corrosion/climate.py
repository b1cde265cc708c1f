"""Temperature and humidity along a soak, and what of them is not as a cabinet should have it.

References
----------
[1] ISO 9227, neutral salt spray: 35 ± 2 °C, pH 6.5 to 7.2 of what is collected; from memory.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.exposures import exposure_h
from kessik.core.corrosion.soaks import Act, Soak

Condition = Literal["temperature_c", "humidity_percent", "ph"]
_SPRAY: tuple[tuple[Condition, float, float], ...] = (
    ("temperature_c", 33.0, 37.0), ("ph", 6.5, 7.2),
)  # fmt: skip  # [1]


@dataclass(frozen=True)
class ClimateReading:
    """What was measured at an hour of exposure: °C, per cent relative humidity."""

    hours: float
    temperature_c: float | None
    humidity_percent: float | None


@dataclass(frozen=True)
class OutOfCabinet:
    """A condition that lay outside of what the salt spray asks for, as it was measured."""

    condition: Condition
    measured: float
    low: float
    high: float
    hours: float


def climate_of(acts: Sequence[Act]) -> tuple[ClimateReading, ...]:
    """The readings of temperature and humidity along the hours."""
    found = [
        ClimateReading(exposure_h(act.clock_h, acts), act.temperature_c, act.humidity_percent)
        for act in acts
        if act.kind == "measured"
        and not act.struck
        and not (act.temperature_c is None and act.humidity_percent is None)
    ]
    return tuple(sorted(found, key=lambda reading: reading.hours))


def out_of_cabinet(soak: Soak, acts: Sequence[Act]) -> tuple[OutOfCabinet, ...]:
    """The worst reading of each condition that a salt spray cabinet should have kept [1]."""
    if soak.method.key != "salt_spray":
        return ()
    found = []
    for condition, low, high in _SPRAY:
        outside = [
            (max(low - value, value - high), value, exposure_h(act.clock_h, acts))
            for act in acts
            if not act.struck
            and (value := getattr(act, condition)) is not None
            and not low <= value <= high
        ]
        if outside:
            _, value, hours = max(outside)
            found.append(OutOfCabinet(condition, value, low, high, hours))
    return tuple(found)
