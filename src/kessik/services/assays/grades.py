"""The library of grades with the tester's own: kept, confirmed, imported."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from kessik.core.composition.grades import Grade, check_ranges, confirmed, name_key
from kessik.core.composition.library import our_grades
from kessik.core.errors import ConflictError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS, most
from kessik.core.shelf.blades import check_usual
from kessik.interchange.faults import together
from kessik.interchange.grades_csv import read_grades
from kessik.interchange.named_files import NamedFile
from kessik.services.reading.grades import get_grade, grades_by_name
from kessik.store.database import Database
from kessik.store.queries import grades


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


def delete_grade(db: Database, name: str) -> None:
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
