"""Two blades as their makers describe them, side by side: what differs, what makes the comparison
unequal, and what the lives say.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.separation import Difference, differences
from kessik.core.facts import MEASURED
from kessik.core.heat_treatment import Caveat, own_warnings, unequal
from kessik.core.shelf.blades import Blade
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.lives_of_blades import LifeLine, life_lines_of
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database


@dataclass(frozen=True)
class DescribedBlade:
    """A blade with the grade it is sold as, its lives, and what its hardening risks."""

    blade: Blade
    grade: Grade | None
    lives: tuple[LifeLine, ...]
    risks: tuple[Caveat, ...]


@dataclass(frozen=True)
class SideBySide:
    """Two blades laid side by side; `is_all_claimed` where nothing of them was measured."""

    first: DescribedBlade
    second: DescribedBlade
    differences: tuple[Difference, ...]
    caveats: tuple[Caveat, ...]
    is_all_claimed: bool


def side_by_side(db: Database, first_id: str, second_id: str) -> SideBySide:
    """Lay two blades side by side; UnknownError where one of them is not on the shelf."""
    with db.read() as session:
        blades = [get_blade(session, blade_id) for blade_id in (first_id, second_id)]
        grades = grades_by_name(session)
    lives = life_lines_of(db, [blade.id for blade in blades])
    first, second = (
        _described(blade, find_grade(blade.claimed_grade or "", grades), lives.get(blade.id, ()))
        for blade in blades
    )
    return SideBySide(
        first,
        second,
        _differences(first.grade, second.grade),
        tuple(_caveats(*blades)),
        _is_all_claimed(blades),
    )


def _differences(first: Grade | None, second: Grade | None) -> tuple[Difference, ...]:
    return () if first is None or second is None else tuple(differences(first, second))


def _described(blade: Blade, grade: Grade | None, lives: Sequence[LifeLine]) -> DescribedBlade:
    chromium = grade.middle("Cr") if grade else None
    risks = own_warnings(blade.heat_treatment, chromium)
    return DescribedBlade(blade, grade, tuple(lives), tuple(risks))


def _caveats(first: Blade, second: Blade) -> Sequence[Caveat]:
    hardness = first.value("hardness_hrc"), second.value("hardness_hrc")
    return unequal(first.heat_treatment, second.heat_treatment, hardness)


def _is_all_claimed(blades: list[Blade]) -> bool:
    used = [blade.used("hardness_hrc") for blade in blades]
    return not any(found and found.standing in MEASURED for found in used)
