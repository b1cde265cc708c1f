"""What waits in the stock: lots that run low."""

from datetime import date

from kessik.core.due import Due, LotLow
from kessik.services.stock.lots import stocked
from kessik.store.database import Database


def low_lots(db: Database, _day: date) -> list[Due]:
    """Every lot in use that runs low."""
    low = [each for each in stocked(db) if each.is_low and each.lot.archived_utc is None]
    return [
        Due(
            "stock",
            LotLow(each.lot.name, max(each.left or 0.0, 0.0), each.lot.unit),
            lot_id=each.lot.id,
        )
        for each in low
    ]
