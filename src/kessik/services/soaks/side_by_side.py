"""The places of blades from soak to soak, or of their steels where no blade was in two."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kessik.core.corrosion.among import steels_in
from kessik.core.corrosion.ordering import shared_places as shared_groups
from kessik.core.corrosion.places import SharedPlaces, shared_places
from kessik.core.corrosion.ranking import RankEntry, are_apart
from kessik.services.soaks.sheets import SoakSheet


@dataclass(frozen=True)
class Placed:
    """A blade's place in a soak, whether it shares it, and its standing."""

    place: int
    is_shared: bool
    standing: RankEntry


@dataclass(frozen=True)
class PlaceTable:
    """Soaks that ranked whole blades, and each blade's place in them, None where it was not in;
    steels stand for blades where no blade links two of the soaks (`by_steel`).
    """

    soaks: tuple[SoakSheet, ...]
    by_steel: bool
    rows: tuple[tuple[str, tuple[Placed | None, ...]], ...]
    kept: SharedPlaces


def place_table(sheets: Sequence[SoakSheet]) -> PlaceTable:
    """Soaks whose factor is the steel, that were severe enough, with at least two blades ranked."""
    told = [s for s in sheets if _ranks_steels(s)]
    called = _told_apart([sheet.soak.name for sheet in told])
    placed = [_placed(sheet, name) for sheet, name in zip(told, called, strict=True)]
    by_steel = not _is_linked(placed)
    if by_steel:
        of_steels = [_steels_placed(sheet) for sheet in told]
        by_steel = _is_linked(of_steels)
        placed = of_steels if by_steel else placed
    names = sorted({name for each in placed for name in each})
    rows = tuple((name, tuple(each.get(name) for each in placed)) for name in names)
    standings = [
        (soak, {name: p.standing for name, p in each.items()})
        for soak, each in zip(called, placed, strict=True)
    ]
    return PlaceTable(tuple(told), by_steel, rows, shared_places(standings))


def _told_apart(names: Sequence[str]) -> list[str]:
    """Names of soaks; one that was there before carries a number."""
    met: Counter[str] = Counter()
    found = []
    for name in names:
        met[name] += 1
        found.append(name if met[name] == 1 else f"{name} ({met[name]})")
    return found


def _is_linked(placed: Sequence[Mapping[str, Placed]]) -> bool:
    """Whether anything stands in two soaks or more."""
    counts = Counter(name for each in placed for name in each)
    return any(count > 1 for count in counts.values())


def _steels_placed(sheet: SoakSheet) -> dict[str, Placed]:
    found = steels_in(sheet.soak, sheet.answer, sheet.specimens)
    if found is None:
        return {}
    entries = sorted(found.entries.values(), key=lambda entry: -entry.points)
    groups = shared_groups(entries, are_apart)
    return _numbered([[(e.coupon_id, e) for e in group] for group in groups])


def _ranks_steels(sheet: SoakSheet) -> bool:
    answer = sheet.answer
    severe = answer.validity.severity in ("enough", "perhaps", "no_baseline")
    return sheet.soak.factor == "steel" and severe and len(answer.ranking.standings) > 1


def _placed(sheet: SoakSheet, soak_name: str) -> dict[str, Placed]:
    names = {
        coupon.id: sheet.names[coupon.id]
        if coupon.blade_id or coupon.is_same_piece
        else f"{sheet.names[coupon.id]}, {soak_name}"  # a piece of another soak is another
        for coupon in sheet.soak.coupons
    }
    standings = {s.coupon_id: s for s in sheet.answer.ranking.standings}
    groups = sheet.answer.ranking.places
    return _numbered([[(names[i], standings[i]) for i in group] for group in groups])


def _numbered(groups: Sequence[Sequence[tuple[str, RankEntry]]]) -> dict[str, Placed]:
    """Places by name, those of a group shared."""
    found, first = {}, 1
    for group in groups:
        for name, standing in group:
            found[name] = Placed(first, len(group) > 1, standing)
        first += len(group)
    return found
