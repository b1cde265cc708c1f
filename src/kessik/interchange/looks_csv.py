"""`*.looks.csv`: what was seen in a soak, one row a look."""

from collections.abc import Sequence
from uuid import NAMESPACE_URL, uuid5

from kessik.core.corrosion.methods import STAGES
from kessik.core.corrosion.soaks import DISCOLOURATIONS, Look
from kessik.core.moments import Moment
from kessik.interchange.csv_tables import Column, Row, Table, read_table, write_table

REGIONS = ("edge", "bevel", "flat", "spine", "worn", "etched_mark", "hardware", "smear")
COLUMNS = (
    Column("soak", required=True),
    Column("coupon", required=True),
    Column("side", "choice", choices=("left", "right", "both")),
    Column("hours", "number", required=True, low=0, high=20_000, unit="h"),
    Column("stage", "choice", choices=STAGES, required=True),
    Column("region", "choice", choices=REGIONS),
    Column("rust_percent", "number", low=0, high=100, unit="%"),
    Column("stain_percent", "number", low=0, high=100, unit="%"),
    Column("discolouration", "choice", choices=DISCOLOURATIONS),
    Column("pits", "integer", low=0, high=100_000),
    Column("deepest_pit_mm", "number", low=0, high=10, unit="mm"),
    Column("note"),
    Column("seen_by"),
)
EXTRA = ("rust_low", "rust_high", "struck", "blind", "time")
"""What we write besides: bounds of the area, reasons of looks that were struck out, true times, and
the pass in which a side was graded without its name."""


def read_looks(file: str, data: bytes) -> Table:
    """Read a looks file; its faults are in the table."""
    return read_table(file, data, (*COLUMNS, *_extra_columns()))


def write_looks(looks: Sequence[tuple[str, str, float, Look]]) -> str:
    """The text of a looks file: names of soaks and coupons, hours of exposure, and looks."""
    rows = [
        {
            "soak": soak,
            "coupon": name,
            "side": look.side,
            "hours": round(hours, 3),
            "stage": look.stage,
            "region": look.region or None,
            "rust_percent": look.rust_percent,
            "stain_percent": look.stain_percent,
            "discolouration": look.discolouration,
            "pits": look.pits,
            "deepest_pit_mm": look.deepest_pit_mm,
            "note": look.note or None,
            "seen_by": look.seen_by or None,
            "rust_low": look.rust_low,
            "rust_high": look.rust_high,
            "struck": look.struck or None,
            "time": look.at.utc,
            "blind": look.blind or None,
        }
        for soak, name, hours, look in looks
    ]
    return write_table([*(column.name for column in COLUMNS), *EXTRA], rows)


def look_of(row: Row, coupon_id: str, at: Moment, made_from: str) -> Look:
    """A look of a sound row; the same row of the same soak is the same look."""
    values = row.values
    where = "|".join(
        str(values.get(name)) for name in ("coupon", "side", "hours", "stage", "region")
    )
    where += "".join(f"|{values[name]}" for name in ("seen_by", "blind") if values.get(name))
    low, high = values.get("rust_low"), values.get("rust_high")
    best = values.get("rust_percent")
    return Look(
        id=str(uuid5(NAMESPACE_URL, f"kessik:look:{made_from}:{where}")),
        coupon_id=coupon_id,
        side=values.get("side") or "both",
        stage=values["stage"],
        at=at,
        region=values.get("region") or "",
        rust_percent=best,
        rust_low=best if low is None else low,
        rust_high=best if high is None else high,
        stain_percent=values.get("stain_percent"),
        discolouration=values.get("discolouration"),
        pits=None if values.get("pits") is None else int(values["pits"]),
        deepest_pit_mm=values.get("deepest_pit_mm"),
        note=values.get("note") or "",
        struck=values.get("struck") or "",
        seen_by=values.get("seen_by") or "",
        blind=values.get("blind") or "",
        how="typed",
    )


def _extra_columns() -> tuple[Column, ...]:
    return (
        Column("rust_low", "number", low=0, high=100, unit="%"),
        Column("rust_high", "number", low=0, high=100, unit="%"),
        Column("struck"),
        Column("time"),
        Column("blind"),
    )
