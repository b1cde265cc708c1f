"""The library of grades with the tester's own: kept, confirmed, imported."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache

from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade, check_ranges, confirmed, find_grade, name_key
from kessik.core.composition.library import library, our_grades
from kessik.core.errors import ConflictError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS, most
from kessik.core.shelf.blades import check_usual
from kessik.interchange.faults import together
from kessik.interchange.grades_csv import read_grades
from kessik.interchange.named_files import NamedFile
from kessik.store.database import Database, Session
from kessik.store.queries import grades


@dataclass(frozen=True)
class Library:
    """Every grade by its name, and the names of those the tester said something of."""

    grades: dict[str, Grade]
    own: frozenset[str]


def grades_by_name(session: Session) -> dict[str, Grade]:
    """The library of grades, with the tester's own word over it."""
    return library(grades.all_grades(session))


def whole_library(db: Database) -> Library:
    """The library, and which of it is the tester's own."""
    with db.read() as session:
        own = grades.all_grades(session)
    return Library(library(own), frozenset(grade.name for grade in own))


def grade_shelf(session: Session) -> GradeShelf:
    """The library made ready to hold shots against."""
    return _made_ready(tuple(grades.all_grades(session)))


@lru_cache(maxsize=2)
def _made_ready(own: tuple[Grade, ...]) -> GradeShelf:
    return GradeShelf.of(library(own))


def get_grade(known: dict[str, Grade], name: str) -> Grade:
    """The grade of a name, or UnknownError."""
    found = find_grade(name, known)
    if found is None:
        raise UnknownError("there is no such grade on the shelf", field="grade")
    return found


def save_grade(db: Database, grade: Grade) -> Grade:
    """Keep what the tester says of a grade; what it leaves open stays as the library has it."""
    checked = _checked(grade)
    with db.write() as session:
        _refuse_taken_name(checked, _names_taken(grades.all_grades(session)))
        there = grades.find_grade(session, checked.name)
        if there is not None and not checked.ranges:
            checked = replace(checked, ranges=there.ranges)
        grades.save_grade(session, checked)
        return grades_by_name(session)[checked.name]


def confirm_grade(db: Database, name: str, source: str) -> Grade:
    """Hold every value that was recalled from memory against its source: one act."""
    with db.write() as session:
        grade = confirmed(get_grade(grades_by_name(session), name), source)
        grades.save_grade(session, grade)
        return grade


def forget_grade(db: Database, name: str) -> None:
    """Take back what the tester said of a grade; the library's own stays."""
    with db.write() as session:
        if not grades.delete_grade(session, name):
            raise UnknownError("nothing of this grade is your own", field="grade")


def import_grades(db: Database, files: Sequence[NamedFile]) -> tuple[list[str], list[str]]:
    """Keep the grades of files, all or nothing; returns their names and what the reader noticed."""
    read = [read_grades(file.name, file.data) for file in files]
    together([faults for _, faults, _ in read]).refuse()
    found = [grade for own, _, _ in read for grade in own]
    if len(found) > most("grades_at_once"):
        raise OutOfRangeError(LIMITS["grades_at_once"].says(str(len(found))), field="file")
    with db.read() as session:
        there = grades.all_grades(session)
    taken = _names_taken(there)
    for grade in found:
        _refuse_taken_name(grade, taken)
    own = {grade.name: grade for grade in there}
    rows = grades.rows_of([_over(own.get(grade.name), grade) for grade in found])
    with db.write() as session:
        grades.save_rows(session, rows)
    return [grade.name for grade in found], [note for *_, notes in read for note in notes]


def _over(there: Grade | None, grade: Grade) -> Grade:
    """A file says nothing of hardness: what was said of it stays."""
    if there is None:
        return grade
    return replace(
        there,
        ranges=grade.ranges,
        standard=grade.standard or there.standard,
        route=grade.route or there.route,
    )


def _checked(grade: Grade) -> Grade:
    if not grade.name.strip():
        raise OutOfRangeError("name the grade by its designation", field="name")
    check_usual(grade.usual_low_hrc, grade.usual_high_hrc, "usual_low_hrc", "usual_high_hrc")
    if len(grade.ranges) > most("elements"):
        raise OutOfRangeError(LIMITS["elements"].says(str(len(grade.ranges))), field="ranges")
    return replace(grade, name=grade.name.strip(), ranges=check_ranges(grade.ranges))


def _names_taken(own: Sequence[Grade]) -> dict[str, str]:
    """Every name on the shelf, however it is spelled, with the grade that bears it."""
    known = {**our_grades(), **{grade.name: grade for grade in own}}
    return {name_key(name): g.name for g in known.values() for name in (g.name, *g.also)}


def _refuse_taken_name(grade: Grade, taken: Mapping[str, str]) -> None:
    """A shelf has one grade of a name."""
    bearer = taken.get(name_key(grade.name), grade.name)
    if bearer != grade.name:
        raise ConflictError(
            f"“{grade.name}” is another name of {bearer}; change that one", field="name"
        )
