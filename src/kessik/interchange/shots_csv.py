"""`*.shots.csv`: what an XRF analyser writes, one row an element a shot."""

from collections.abc import Iterable, Sequence
from uuid import NAMESPACE_URL, uuid5

from kessik.core.composition.shots import ElementReading, Shot, reading_faults
from kessik.core.errors import Fault
from kessik.interchange.csv_tables import Column, Row, Table, read_table, write_table
from kessik.interchange.faults import Faults
from kessik.interchange.wide_shots import read_wide

COLUMNS = (
    Column("blade", required=True),
    Column("shot", required=True),
    Column("element", required=True),
    Column("percent", "number", required=True, low=0, high=100, unit="%"),
    Column("plus_minus", "number", required=True, low=0, high=100, unit="%", may_be_empty=True),
    Column("detected", "yes_no"),
    Column("surface", "choice", choices=("bare", "coated")),
    Column("normalised", "choice", choices=("yes", "no", "unknown")),
)


def read_shots(file: str, data: bytes) -> Table:
    """Read a result file, with a row an element or a row a shot; its faults, those of whole shots
    too, are in the table.
    """
    table = read_wide(file, data) or read_table(file, data, COLUMNS)
    faults = Faults.of(table.faults)
    for rows in _by_shot(table.rows):
        faults.take(_shot_faults(file, rows, faults))
    return Table(
        file, table.rows, faults.found(), table.unknown_columns, table.notes, table.known_columns
    )


def shots_of(rows: Sequence[Row], made_from: str) -> list[Shot]:
    """The shots of sound rows, in the order of the file; `blade_id` holds the code of the blade.

    The same rows under the same `made_from` are the same shots.
    """
    return [_shot(own, made_from) for own in _by_shot(rows)]


def write_shots(shots: Iterable[tuple[str, Shot]]) -> str:
    """The text of a result file: pairs of the code of a blade and a shot."""
    rows = [
        {
            "blade": code,
            "shot": shot.name,
            "element": reading.element,
            "percent": reading.percent,
            "plus_minus": reading.plus_minus_percent,
            "detected": reading.detected,
            "surface": shot.surface or None,
            "normalised": shot.normalised,
        }
        for code, shot in shots
        for reading in shot.readings
    ]
    return write_table([column.name for column in COLUMNS], rows)


def _by_shot(rows: Sequence[Row]) -> list[list[Row]]:
    found: dict[tuple[str, str], list[Row]] = {}
    for row in rows:
        found.setdefault((row.values["blade"] or "", row.values["shot"] or ""), []).append(row)
    return list(found.values())


def _shot_faults(file: str, rows: Sequence[Row], known: Faults) -> list[Fault]:
    """What is wrong with a whole shot; a cell that is wrong already is not told again."""
    readings = [_reading(row) for row in rows]
    whole = [
        (rows[place].line, field, message) for place, field, message in reading_faults(readings)
    ]
    for column in ("surface", "normalised"):
        said = {str(row.values[column]) for row in rows if row.values.get(column)}
        if len(said) > 1:
            message = f"this shot is said to be {' and '.join(sorted(said))}"
            whole.append((rows[-1].line, column, message))
    return [
        Fault(file, line, column, message)
        for line, column, message in whole
        if (line, column) not in known.cells
    ]


def _reading(row: Row) -> ElementReading:
    values = row.values
    detected = values.get("detected")
    return ElementReading(
        values["element"] or "",
        values["percent"] if values["percent"] is not None else 0.0,
        values["plus_minus"],
        detected is not False,
    )


def _shot(rows: Sequence[Row], made_from: str) -> Shot:
    values = rows[0].values
    readings = tuple(_reading(row) for row in rows)
    tidy = tuple(
        ElementReading(r.element.strip().capitalize(), r.percent, r.plus_minus_percent, r.detected)
        for r in readings
    )
    key = f"kessik:shot:{made_from}:{values['blade']}:{values['shot']}:{tidy}"
    surfaces = [row.values["surface"] for row in rows if row.values.get("surface")]
    modes = [row.values["normalised"] for row in rows if row.values.get("normalised")]
    return Shot(
        str(uuid5(NAMESPACE_URL, key)),
        values["blade"],
        values["shot"],
        tidy,
        surfaces[0] if surfaces else "",
        modes[0] if modes else "unknown",
    )
