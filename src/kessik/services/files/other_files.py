"""Files of shots, grades and looks among what is brought in: for assay, shelf and soak."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.moments import Moment
from kessik.interchange.faults import together
from kessik.interchange.grades_csv import read_grades
from kessik.interchange.looks_csv import read_looks
from kessik.interchange.named_files import NamedFile
from kessik.interchange.shots_csv import read_shots
from kessik.services.assays.grades import import_grades
from kessik.services.assays.shots import import_shots
from kessik.services.shelf.blades import the_shelf
from kessik.services.soaks.files import import_looks_by_name
from kessik.store.database import Database

SHOTS, GRADES, LOOKS = ".shots.csv", ".grades.csv", ".looks.csv"


@dataclass(frozen=True)
class OtherFilesImported:
    """The codes of the blades that were shot, and what was noticed."""

    blades: tuple[str, ...]
    notes: tuple[str, ...]


def is_other(file: NamedFile) -> bool:
    """Whether a file holds shots, grades or looks."""
    return file.name.lower().endswith((SHOTS, GRADES, LOOKS))


def import_others(db: Database, files: Sequence[NamedFile], now: Moment) -> OtherFilesImported:
    """Keep shots, grades and looks, each kind all or nothing; they do not come together with
    series.
    """
    rest = [file for file in files if not is_other(file)]
    if rest:
        said = "import shots, grades and looks separately from series, blades and edges"
        raise RefusedFileError([Fault(rest[0].name, 1, "", said)])
    shots = [file for file in files if file.name.lower().endswith(SHOTS)]
    grades = [file for file in files if file.name.lower().endswith(GRADES)]
    found = [read_shots(file.name, file.data).faults for file in shots]
    found += [read_grades(file.name, file.data)[1] for file in grades]
    looks = [file for file in files if file.name.lower().endswith(LOOKS)]
    found += [read_looks(file.name, file.data).faults for file in looks]
    together(found).refuse()
    notes: list[str] = []
    if grades:
        names, said_of = import_grades(db, grades)
        notes += [f"grades saved: {', '.join(names)}", *said_of]
    for file in looks:
        notes += import_looks_by_name(db, file, now)
    if not shots:
        return OtherFilesImported((), tuple(notes))
    taken = import_shots(db, shots, "", now)
    codes = {each.blade.id: each.blade.code for each in the_shelf(db)}
    notes += [f"shots saved: {taken.shots}", *taken.notes]
    return OtherFilesImported(tuple(codes[i] for i in taken.blade_ids), tuple(notes))
