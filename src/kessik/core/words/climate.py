"""Temperature and humidity of a soak, in words."""

from collections.abc import Mapping, Sequence

from kessik.core.corrosion.climate import ClimateReading, Condition, OutOfCabinet
from kessik.core.words.sentences import counted

_NAMES: Mapping[Condition, tuple[str, str]] = {
    "temperature_c": ("temperature", " °C"), "humidity_percent": ("humidity", " %"),
    "ph": ("pH", ""),
}  # fmt: skip


def climate_reading_words(temperature_c: float | None, humidity_percent: float | None) -> str:
    """One reading; empty where nothing was read."""
    parts = [
        "" if temperature_c is None else f"{temperature_c:g} °C",
        "" if humidity_percent is None else f"{humidity_percent:g} % relative humidity",
    ]
    return ", ".join(part for part in parts if part)


def climate_words(found: Sequence[ClimateReading]) -> str:
    """Between what temperature and humidity lay; empty where nothing was read."""
    warm = [each.temperature_c for each in found if each.temperature_c is not None]
    damp = [each.humidity_percent for each in found if each.humidity_percent is not None]
    parts = [_span(warm, " °C"), _span(damp, " % relative humidity")]
    said = ", ".join(part for part in parts if part)
    return f"{said} ({counted(len(found), 'reading')})" if said else ""


def _span(values: Sequence[float], unit: str) -> str:
    if not values:
        return ""
    low, high = min(values), max(values)
    return f"{low:g}{unit}" if low == high else f"{low:g} to {high:g}{unit}"


def out_of_cabinet_words(found: OutOfCabinet) -> str:
    """A condition that a salt spray cabinet should have kept."""
    name, unit = _NAMES[found.condition]
    return (
        f"The {name} was {found.measured:g}{unit} at {found.hours:.3g} h; a salt spray asks for"
        f" {found.low:g} to {found.high:g}{unit} (ISO 9227, unconfirmed)."
    )
