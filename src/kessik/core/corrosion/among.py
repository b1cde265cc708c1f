"""A soak among earlier ones: steels placed beside steels that they were never soaked with, through
those that both soaks had.

The model is that of the levels of a factor: rating points = steel + soak + error, so that a soak
that was twice as long moves all of its steels alike.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from kessik.core.corrosion.answer import SoakAnswer
from kessik.core.corrosion.fairness import Specimen
from kessik.core.corrosion.levels import LevelOrder, LevelRow, linked_levels, order_of_levels
from kessik.core.corrosion.ranking import RankEntry, mean_area
from kessik.core.corrosion.soaks import Soak


@dataclass(frozen=True)
class SteelsInSoak:
    """The steels of one soak with where each stands, over its blades."""

    soak_id: str
    name: str
    medium: str
    entries: Mapping[str, RankEntry]


@dataclass(frozen=True)
class PlacedSteel:
    """A steel of this soak beside those of others: the nearest that rusted less and the nearest
    that rusted more, of those told apart from it; None where there is none.
    """

    steel: str
    less: str | None
    more: str | None


@dataclass(frozen=True)
class AmongSoaks:
    """The steels of this soak among those of others; `through` are the steels that link them, and
    `media` what the others were in, where it was something else.
    """

    placed: tuple[PlacedSteel, ...]
    others: tuple[str, ...]
    through: tuple[str, ...]
    media: tuple[str, ...]


def steels_in(soak: Soak, answer: SoakAnswer, specimens: Sequence[Specimen]) -> SteelsInSoak | None:
    """The steels of a soak, None where it does not compare steels, or was not severe enough.

    Of several blades of one steel the mean, with the error that blades spread by.
    """
    severe = answer.validity.severity in ("enough", "perhaps", "no_baseline")
    if soak.factor != "steel" or not severe:
        return None
    by_id = {entry.coupon_id: entry for entry in answer.ranking.standings}
    own: dict[str, list[RankEntry]] = {}
    for each in specimens:
        is_plain = not (each.coupon.oil or each.coupon.coating)
        if each.coupon.id in by_id and each.steel and is_plain:
            own.setdefault(each.steel, []).append(by_id[each.coupon.id])
    if len(own) < 2:
        return None
    entries = {steel: _mean(steel, found) for steel, found in own.items()}
    medium = answer.phases[-1].span.phase.medium if answer.phases else soak.method.medium
    return SteelsInSoak(soak.id, soak.name, medium, entries)


def _mean(steel: str, found: Sequence[RankEntry]) -> RankEntry:
    return RankEntry(
        steel,
        float(np.mean([entry.points for entry in found])),
        float(np.sqrt(sum(entry.error**2 for entry in found)) / len(found)),
        mean_area([entry.area for entry in found]),
        sum(entry.sides for entry in found),
    )


def among(here: SteelsInSoak, others: Sequence[SteelsInSoak]) -> AmongSoaks | None:
    """Where the steels of this soak stand among those of others; None where no other soak shares a
    steel with it, or none has a steel that this one lacks.

    A worked example: here A is 3 points better than B; elsewhere B is 3 points better than C. A is
    placed 6 points before C, which it never met.
    """
    rows = [
        LevelRow(steel, (soak.soak_id,), replace(entry, coupon_id=f"{soak.soak_id}:{steel}"))
        for soak in (here, *others)
        for steel, entry in soak.entries.items()
    ]
    together = linked_levels(rows, of=next(iter(here.entries)))
    new = together - here.entries.keys()
    if not new:
        return None
    order = order_of_levels([row for row in rows if row.level in together], ())
    used = [soak for soak in others if together & soak.entries.keys()]
    through = here.entries.keys() & {steel for soak in used for steel in soak.entries}
    media = dict.fromkeys(soak.medium for soak in used if soak.medium != here.medium)
    return AmongSoaks(
        tuple(_placed(steel, order, new) for steel in here.entries),
        tuple(soak.name for soak in used),
        tuple(sorted(through)),
        tuple(media),
    )


def _placed(steel: str, order: LevelOrder, new: set[str]) -> PlacedSteel:
    ranked = [entry.level for entry in order.entries]
    at = ranked.index(steel)
    apart = [other for other in ranked if other in new and order.are_apart(steel, other)]
    less = [other for other in apart if ranked.index(other) < at]
    more = [other for other in apart if ranked.index(other) > at]
    return PlacedSteel(steel, less[-1] if less else None, more[0] if more else None)
