"""A grade's own page, and which grades of the library no analyser separates."""

from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.composition.claims import ClaimVerdict
from kessik.core.composition.derived import Derived, dissolved_for_teaching, of_grade
from kessik.core.composition.elements import Visibility, visibility
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.separation import groups_never_apart
from kessik.core.composition.settling import Settling, separation_of
from kessik.core.heat_treatment import Martensite, martensite
from kessik.core.shelf.blades import Blade
from kessik.services.assays.verdicts import judged
from kessik.services.reading.grades import get_grade, whole_library
from kessik.services.reading.lives_of_blades import LifeLine, life_lines_of
from kessik.store.database import Database
from kessik.store.queries import assays, shelf

_NEIGHBOURS = 6
_LEAST_OVERLAP = 0.001


@dataclass(frozen=True)
class Neighbour:
    """A grade that looks alike to an analyser, how far, and what separates the two."""

    grade: Grade
    overlap: float
    separated_by: Settling


@dataclass(frozen=True)
class BladeOfGrade:
    """A blade sold as a grade: what its shots say of that, and its lives."""

    blade: Blade
    verdict: ClaimVerdict
    lives: tuple[LifeLine, ...]


@dataclass(frozen=True)
class GradePage:
    """All that is known of one grade; derived figures are of the middle of its ranges."""

    grade: Grade
    own: bool
    visible: Mapping[str, Visibility]
    derived: Derived
    martensite: Martensite
    neighbours: tuple[Neighbour, ...]
    blades: tuple[BladeOfGrade, ...]


@dataclass(frozen=True)
class Alike:
    """Grades that no analyser in air tells apart, and what would."""

    grades: tuple[str, ...]
    separated_by: tuple[Settling, ...]


def grade_page(db: Database, name: str) -> GradePage:
    """Gather a grade's page; UnknownError where there is no such grade."""
    library = whole_library(db)
    grade = get_grade(library.grades, name)
    ready = GradeShelf.of(library.grades)
    with db.read() as session:
        own = [b for b in shelf.all_blades(session) if _is_of(b, grade, library.grades)]
        shots = assays.shots_by_blade(session, [blade.id for blade in own])
    lives = life_lines_of(db, [blade.id for blade in own])
    middles = {found.element: found.middle_percent for found in grade.ranges}
    figures, start = of_grade(grade), martensite(dissolved_for_teaching(middles))
    return GradePage(
        grade,
        grade.name in library.own,
        {found.element: visibility(found.element) for found in grade.ranges},
        figures,
        start,
        _neighbours(grade, ready),
        tuple(
            BladeOfGrade(each.blade, each.assay.verdict, tuple(lives.get(each.blade.id, ())))
            for each in judged(own, shots, ready)
        ),
    )


def confusion(db: Database) -> tuple[list[Alike], int]:
    """The groups of the library that no analyser separates, and among how many grades."""
    ready = GradeShelf.of(whole_library(db).grades)
    groups = [
        [ready.table.grades[place] for place in places]
        for places in groups_never_apart(ready.all_overlaps())
    ]
    return [_alike(group) for group in groups], len(ready.table.grades)


def _alike(group: list[Grade]) -> Alike:
    first = group[0]
    found = tuple(separation_of(first, other) for other in group[1:])
    return Alike(tuple(grade.name for grade in group), found)


def _is_of(blade: Blade, grade: Grade, grades: Mapping[str, Grade]) -> bool:
    found = find_grade(blade.claimed_grade or "", grades)
    return found is not None and found.name == grade.name


def _neighbours(grade: Grade, ready: GradeShelf) -> tuple[Neighbour, ...]:
    if not grade.ranges:
        return ()
    overlap = ready.overlap_with(grade.name)
    order = sorted(range(overlap.size), key=lambda place: -float(overlap[place]))
    others = [place for place in order if ready.table.grades[place].name != grade.name]
    return tuple(
        Neighbour(other, float(overlap[place]), separation_of(grade, other))
        for place in others[:_NEIGHBOURS]
        if float(overlap[place]) > _LEAST_OVERLAP and (other := ready.table.grades[place])
    )
