"""`*.shots.csv`: what an XRF analyser writes, one row an element a shot."""

from kessik.interchange.csv_tables import Column, Table, read_table

COLUMNS = (
    Column("blade", required=True),
    Column("shot", required=True),
    Column("element", required=True),
    Column("percent", "number", required=True, low=0, high=100, unit="%"),
    Column("plus_minus", "number", required=True, low=0, high=100, unit="%"),
    Column("detected", "yes_no"),
    Column("surface", "choice", choices=("bare", "coated")),
    Column("normalised", "choice", choices=("yes", "no", "unknown")),
)


def read_shots(file: str, data: bytes) -> Table:
    """Read a result file; its faults are in the table."""
    return read_table(file, data, COLUMNS)
