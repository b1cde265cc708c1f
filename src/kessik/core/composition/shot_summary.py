"""The shots of one blade summed up, and made ready to be held against grades."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.composition.elements import visibility
from kessik.core.composition.means import Calibration, ElementMean, element_means
from kessik.core.composition.shots import Normalised, Shot

_LEAST_REST_PERCENT = 0.3


@dataclass(frozen=True)
class ShotSummary:
    """`means` is what was read, `against_grades` has besides what the analyser passed over;
    `counted` are the shots that speak of the steel, `on_coating` how many do not.
    """

    counted: tuple[Shot, ...]
    on_coating: int
    means: tuple[ElementMean, ...]
    against_grades: tuple[ElementMean, ...]
    normalised: Normalised

    @property
    def read_otherwise(self) -> frozenset[str]:
        """What no analyser in air sees and another method has read: carbon by combustion, say."""
        found = (mean.element for mean in self.means if mean.detected)
        return frozenset(symbol for symbol in found if visibility(symbol) == "not_seen")


def held(shots: Sequence[Shot], elements: Sequence[str], calibration: Calibration) -> ShotSummary:
    """Sum up the shots of one blade; shots of unlike files are taken as nobody knows whether they
    are normalised.
    """
    counted = tuple(shot for shot in shots if shot.counts)
    means = element_means(counted, calibration)
    modes = {shot.normalised for shot in counted if _is_of_an_analyser(shot)}
    normalised: Normalised = modes.pop() if len(modes) == 1 else "unknown"
    on_coating = sum(1 for shot in shots if shot.surface == "coated" and not shot.struck)
    every = (*means, *_passed_over(means, elements))
    return ShotSummary(counted, on_coating, means, every, normalised)


def _is_of_an_analyser(shot: Shot) -> bool:
    """Carbon by combustion comes alone, and says nothing of how a file of shots was made."""
    return any(visibility(reading.element) != "not_seen" for reading in shot.readings)


def _passed_over(means: Sequence[ElementMean], elements: Sequence[str]) -> list[ElementMean]:
    """What was not reported beside iron is no more than what the reported ones leave of 100 %."""
    known = {mean.element for mean in means}
    if "Fe" not in known:
        return []
    rest = 100.0 - sum(mean.percent for mean in means if mean.detected)
    limit = max(rest, _LEAST_REST_PERCENT)
    third = limit / 3.0
    return [
        ElementMean(symbol, third, third, third, 0, False, limit)
        for symbol in elements
        if symbol not in known and visibility(symbol) == "seen"
    ]
