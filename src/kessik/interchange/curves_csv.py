"""`*.curve.csv`: force over deflection of one specimen, one row a point."""

from kessik.interchange.csv_tables import Column, read_table

COLUMNS = (
    Column("deflection_mm", "number", required=True, low=-1000, high=1000, unit="mm"),
    Column("force_n", "number", required=True, low=-1e6, high=1e6, unit="N"),
)


def read_curve(file: str, data: bytes) -> tuple[list[float], list[float]]:
    """Deflections, mm, and forces, N; RefusedFileError with every fault of the file."""
    table = read_table(file, data, COLUMNS)
    table.faults.refuse()
    return (
        [row.values["deflection_mm"] for row in table.rows],
        [row.values["force_n"] for row in table.rows],
    )
