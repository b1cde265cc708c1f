"""What would settle an open verdict: more shots, an element that only another method sees, or
nothing in the composition at all.
"""

from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kessik.core.composition.fit import EXCLUDED_Z, fits
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade
from kessik.core.composition.means import ElementMean
from kessik.core.composition.separation import (
    SELDOM_APART,
    separating,
)
from kessik.core.composition.shot_summary import ShotSummary
from kessik.core.composition.steels import Steel

AS_WELL = 0.1
"""Another grade fits as well unless the shots are ten times as likely under the claim."""
_SHOT_COUNTS = (2, 3, 4, 5, 6, 8, 10, 12, 15, 20)

By = Literal["shots", "unseen_element", "laboratory", "structure", "nothing"]


@dataclass(frozen=True)
class Settling:
    """What would separate the claim from one rival: so many shots in all, the elements that only
    another method sees, a laboratory with a tighter calibration on the elements seen, the structure
    where only the making route differs, or nothing at all.
    """

    rival: Grade
    by: By
    shots: int | None = None
    elements: tuple[str, ...] = ()


def settlings(
    blade: ShotSummary, claim: Grade, rivals: Sequence[Steel], shelf: GradeShelf
) -> tuple[Settling, ...]:
    """What would separate the claim from each of its rivals."""
    shots, known = _shots_needed(blade, claim, rivals, shelf), blade.read_otherwise
    return tuple(_settling(rival, claim, shots.get(rival.grade.name), known) for rival in rivals)


def _settling(rival: Steel, claim: Grade, shots: int | None, known: Collection[str]) -> Settling:
    if rival.overlap < SELDOM_APART and shots is not None:
        return Settling(rival.grade, "shots", shots)
    return separation_of(claim, rival.grade, known)


def separation_of(first: Grade, second: Grade, known: Collection[str] = ()) -> Settling:
    """What other than more shots separates two grades: an element that is not seen, a laboratory,
    the structure, or nothing; `known` are the elements that another method has read.
    """
    unseen = separating(first, second, seen=False, also=known)
    if unseen:
        return Settling(second, "unseen_element", elements=unseen)
    seen = separating(first, second, seen=True, also=known)
    if not seen and first.route and second.route and first.route != second.route:
        return Settling(second, "structure")
    return Settling(second, "laboratory" if seen else "nothing", elements=seen[:3])


def _shots_needed(
    blade: ShotSummary, claim: Grade, rivals: Sequence[Steel], shelf: GradeShelf
) -> dict[str, int]:
    """How many shots in all would leave each rival behind, the means staying where they are."""
    now = max(len(blade.counted), 1)
    counts = [count for count in _SHOT_COUNTS if count > now]
    if not counts or not rivals:
        return {}
    later = [_with_shots(blade.against_grades, now, count, shelf) for count in counts]
    names = [claim.name, *(rival.grade.name for rival in rivals)]
    found = fits(shelf.table.only(names), later, [blade.normalised] * len(counts))
    gap = found.log_weight[:, :1] - found.log_weight[:, 1:]
    is_out = found.worst > EXCLUDED_Z
    settled = ((gap > -np.log(AS_WELL)) | is_out[:, 1:]) & ~is_out[:, :1]
    return {
        name: counts[int(settled[:, place].argmax())]
        for place, name in enumerate(names[1:])
        if settled[:, place].any()
    }


def _with_shots(
    means: Sequence[ElementMean], now: int, then: int, shelf: GradeShelf
) -> list[ElementMean]:
    share = float(np.sqrt(now / then))
    return [
        replace(
            mean,
            uncertainty_percent=float(
                np.hypot(
                    mean.shot_percent * share,
                    shelf.calibration.floor_percent(mean.element, mean.percent),
                )
            ),
        )
        if mean.detected
        else mean
        for mean in means
    ]
