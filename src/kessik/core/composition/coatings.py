"""Coatings and platings: an element that no bare candidate explains asks for a shot on bare
steel.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.composition.candidates import Candidate
from kessik.core.composition.means import ElementMean

COATING_ELEMENTS = ("Ti", "Zr", "W", "Al", "Cr")
"""What blades are coated with; chromium counts where there is too much of it."""
_TOO_MUCH_CHROMIUM_PERCENT = 16.0
_WORTH_ASKING_PERCENT = 0.5


@dataclass(frozen=True)
class Suspicion:
    """The elements that look like a coating, with what was read of them in mass per cent."""

    elements: tuple[ElementMean, ...]


def coating_suspicion(
    means: Sequence[ElementMean], candidates: Sequence[Candidate]
) -> Suspicion | None:
    """The elements of coatings that every grade has too little of; None while some grade explains
    all of them.
    """
    if any(candidate.is_in for candidate in candidates):
        return None
    unexplained = [mean for mean in means if _is_much(mean) and _unexplained(mean, candidates)]
    return Suspicion(tuple(unexplained)) if unexplained else None


def _is_much(mean: ElementMean) -> bool:
    least = _TOO_MUCH_CHROMIUM_PERCENT if mean.element == "Cr" else _WORTH_ASKING_PERCENT
    return mean.detected and mean.element in COATING_ELEMENTS and mean.percent > least


def _unexplained(mean: ElementMean, candidates: Sequence[Candidate]) -> bool:
    """Whether all grades that would fit but for coating elements have too little of this one."""
    nearly = [
        {d.element for d in candidate.excluded_by if d.z > 0}
        for candidate in candidates
        if all(d.element in COATING_ELEMENTS for d in candidate.excluded_by)
    ]
    if nearly:
        return all(mean.element in above for above in nearly)
    return all(
        any(d.element == mean.element and d.z > 0 for d in candidate.excluded_by)
        for candidate in candidates
    )
