"""Grades over the wire."""

from kessik.api.schemas.grades import (
    DerivedOut,
    GradeOut,
    GradePageOut,
    GradesOut,
    NeighbourOut,
)
from kessik.core.composition.derived import Derived
from kessik.core.composition.grades import Grade
from kessik.services.assays.grade_pages import GradePage, Neighbour
from kessik.services.reading.grades import Library


def grade_out(grade: Grade, own: bool) -> GradeOut:
    """A grade as it stands, and whether the tester said something of it."""
    return GradeOut.showing(grade, own=own)


def grades_out(library: Library) -> GradesOut:
    """The whole library."""
    return GradesOut(grades=[grade_out(g, g.name in library.own) for g in library.grades.values()])


def derived_out(found: Derived, ms_c: float, retained: float, notes: list[str]) -> DerivedOut:
    """What follows from the middle of the ranges of a grade."""
    return DerivedOut.showing(found, ms_c=ms_c, retained_percent=retained, notes=notes)


def neighbour_out(found: Neighbour) -> NeighbourOut:
    """A grade that lies near another."""
    return NeighbourOut.showing(found, name=found.grade.name)


def grade_page_out(page: GradePage) -> GradePageOut:
    """All that is known of one grade."""
    return GradePageOut.showing(
        page,
        grade=grade_out(page.grade, page.own),
        derived=derived_out(
            page.derived, page.martensite.ms_c, page.martensite.retained_percent, page.notes
        ),
        neighbours=[neighbour_out(found) for found in page.neighbours],
    )
