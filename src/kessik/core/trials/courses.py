"""What lies between a fresh edge and a lost stage: blades of one life may differ all the way."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

from kessik.core.comparison.ranking import ranked
from kessik.core.sharpness.after_keen import AfterKeen, after_keen, means_by_count
from kessik.core.sharpness.curves import CurveBand
from kessik.core.sharpness.life import Crossed
from kessik.core.sharpness.work import mean_reading_gf
from kessik.core.trials.verdict import Verdict

_WORTH_SAYING = 1.15


@dataclass(frozen=True)
class Way:
    """The mean reading of a blade on its way to its life at a stage, and its cutting work: what lay
    under the limit, in gf times the count.
    """

    blade: str
    to_count: float
    count_unit: str
    mean_gf: float
    work: float


@dataclass(frozen=True)
class KeenerOnTheWay:
    """Of two blades, the one that was clearly keener on the way to a count that both reach, though
    it does not last longer; `alike` where neither is known to.
    """

    keener: str
    other: str
    keener_gf: float
    other_gf: float
    to_count: float
    count_unit: str
    alike: bool


def courses_after_keen(found: Verdict) -> dict[str, dict[int, AfterKeen]]:
    """How each edge that counts went from the first force limit to the last, by blade and number;
    empty where the method has but one.
    """
    limits = [limit_gf for _, limit_gf in found.trial.method.limits_gf]
    told: dict[str, dict[int, AfterKeen]] = {}
    if len(limits) < 2:
        return told
    for result in found.analysis.runs:
        course = after_keen(means_by_count(result.run), limits[0], limits[-1])
        if course is not None and not result.left_out:
            told.setdefault(result.run.blade, {}).setdefault(result.run.edge, course)
    return told


Curves = Mapping[str, Sequence[CurveBand]]
"""The fitted curves of each blade's edges that count."""


def ways(found: Verdict, curves: Curves) -> list[Way]:
    """Blade by blade, where a life to the main stage was reached and curves were fitted."""
    limit_gf = found.trial.method.limit_gf(found.stage)
    lives = _lives(found)
    if limit_gf is None:
        return []
    told = []
    for blade in ranked(found.analysis, found.stage):
        own, life = curves.get(blade.blade), lives.get(blade.blade)
        if own and life:
            mean = mean_reading_gf(own, life)
            work = (limit_gf - mean) * life
            told.append(Way(blade.blade, life, blade.count_unit, mean, work))
    return told


def keener_on_the_way(found: Verdict, curves: Curves) -> list[KeenerOnTheWay]:
    """The pairs of which the life alone does not say how good they were."""
    lives = _lives(found)
    units = {blade.blade: blade.count_unit for blade in found.analysis.blades}
    told = []
    verdicts = {
        frozenset((c.a, c.b)): c for c in found.analysis.comparisons if c.stage == found.stage
    }
    for a, b in combinations([code for code in lives if curves.get(code)], 2):
        pair = verdicts.get(frozenset((a, b)))
        if pair is None or pair.ratio is None or pair.verdict == "confounded":
            continue
        if units[a] != units[b]:  # lengths in other units: their counts do not meet
            continue
        to_count = min(lives[a], lives[b])
        means = {code: mean_reading_gf(curves[code], to_count) for code in (a, b)}
        keener, other = sorted(means, key=lambda code: means[code])
        alike = pair.verdict not in ("longer", "shorter")
        lasts_longer = pair.b if pair.ratio > 1.0 else pair.a
        if means[other] < _WORTH_SAYING * means[keener] or (not alike and lasts_longer == keener):
            continue
        told.append(
            KeenerOnTheWay(keener, other, means[keener], means[other], to_count, units[a], alike)
        )
    return told


def _lives(found: Verdict) -> dict[str, float]:
    lives = {b.blade: b.lives.get(found.stage) for b in found.analysis.blades}
    return {
        code: life.found.estimate
        for code, life in lives.items()
        if life is not None and isinstance(life.found, Crossed)
    }
