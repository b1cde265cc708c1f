"""Gauge studies as they are kept: of which instrument, how it changed since the last one, and what
plans take from them.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from scipy.special import fdtrc

from kessik.core.errors import OutOfRangeError
from kessik.core.gauge.study import GaugeReading, GaugeStudy, study
from kessik.core.limits import check_limit
from kessik.core.moments import Moment

GaugeMeasures = Literal["force", "hardness", "thickness", "rust", "lives"]
_CHANGED_P = 0.05


@dataclass(frozen=True)
class KeptStudy:
    """A study of an instrument (or a line, or a hand) on what it measures; `in_use` where plans
    and lives reckon with it.
    """

    id: str
    instrument: str
    measures: GaugeMeasures
    unit: str
    readings: tuple[GaugeReading, ...]
    made: Moment
    in_use: bool = False

    @property
    def found(self) -> GaugeStudy:
        """What its readings say."""
        return study(self.readings)


@dataclass(frozen=True)
class GaugeDrift:
    """How repeatability changed since an earlier study: the ratio of its standard deviations, now
    over then, and whether that is more than chance (F test at 5 %, two-sided).
    """

    since: Moment
    ratio: float
    is_real: bool


def check_kept(kept: KeptStudy) -> None:
    """Refuse a study without an instrument, one that says nothing, forces and lives that are not
    above 0, or one in use whose readings scatter not at all, or as no gauge does.
    """
    if not kept.instrument.strip():
        raise OutOfRangeError("name the instrument, line or hand", field="instrument")
    kept.found  # noqa: B018 - refused here where it says nothing
    if kept.measures in ("force", "lives") and any(r.value <= 0 for r in kept.readings):
        raise OutOfRangeError(
            f"readings of {kept.measures} are above 0; one is not", field="readings"
        )
    if kept.in_use and kept.measures == "force":
        percent = scatter_percent(kept)
        if percent == 0:
            raise OutOfRangeError(
                "every repeat reads the same, so this study cannot say how readings scatter: read"
                " finer, or leave it unticked",
                field="in_use",
            )
        check_limit("reading_scatter_percent", percent, "in_use")


def drift(now: KeptStudy, before: KeptStudy) -> GaugeDrift | None:
    """How repeatability changed; None where one of the two shows none at all.

    A worked example: variances of 36 and 9 gf² with 20 degrees of freedom each: the ratio of
    deviations is 2, F = 4, p = 0.003.
    """
    a, b = (each.found.components["repeatability"] for each in (now, before))
    if a <= 0 or b <= 0:
        return None
    freedom = [_freedom(each) for each in (now, before)]
    f = a / b
    above = float(fdtrc(*freedom, f))
    p = 2.0 * min(above, 1.0 - above)
    return GaugeDrift(before.made, math.sqrt(f), p < _CHANGED_P)


def _freedom(kept: KeptStudy) -> int:
    cells = len({(r.part, r.operator) for r in kept.readings})
    return max(len(kept.readings) - cells, 1)


def last_before(kept: KeptStudy, others: Sequence[KeptStudy]) -> KeptStudy | None:
    """The newest earlier study of the same instrument, measuring the same in the same unit."""
    alike = [
        other
        for other in others
        if other.id != kept.id
        and other.made.utc < kept.made.utc
        and (other.instrument.casefold(), other.measures, other.unit)
        == (kept.instrument.casefold(), kept.measures, kept.unit)
    ]
    return max(alike, key=lambda other: other.made.utc, default=None)


def scatter_percent(kept: KeptStudy) -> float:
    """How one reading scatters over repeats, operators and their parts: the standard deviation of
    its ln, in per cent to the tenth that a tester would write.
    """
    logs = tuple(replace(r, value=math.log(r.value)) for r in kept.readings)
    return round(100.0 * math.sqrt(study(logs).grr), 1)


def repeats_of_lives(kept: KeptStudy) -> list[list[float]]:
    """The ln lives of each blade of a study of lives, as a plan learns edge-to-edge spread."""
    by_blade: dict[str, list[float]] = {}
    for reading in kept.readings:
        by_blade.setdefault(reading.part, []).append(math.log(reading.value))
    return list(by_blade.values())


def newest_in_use(studies: Sequence[KeptStudy], measures: GaugeMeasures) -> KeptStudy | None:
    """The newest study of a kind that plans and lives reckon with."""
    used = [kept for kept in studies if kept.in_use and kept.measures == measures]
    return max(used, key=lambda kept: kept.made.utc, default=None)
