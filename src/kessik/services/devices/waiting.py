"""What waits at the instruments: shots that nobody has used yet."""

from datetime import date

from kessik.core.due import Due, ShotsToUse
from kessik.services.devices.shots import waiting_shots
from kessik.store.database import Database


def shots_to_use(db: Database, _day: date) -> list[Due]:
    """One line for all shots that wait, with the blades they are of."""
    found: dict[str, int] = {}
    for each in waiting_shots(db):
        for code, many in each.shots.items():
            found[code] = found.get(code, 0) + many
    if not found:
        return []
    return [Due("shots", ShotsToUse(tuple(sorted(found.items()))))]
