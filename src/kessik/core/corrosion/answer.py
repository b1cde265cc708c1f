"""What a soak answers: was it severe enough, who shares a place, what was superficial, and what
stands against it. Findings only; `core.words.soaks` says them.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.course import (
    Bounds,
    FirstRust,
    Point,
    final_points,
    first_rust,
    points_of,
    superficial,
)
from kessik.core.corrosion.fairness import (
    FairnessCheck,
    Hardened,
    Specimen,
    fairness,
    hardening_warnings,
)
from kessik.core.corrosion.levels import LevelPair, level_pairs
from kessik.core.corrosion.methods import STAGES, InspectionStage
from kessik.core.corrosion.ranking import Ranking, mean_area, rank
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.soaks import (
    DISCOLOURATIONS,
    Act,
    Discolouration,
    Look,
    Soak,
)
from kessik.core.corrosion.timing import exposure_h, whole_hours

Severity = Literal["enough", "perhaps", "not_enough", "no_baseline", "not_looked_at"]


@dataclass(frozen=True)
class Validity:
    """Whether the baseline rusted at least to the area the method asks for, per cent."""

    severity: Severity
    needed_percent: float
    baseline_id: str = ""
    area: Bounds | None = None
    reference_rusted: bool = False


@dataclass(frozen=True)
class Course:
    """One coupon along the soak."""

    coupon_id: str
    points: tuple[Point, ...]
    first: FirstRust
    superficial: Bounds | None
    worst_pits: int | None
    deepest_pit_mm: float | None
    elsewhere: tuple[str, ...] = ()
    gone_matte: bool = False
    worn_percent: Bounds | None = None


@dataclass(frozen=True)
class Worn:
    """The wear part of a coating trial: what a coupon went through, and the marks it got."""

    coupon_id: str
    counts: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class SoakAnswer:
    """All that a soak says so far, at so many hours of exposure of `whole_h`."""

    hours: float
    whole_h: float
    stage: InspectionStage | None
    courses: tuple[Course, ...]
    validity: Validity
    ranking: Ranking
    held: tuple[FairnessCheck, ...]
    discoloured: tuple[tuple[Discolouration, tuple[str, ...]], ...] = ()
    worn: tuple[Worn, ...] = ()
    levels: tuple[LevelPair, ...] = ()
    hardened: tuple[Hardened, ...] = ()

    @property
    def confounded(self) -> tuple[FairnessCheck, ...]:
        return tuple(each for each in self.held if each.status == "confounded")

    @property
    def one_side_each(self) -> bool:
        return bool(self.ranking.standings) and all(s.sides == 1 for s in self.ranking.standings)


def soak_answer(
    soak: Soak,
    specimens: Sequence[Specimen],
    acts: Sequence[Act],
    looks: Sequence[Look],
    clock_h: float,
) -> SoakAnswer:
    """Everything a soak says, from its coupons, acts and looks; `clock_h` is now."""
    by_coupon: dict[str, list[Look]] = {coupon.id: [] for coupon in soak.coupons}
    for look in looks:
        if look.coupon_id in by_coupon and not look.struck:
            by_coupon[look.coupon_id].append(look)
    courses = tuple(_course(coupon, own, acts) for coupon, own in by_coupon.items())
    stage = _stage_to_judge([p for course in courses for p in course.points])
    finals = {c.coupon_id: final_points(c.points, stage) if stage else [] for c in courses}
    ranking = rank({coupon: points for coupon, points in finals.items() if points})
    standings = {standing.coupon_id: standing for standing in ranking.standings}
    return SoakAnswer(
        exposure_h(clock_h, acts),
        whole_hours(soak, acts),
        stage,
        courses,
        _validity(soak, finals),
        ranking,
        fairness(soak, specimens),
        _discoloured(by_coupon),
        _worn(acts),
        level_pairs(soak.factor, specimens, standings),
        hardening_warnings(specimens),
    )


def _course(coupon_id: str, looks: Sequence[Look], acts: Sequence[Act]) -> Course:
    points = tuple(points_of([look for look in looks if look.region != "worn"], acts))
    pits = [look.pits for look in looks if look.pits is not None and look.counts]
    deep = [look.deepest_pit_mm for look in looks if look.deepest_pit_mm is not None]
    elsewhere = dict.fromkeys(
        look.region for look in looks if not look.counts and (look.rust_high or 0) > 0
    )
    at_wear = points_of([look for look in looks if look.region == "worn"], acts)
    return Course(
        coupon_id,
        points,
        first_rust(points),
        superficial(points),
        max(pits, default=None),
        max(deep, default=None),
        tuple(str(region) for region in elsewhere),
        any(look.gone_matte for look in looks),
        at_wear[-1].area if at_wear else None,
    )


def _stage_to_judge(points: Sequence[Point]) -> InspectionStage | None:
    """Wiped where there is any, as what stays is corrosion; else the first stage there is."""
    there = {point.stage for point in points}
    order: tuple[InspectionStage, ...] = ("wiped", "scoured", "rinsed", "as_found")
    return next((stage for stage in order if stage in there), None)


def _validity(soak: Soak, finals: Mapping[str, Sequence[Point]]) -> Validity:
    if soak.method.needed_grade >= 10:
        needed = 0.0
    else:
        needed = area_of("iso_10289", soak.method.needed_grade)[0]
    baselines = [coupon for coupon in soak.coupons if coupon.role == "baseline"]
    references = [coupon.id for coupon in soak.coupons if coupon.role == "reference"]
    reference = any(p.area.low > needed for i in references for p in finals.get(i, ()))
    if not baselines:
        return Validity("no_baseline", needed, reference_rusted=reference)
    first = baselines[0].id
    areas = [p.area for b in baselines for p in finals.get(b.id, ())]
    if not areas:
        return Validity("not_looked_at", needed, first, reference_rusted=reference)
    area = mean_area(areas)
    severity: Severity = "perhaps"
    if area.low > needed:
        severity = "enough"
    elif area.high <= needed:
        severity = "not_enough"
    return Validity(severity, needed, first, area, reference)


def _discoloured(
    by_coupon: Mapping[str, Sequence[Look]],
) -> tuple[tuple[Discolouration, tuple[str, ...]], ...]:
    """Coupons by how far they discoloured, the least first: the worst side of the last look."""
    worst: dict[str, Discolouration] = {}
    for coupon_id, looks in by_coupon.items():
        told = [look for look in looks if look.discolouration is not None and look.counts]
        if not told:
            continue
        last = max((look.clock_h, STAGES.index(look.stage)) for look in told)
        here = [
            look.discolouration for look in told
            if (look.clock_h, STAGES.index(look.stage)) == last and look.discolouration
        ]  # fmt: skip
        worst[coupon_id] = max(here, key=DISCOLOURATIONS.index)
    return tuple(
        (word, tuple(i for i, w in worst.items() if w == word))
        for word in DISCOLOURATIONS
        if word in worst.values()
    )


def _worn(acts: Sequence[Act]) -> tuple[Worn, ...]:
    counts: dict[str, dict[str, float]] = {}
    for act in acts:
        if act.kind == "worn" and not act.struck:
            own = counts.setdefault(act.coupon_id, {})
            own[act.said] = own.get(act.said, 0.0) + (act.amount or 0.0)
    return tuple(Worn(i, tuple(own.items())) for i, own in counts.items())
