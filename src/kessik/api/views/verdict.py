"""Verdicts and Today over the wire."""

from collections.abc import Mapping

from kessik.api.schemas.verdict import (
    EffortsOut,
    FigureOut,
    RoundOut,
    StroppedOut,
    UpkeepOut,
)
from kessik.core.comparison.efforts import EffortTable
from kessik.core.comparison.figures import KINDS
from kessik.core.trials.upkeep import Upkeep
from kessik.core.words.upkeep import ability_words, restoring_words, stones_words


def figures_out(figures: Mapping[str, float]) -> list[FigureOut]:
    """What a run or a blade shows besides lives."""
    return [
        FigureOut(name=n, label=KINDS[n].label, unit=KINDS[n].unit, value=v)
        for n, v in figures.items()
    ]


def efforts_out(efforts: EffortTable) -> EffortsOut:
    """Effort by layers, blade by blade."""
    layers = sorted({n for at in efforts.by_blade.values() for n in at})
    return EffortsOut(
        layers=layers,
        by_blade={blade: [at.get(n) for n in layers] for blade, at in efforts.by_blade.items()},
        separates_at=efforts.separates_at,
    )


def upkeep_out(found: Upkeep) -> UpkeepOut:
    """What one blade asks for, and what it gives back."""
    return UpkeepOut(
        blade=found.blade.code,
        mark=found.blade.mark,
        rounds=[RoundOut.showing(each) for each in found.rounds],
        restoring=restoring_words(found.restoring) if found.restoring else "",
        no_longer=found.restoring is not None and found.restoring.standing == "no_longer",
        abilities=[f"Edge {n}. {ability_words(each)}" for n, each in found.abilities],
        strops=[
            StroppedOut.showing(each.found, edge=each.edge, cutting=each.cutting)
            for each in found.strops
        ],
        stones=stones_words(found.stones),
    )
