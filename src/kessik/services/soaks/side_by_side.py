"""The places of blades from soak to soak."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.corrosion.places import SharedPlaces, shared_places
from kessik.core.corrosion.ranking import RankEntry
from kessik.services.soaks.sheets import SoakSheet


@dataclass(frozen=True)
class Placed:
    """A blade's place in a soak, whether it shares it, and its standing."""

    place: int
    is_shared: bool
    standing: RankEntry


@dataclass(frozen=True)
class PlaceTable:
    """Soaks that ranked whole blades, and each blade's place in them, None where it was not in."""

    soaks: tuple[SoakSheet, ...]
    rows: tuple[tuple[str, tuple[Placed | None, ...]], ...]
    kept: SharedPlaces


def place_table(sheets: Sequence[SoakSheet]) -> PlaceTable:
    """Soaks whose factor is the steel, that were severe enough, with at least two blades ranked."""
    told = [s for s in sheets if _ranks_steels(s)]
    placed = [_placed(sheet) for sheet in told]
    names = sorted({name for each in placed for name in each})
    rows = tuple((name, tuple(each.get(name) for each in placed)) for name in names)
    standings = [
        (sheet.soak.name, {name: p.standing for name, p in each.items()})
        for sheet, each in zip(told, placed, strict=True)
    ]
    return PlaceTable(tuple(told), rows, shared_places(standings))


def _ranks_steels(sheet: SoakSheet) -> bool:
    answer = sheet.answer
    severe = answer.validity.severity in ("enough", "perhaps", "no_baseline")
    return sheet.soak.factor == "steel" and severe and len(answer.ranking.standings) > 1


def _placed(sheet: SoakSheet) -> dict[str, Placed]:
    names = {
        coupon.id: sheet.names[coupon.id]
        if coupon.blade_id
        else f"{sheet.names[coupon.id]}, {sheet.soak.name}"  # a piece of another soak is another
        for coupon in sheet.soak.coupons
    }
    standings = {s.coupon_id: s for s in sheet.answer.ranking.standings}
    found, first = {}, 1
    for group in sheet.answer.ranking.places:
        for coupon_id in group:
            found[names[coupon_id]] = Placed(first, len(group) > 1, standings[coupon_id])
        first += len(group)
    return found
