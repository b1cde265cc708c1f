"""The library of grades: what is known of each by common practice, with the tester's own word over
it.
"""

from collections.abc import Iterable, Mapping

from kessik.core.hardness import USUAL_HRC, USUAL_STANDING
from kessik.core.shelf.blades import Grade

_OURS: Mapping[str, Grade] = {
    name: Grade(name, low, high, USUAL_STANDING, "common practice, from memory")
    for name, (low, high) in USUAL_HRC.items()
}


def library(own: Iterable[Grade]) -> dict[str, Grade]:
    """Every grade by its designation; the tester's own take the place of ours where they say
    something.
    """
    told = {grade.name: grade for grade in own}
    silent = {name for name, grade in told.items() if grade.usual_low_hrc is None and name in _OURS}
    return {**_OURS, **{name: grade for name, grade in told.items() if name not in silent}}
