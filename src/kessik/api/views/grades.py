"""Grades over the wire."""

from collections.abc import Sequence

from kessik.api.schemas.grades import (
    AlikeOut,
    BladeOfGradeOut,
    ConfusionOut,
    DerivedOut,
    EffectOut,
    GradeOut,
    GradePageOut,
    GradesOut,
    NeighbourOut,
)
from kessik.core.composition.derived import Derived
from kessik.core.composition.grades import Grade
from kessik.core.words.assay import VERDICT_WORDS, separated_words
from kessik.core.words.elements import derived_notes, effects_of
from kessik.core.words.performance import trial_life_words
from kessik.services.assays.grade_pages import Alike, BladeOfGrade, GradePage, Neighbour
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
    return NeighbourOut.showing(
        found, name=found.grade.name, separated_by=separated_words(found.separated_by)
    )


def confusion_out(groups: Sequence[Alike], grades: int) -> ConfusionOut:
    """The groups that no analyser separates, among so many grades."""
    return ConfusionOut(groups=[_alike_out(group) for group in groups], grades=grades)


def _alike_out(found: Alike) -> AlikeOut:
    words = dict.fromkeys(separated_words(each) for each in found.separated_by)
    return AlikeOut(grades=list(found.grades), separated_by="; ".join(words))


def grade_page_out(page: GradePage) -> GradePageOut:
    """All that is known of one grade."""
    return GradePageOut.showing(
        page,
        grade=grade_out(page.grade, page.own),
        derived=derived_out(
            page.derived,
            page.martensite.ms_c,
            page.martensite.retained_percent,
            derived_notes(page.derived, page.martensite),
        ),
        neighbours=[neighbour_out(found) for found in page.neighbours],
        effects=[EffectOut.showing(effect) for effect in effects_of(page.grade)],
        blades=[_blade_of_grade_out(found) for found in page.blades],
    )


def _blade_of_grade_out(found: BladeOfGrade) -> BladeOfGradeOut:
    return BladeOfGradeOut(
        id=found.blade.id,
        code=found.blade.code,
        mark=found.blade.mark,
        verdict=VERDICT_WORDS[found.verdict],
        lives=[trial_life_words(line.trial, line.point) for line in found.lives],
    )
