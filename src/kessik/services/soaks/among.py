"""A soak among all others: its steels placed through those that they share."""

from collections.abc import Mapping
from dataclasses import replace

from kessik.core.composition.grades import Grade, find_grade
from kessik.core.corrosion.among import AmongSoaks, SteelsInSoak, among, steels_in
from kessik.core.moments import Moment
from kessik.services.reading.grades import grades_by_name
from kessik.services.soaks.sheets import SoakSheet, all_sheets
from kessik.store.database import Database


def among_soaks(db: Database, soak_id: str, now: Moment) -> AmongSoaks | None:
    """Where the steels of a soak stand among those of all others; None where nothing links them."""
    with db.read() as session:
        grades = grades_by_name(session)
    steels = {
        sheet.soak.id: found
        for sheet in all_sheets(db, now)
        if (found := _steels(sheet, grades)) is not None
    }
    here = steels.pop(soak_id, None)
    return None if here is None else among(here, list(steels.values()))


def _steels(sheet: SoakSheet, grades: Mapping[str, Grade]) -> SteelsInSoak | None:
    """The steels of a soak by the names that the library has for them."""
    specimens = [replace(each, steel=_called(each.steel, grades)) for each in sheet.specimens]
    return steels_in(sheet.soak, sheet.answer, specimens)


def _called(steel: str, grades: Mapping[str, Grade]) -> str:
    known = find_grade(steel, grades) if steel else None
    return known.name if known else steel
