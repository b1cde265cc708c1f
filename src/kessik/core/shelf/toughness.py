"""Toughness of a blade or a grade: what was measured or published, and energies of one's own.

References
----------
[1] ISO 148-1, Charpy pendulum impact test: energy from the heights of the pendulum; from memory.
[2] ISO 7500-1, class 1: forces are right to 1 % of what is read; from memory.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
import scipy

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import Provenance
from kessik.core.limits import check_limit
from kessik.core.records import Day, LongText, Within

ToughnessTest = Literal["charpy_v", "charpy_plain", "charpy_c", "izod", "bend", "other"]
Orientation = Literal["", "along", "across"]
EnergyWay = Literal["given", "curve", "pendulum"]
_GRAVITY_M_S2 = 9.80665
_FORCE_SHARE = 0.01  # [2]
_PATH_SHARE = 0.01
"""How far a deflection may be off, the give of the machine with it; common practice, no source."""
_LEAST_POINTS = 5


@dataclass(frozen=True)
class Toughness:
    """One energy to break, J, with its interval where it has one: by which test, on what specimen,
    cut along or across the rolling direction, at what hardness, and who says so.

    It hangs on a blade, or on a grade by its name.
    """

    id: str
    blade_id: str = ""
    grade: str = ""
    test: ToughnessTest = "other"
    joules: Annotated[float, Within("joules")] = 0.0
    low_j: Annotated[float, Within("joules")] | None = None
    high_j: Annotated[float, Within("joules")] | None = None
    specimen: str = ""
    orientation: Orientation = ""
    hardness_hrc: Annotated[float, Within("hrc")] | None = None
    source: str = ""
    standing: Provenance = "measured_here"
    way: EnergyWay = "given"
    on: Day = ""
    note: LongText = ""
    struck: str = ""

    @property
    def alike(self) -> tuple[str, ...]:
        """What has to be the same for two values to be compared."""
        return self.test, self.specimen.strip().casefold(), self.orientation


@dataclass(frozen=True)
class Energy:
    """An energy, J, with the interval that its readings leave open."""

    joules: float
    low_j: float
    high_j: float


def check_toughness(found: Toughness) -> None:
    """Refuse a value of nothing, without its test's specimen, outside its interval, or published
    by nobody.
    """
    if bool(found.blade_id) == bool(found.grade):
        raise OutOfRangeError("a toughness is of a blade or of a grade", field="grade")
    check_limit("joules", found.joules, "joules")
    if found.joules <= 0:
        raise OutOfRangeError("give the energy to break, J", field="joules")
    low, high = found.low_j, found.high_j
    if low is not None and low > found.joules:
        raise OutOfRangeError(f"the minimum, {low:g} J, is above {found.joules:g} J", field="low_j")
    if high is not None and high < found.joules:
        raise OutOfRangeError(
            f"the maximum, {high:g} J, is below {found.joules:g} J", field="high_j"
        )
    if not found.specimen.strip():
        raise OutOfRangeError(
            "say what was broken: width, height and length, with its notch", field="specimen"
        )
    if found.standing in ("literature", "standard", "claimed") and not found.source.strip():
        raise OutOfRangeError("name where it was published", field="source")


def energy_of_curve(deflection_mm: Sequence[float], force_n: Sequence[float]) -> Energy:
    """The area under force over deflection, J: N·mm over a thousand; trapezia.

    Open are the force [2], the deflection, and what lies between the points: half of what leaving
    out every other point would change. A worked example: 0 to 1000 N over 2 mm, straight, is 1 J.
    OutOfRangeError with fewer than five points, or where the deflection goes back by more than a
    tenth of itself.
    """
    path = np.asarray(deflection_mm, dtype=np.float64)
    force = np.asarray(force_n, dtype=np.float64)
    if path.size < _LEAST_POINTS:
        raise OutOfRangeError(
            f"a curve needs at least {_LEAST_POINTS} points, this one has {path.size}",
            field="file",
        )
    whole = float(path.max() - path.min())
    back = float(-np.minimum(np.diff(path), 0.0).sum())
    if whole <= 0 or back > 0.1 * whole:
        raise OutOfRangeError(
            "the deflection goes back: give the curve up to the break only", field="file"
        )
    joules = float(scipy.integrate.trapezoid(force, path)) / 1000
    if joules <= 0:
        raise OutOfRangeError("no energy lies under this curve: is the force negative?",
                              field="file")  # fmt: skip
    kept = np.unique(np.append(np.arange(0, path.size, 2), path.size - 1))
    coarse = float(scipy.integrate.trapezoid(force[kept], path[kept])) / 1000
    between = 0.5 * abs(coarse - joules)
    half = math.hypot(joules * math.hypot(_FORCE_SHARE, _PATH_SHARE), between)
    return Energy(joules, max(joules - half, 0.0), joules + half)


def pendulum_energy(
    mass_kg: float, from_mm: float, to_mm: float, read_mm: float, lost_j: float
) -> Energy:
    """What a pendulum gave to the specimen: its weight times the height it did not come back to,
    less what it loses without one [1]; heights of its centre of mass are read to `read_mm`.

    A worked example: 20 kg from 1500 to 1400 mm gave 19.6 J. OutOfRangeError where it rose higher
    than it was let go from.
    """
    check_limit("pendulum_kg", mass_kg, "mass_kg")
    for field, height in (("from_mm", from_mm), ("to_mm", to_mm)):
        check_limit("pendulum_mm", height, field)
    if to_mm >= from_mm:
        raise OutOfRangeError(
            f"it rose to {to_mm:g} mm, no lower than the {from_mm:g} mm that it fell from",
            field="to_mm",
        )
    per_mm = mass_kg * _GRAVITY_M_S2 / 1000
    joules = per_mm * (from_mm - to_mm) - lost_j
    if lost_j < 0 or joules <= 0:
        raise OutOfRangeError(
            f"what it loses by itself, {lost_j:g} J, is more than what it gave", field="lost_j"
        )
    half = per_mm * math.sqrt(2.0) * abs(read_mm)
    return Energy(joules, max(joules - half, 0.0), joules + half)
