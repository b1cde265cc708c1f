"""The library of grades: shipped ones, with what the tester said of them."""

from dataclasses import dataclass
from functools import lru_cache

from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.library import library
from kessik.core.errors import UnknownError
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
