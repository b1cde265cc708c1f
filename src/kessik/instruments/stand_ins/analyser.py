"""A stand-in for a handheld X-ray fluorescence analyser: counting statistics, limits of detection,
a calibration that is a little off, no light elements, coatings.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from kessik.core.composition.elements import ELEMENTS
from kessik.core.composition.shots import ElementReading, Normalised, Shot, Surface
from kessik.instruments.virtual_bench.melts import Melt

_LIGHTEST, _POOR_UPTO = 12, 16
_ERROR_AT_ONE_PERCENT, _BACKGROUND_PERCENT, _POORER = 0.06, 0.02, 4.0
_CALIBRATION_SHARE, _CALIBRATION_PERCENT = 0.012, 0.006
_SHOWN_FROM_SDS = 3.0
_SHARE_THROUGH_A_COATING = 0.55


@dataclass(frozen=True)
class Coating:
    """A layer on the steel: its elements in mass per cent of the layer."""

    percent: Mapping[str, float]


NITRIDE_OF_TITANIUM = Coating({"Ti": 77.0, "N": 23.0})


class AnalyserStandIn:
    """One analyser with a calibration of its own, drawn once."""

    def __init__(self, rng: np.random.Generator, name: str = "simulated analyser") -> None:
        self.name = name
        self._rng = rng
        self._off = {
            symbol: (
                1.0 + float(rng.normal(0.0, _CALIBRATION_SHARE)),
                float(rng.normal(0.0, _CALIBRATION_PERCENT)),
            )
            for symbol in ELEMENTS
        }

    def shoot(
        self,
        melt: Melt,
        shot: Shot,
        *,
        seconds: float = 30.0,
        coating: Coating | None = None,
        normalise: bool = False,
    ) -> Shot:
        """The shot with what the analyser makes of a melt, mass per cent; `seconds` of counting."""
        true = self._under_the_beam(melt, coating)
        readings = [
            self._read(symbol, content, seconds)
            for symbol, content in true.items()
            if ELEMENTS[symbol].number >= _LIGHTEST
        ]
        if normalise:
            readings = _to_a_hundred(readings)
        surface: Surface = "coated" if coating else shot.surface
        mode: Normalised = "yes" if normalise else "no"
        return Shot(
            shot.id,
            shot.blade_id,
            shot.name,
            tuple(readings),
            surface,
            mode,
            shot.on,
            self.name,
            shot.operator,
            shot.batch_id,
        )

    def _under_the_beam(self, melt: Melt, coating: Coating | None) -> dict[str, float]:
        steel = {**melt.percent, "Fe": melt.iron}
        if coating is None:
            return steel
        through = _SHARE_THROUGH_A_COATING
        symbols = dict.fromkeys([*steel, *coating.percent])
        return {
            symbol: through * steel.get(symbol, 0.0)
            + (1.0 - through) * coating.percent.get(symbol, 0.0)
            for symbol in symbols
        }

    def _read(self, symbol: str, content: float, seconds: float) -> ElementReading:
        share, offset = self._off[symbol]
        if symbol == "Fe":
            share, offset = 1.0, 0.0
        poorer = _POORER if ELEMENTS[symbol].number <= _POOR_UPTO else 1.0
        counting = _ERROR_AT_ONE_PERCENT * poorer / math.sqrt(seconds)

        def error(percent: float) -> float:
            return counting * math.sqrt(max(percent, 0.0) + _BACKGROUND_PERCENT)

        seen = content * share + offset + float(self._rng.normal(0.0, error(content)))
        limit = _SHOWN_FROM_SDS * error(0.0)
        if seen < limit:
            return ElementReading(symbol, round(limit, 3), None, detected=False)
        return ElementReading(symbol, round(seen, 3), max(round(error(seen), 3), 0.001))


def _to_a_hundred(readings: list[ElementReading]) -> list[ElementReading]:
    whole = sum(reading.percent for reading in readings if reading.detected)
    scale = 100.0 / whole
    return [
        ElementReading(
            r.element,
            round(r.percent * scale, 3),
            None
            if r.plus_minus_percent is None
            else max(round(r.plus_minus_percent * scale, 3), 0.001),
            r.detected,
        )
        for r in readings
    ]
