"""`*.grades.csv`: what grades promise of each element, one row an element a grade."""

from collections.abc import Iterable, Sequence

from kessik.core.composition.grades import (
    RANGE_STANDINGS,
    ROUTES,
    Grade,
    Range,
    Route,
    name_key,
    range_faults,
)
from kessik.core.errors import Fault
from kessik.interchange.csv_tables import Column, Row, limited, read_table, write_table
from kessik.interchange.faults import Faults, FoundFaults

COLUMNS = (
    Column("grade", required=True, longest="word"),
    Column("standard", longest="word"),
    Column("element", required=True),
    limited("min_percent", "percent"),
    limited("max_percent", "percent"),
    Column("standing", "choice", choices=RANGE_STANDINGS),
    Column("source", longest="word"),
    Column("route", "choice", choices=tuple(route for route in ROUTES if route)),
)


def read_grades(file: str, data: bytes) -> tuple[list[Grade], FoundFaults, tuple[str, ...]]:
    """The grades of a file, its faults, and what was noticed; with any fault the grades mean
    nothing.
    """
    table = read_table(file, data, COLUMNS)
    faults = Faults.of(table.faults)
    by_name: dict[str, list[Row]] = {}
    for row in table.rows:
        by_name.setdefault(row.values["grade"] or "", []).append(row)
    faults.take(_two_of_one_name(file, by_name))
    for rows in by_name.values():
        faults.take(_grade_faults(file, rows, faults))
    found = faults.found()
    grades = [] if found.count else [_grade(rows) for rows in by_name.values()]
    return grades, found, table.notes


def write_grades(grades: Iterable[Grade]) -> str:
    """The text of a file that `read_grades` reads."""
    rows = [
        {
            "grade": grade.name,
            "standard": grade.standard,
            "element": found.element,
            "min_percent": found.low_percent,
            "max_percent": found.high_percent,
            "standing": found.standing,
            "source": found.source,
            "route": grade.route or None,
        }
        for grade in grades
        for found in grade.ranges
    ]
    return write_table([column.name for column in COLUMNS], rows)


def _two_of_one_name(file: str, by_name: dict[str, list[Row]]) -> Iterable[Fault]:
    """Two spellings of one name, or one name under two standards."""
    first: dict[str, str] = {}
    for name, rows in by_name.items():
        other = first.setdefault(name_key(name), name)
        if other != name:
            message = f"“{name}” and “{other}” are one name; a shelf has one grade of a name"
            yield Fault(file, rows[0].line, "grade", message)
        standards = dict.fromkeys(r.values["standard"] for r in rows if r.values.get("standard"))
        if len(standards) > 1:
            line = next(r.line for r in rows if r.values.get("standard") == list(standards)[1])
            message = f"two grades are called “{name}”: by {' and by '.join(standards)}"
            yield Fault(file, line, "grade", message)


def _grade_faults(file: str, rows: Sequence[Row], known: Faults) -> list[Fault]:
    return [
        Fault(file, rows[place].line, column, message)
        for place, column, message in range_faults([_range(row) for row in rows])
        if (rows[place].line, column) not in known.cells
    ]


def _range(row: Row) -> Range:
    values = row.values
    return Range(
        (values["element"] or "").strip().capitalize(),
        values.get("min_percent"),
        values.get("max_percent"),
        values.get("standing") or "guessed",
        values.get("source") or "",
    )


def _grade(rows: Sequence[Row]) -> Grade:
    standard = next((row.values["standard"] for row in rows if row.values.get("standard")), "")
    route: Route = next((row.values["route"] for row in rows if row.values.get("route")), "")
    return Grade(
        rows[0].values["grade"].strip(),
        ranges=tuple(_range(row) for row in rows),
        standard=standard,
        route=route,
    )
