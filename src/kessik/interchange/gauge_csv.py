"""`*.gauge.csv`: a gauge study, one row a reading; and its answer as JSON."""

from collections.abc import Mapping
from typing import Any

from kessik.core.errors import Fault
from kessik.core.gauge.study import GaugeReading, GaugeStudy
from kessik.interchange.csv_tables import Column, Table, read_table
from kessik.interchange.faults import Faults

COLUMNS = (
    Column("part", required=True),
    Column("operator", required=True),
    Column("trial", required=True),
    Column("value", "number", required=True, low=-1e12, high=1e12),
    Column("unit"),
)


def read_gauge(file: str, data: bytes) -> Table:
    """Read a study; a reading told twice and a second unit are faults of the table."""
    table = read_table(file, data, COLUMNS)
    faults = Faults.of(table.faults)
    met: set[tuple[Any, ...]] = set()
    units = [row.values.get("unit") for row in table.rows if row.values.get("unit")]
    for row in table.rows:
        key = tuple(row.values.get(name) for name in ("part", "operator", "trial"))
        if key in met and None not in key:
            said = "this part, operator and trial stand in an earlier row"
            faults.take([Fault(file, row.line, "trial", said)])
        met.add(key)
        unit = row.values.get("unit")
        if unit and unit != units[0]:
            said = f"{unit} here and {units[0]} above; a study has one unit"
            faults.take([Fault(file, row.line, "unit", said)])
    return Table(
        file, table.rows, faults.found(), table.unknown_columns, table.notes, table.known_columns
    )


def readings_of(table: Table) -> tuple[list[GaugeReading], str]:
    """The readings of a sound table, and their unit."""
    readings = [
        GaugeReading(str(v["part"]), str(v["operator"]), float(v["value"]))
        for v in (row.values for row in table.rows)
    ]
    unit = next((str(r.values["unit"]) for r in table.rows if r.values.get("unit")), "")
    return readings, unit


def gauge_json(found: GaugeStudy, unit: str, notes: list[str]) -> Mapping[str, Any]:
    """The answer of a study; components, `grr` and `total` are variances."""
    test = found.interaction
    return {
        "components": dict(found.components),
        "grr": found.grr,
        "total": found.total,
        "percent_study": found.percent_study,
        "percent_contribution": found.percent_contribution,
        "ndc": found.distinct,
        "interaction": {"f": test.f, "p": test.p, "pooled": test.pooled},
        "intervals": {name: list(ends) for name, ends in found.intervals.items()},
        "unit": unit,
        "parts": found.parts,
        "operators": found.operators,
        "readings": found.readings,
        "balanced": found.is_balanced,
        "notes": notes,
    }
