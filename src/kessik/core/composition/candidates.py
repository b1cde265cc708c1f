"""Every grade of a shelf against the shots of one blade: its weight of evidence, and what excludes
it.
"""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from kessik.core.composition.fit import CLOSE_Z, EXCLUDED_Z, Fits, weights
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade, Range
from kessik.core.composition.shot_summary import ShotSummary
from kessik.core.composition.table import Floats


@dataclass(frozen=True)
class Departure:
    """An element that lies outside a grade's range: measured as corrected for that grade, the
    range with its allowance, mass per cent, and by how many standard uncertainties; negative
    below. `listed` is what the grade itself says, None where it does not list the element.
    """

    element: str
    measured_percent: float
    low_percent: float
    high_percent: float
    z: float
    listed: Range | None

    @property
    def is_recalled(self) -> bool:
        return self.listed is not None and self.listed.is_recalled


@dataclass(frozen=True)
class Candidate:
    """A grade with its weight of evidence among those still in, 0 where it is out, and what
    excludes it, the worst first; `close` lies outside too, but by less than excludes.

    `scale` corrects what was read for what is not seen of it; `distance` is the largest |z|,
    `overlap` how far it looks like the claim to the analyser, and `is_same_steel` whether another
    standard only names the claimed steel so.
    """

    grade: Grade
    weight: float
    distance: float
    excluded_by: tuple[Departure, ...]
    close: tuple[Departure, ...]
    overlap: float = 0.0
    is_same_steel: bool = False
    scale: float = 1.0

    @property
    def is_in(self) -> bool:
        return not self.excluded_by


def candidates(
    blade: ShotSummary,
    found: Fits,
    row: int,
    claim: Grade | None,
    shelf: GradeShelf,
    nearest: int | None = None,
) -> list[Candidate]:
    """The grades of the shelf for one assay: those still in by their weight, then the others by
    how far they lie from what was read.

    With `nearest` only so many of the others, and the claim.
    """
    table = shelf.table
    worst = found.worst[row]
    weight = weights(found.log_weight[row], worst <= EXCLUDED_Z)
    same = _same_steel(claim)
    alike = None if claim is None else shelf.overlap_with(claim.name, blade.read_otherwise)
    misfit = np.square(found.z[:, row]).sum(axis=0)
    order = np.lexsort((misfit, -weight))
    is_in = int(np.count_nonzero(worst <= EXCLUDED_Z))
    if nearest is not None:
        far = order[is_in + nearest :]
        own = [table.place(name) for name in same if table.has(name)]
        order = np.concatenate([order[: is_in + nearest], far[np.isin(far, own)]])
    percent = {mean.element: mean.percent for mean in blade.against_grades}
    made = []
    for index in order.tolist():
        z, scale = found.z[:, row, index], float(found.scale[row, index])
        outside = _departures(shelf, index, z, scale, percent)
        made.append(
            Candidate(
                table.grades[index],
                float(weight[index]),
                float(worst[index]),
                tuple(d for d in outside if abs(d.z) > EXCLUDED_Z),
                tuple(d for d in outside if abs(d.z) <= EXCLUDED_Z),
                1.0 if alike is None else float(alike[index]),
                table.grades[index].name in same,
                scale,
            )
        )
    return made


def _same_steel(claim: Grade | None) -> set[str]:
    """The claim's own name and what other standards call the same steel."""
    if claim is None:
        return set()
    return {claim.name, *(e.name for e in claim.equivalents if e.nearness == "same")}


def _departures(
    shelf: GradeShelf, index: int, z: Floats, scale: float, percent: Mapping[str, float]
) -> list[Departure]:
    """The elements that lie outside a grade's range by enough to speak of, the worst first."""
    table = shelf.table
    grade = table.grades[index]
    found = []
    for place in np.flatnonzero(np.abs(z) > CLOSE_Z).tolist():
        symbol = table.elements[place]
        found.append(
            Departure(
                symbol,
                percent[symbol] * scale,
                float(table.low[index, place]),
                float(table.high[index, place]),
                float(z[place]),
                grade.range_of(symbol),
            )
        )
    return sorted(found, key=lambda departure: -abs(departure.z))
