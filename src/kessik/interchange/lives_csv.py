"""`*.lives.csv`: lives of edges, however they were got, one row an edge."""

from collections.abc import Mapping, Sequence

from kessik.core.errors import Fault
from kessik.core.standings.records import LifeRecord
from kessik.core.units import MM_PER_LENGTH
from kessik.interchange.csv_tables import Column, Row, Table, read_table
from kessik.interchange.faults import Faults

SOURCES = ("own", "paper", "published")
COLUMNS = (
    Column("trial", required=True),
    Column("block"),
    Column("blade", required=True),
    Column("grade"),
    Column("edge"),
    Column("lower", "number", required=True, low=0, high=1e9, may_be_empty=True),
    Column("upper", "number", required=True, above=0, high=1e9, may_be_empty=True),
    Column("unit"),
    Column("tester"),
    Column("maker"),
    Column("source", "choice", choices=SOURCES),
)


def read_lives(file: str, data: bytes) -> Table:
    """Read a lives file; its faults, those of bounds and units too, are in the table."""
    table = read_table(file, data, COLUMNS)
    faults = Faults.of(table.faults)
    scales: dict[tuple[str, str], str] = {}
    for row in table.rows:
        faults.take(_row_faults(file, row, scales, faults))
    return Table(
        file, table.rows, faults.found(), table.unknown_columns, table.notes, table.known_columns
    )


def _row_faults(
    file: str, row: Row, scales: dict[tuple[str, str], str], known: Faults
) -> list[Fault]:
    values, found = row.values, []
    lower, upper = values.get("lower"), values.get("upper")
    if lower is not None and upper is not None and lower > upper:
        message = f"this life ends at {upper:g} and is said to last {lower:g} at least"
        found.append(Fault(file, row.line, "upper", message))
    scale = "a length" if values.get("unit") in MM_PER_LENGTH else values.get("unit") or "cuts"
    block = (str(values.get("trial")), str(values.get("block") or ""))
    if scales.setdefault(block, scale) != scale:
        message = (
            f"this block counts {scales[block]} elsewhere and {scale} here; lives of one block are"
            " in one kind of unit"
        )
        found.append(Fault(file, row.line, "unit", message))
    return [fault for fault in found if (fault.line, fault.column) not in known.cells]


def records_of(rows: Sequence[Row]) -> list[LifeRecord]:
    """The lives of sound rows, lengths in mm.

    A tester's paper, and what was published, count as other testers than their own hand.
    """
    return [_record(row.values) for row in rows]


def _record(values: Mapping[str, object]) -> LifeRecord:
    scale = MM_PER_LENGTH.get(str(values.get("unit")), 1.0)
    source = values.get("source") or "own"
    tester = str(values.get("tester") or "")
    return LifeRecord(
        trial=str(values["trial"]),
        block=str(values.get("block") or ""),
        arm=str(values["blade"]),
        tester=tester if source == "own" else f"{tester} ({source})",
        lower=_bound(values.get("lower"), scale),
        upper=_bound(values.get("upper"), scale),
        edge=str(values.get("edge") or ""),
    )


def _bound(value: object, scale: float) -> float | None:
    """A bound; a life of at least 0 is bounded by nothing."""
    return value * scale if isinstance(value, float) and value > 0 else None
