"""What a soak answers: was it severe enough, who shares a place, what was superficial, and what
stands against it. Findings only; `core.words.soaks` says them.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

from kessik.core.corrosion.action import PartChange, part_changes
from kessik.core.corrosion.agreement import Agreement, UsualRater, rated_twice
from kessik.core.corrosion.climate import (
    ClimateReading,
    OutOfCabinet,
    climate_of,
    out_of_cabinet,
)
from kessik.core.corrosion.compared import LikeLooks, like_looks
from kessik.core.corrosion.course import (
    Bounds,
    FirstRust,
    Point,
    first_rust,
    has_rust,
    less,
    points_of,
    superficial,
)
from kessik.core.corrosion.exposures import exposure_h, whole_hours
from kessik.core.corrosion.fairness import (
    FairnessCheck,
    Hardened,
    Specimen,
    fairness,
    hardening_warnings,
)
from kessik.core.corrosion.levels import LevelOrder, level_order
from kessik.core.corrosion.mass import CabinetCheck, MassLoss, cabinet_checks, mass_losses
from kessik.core.corrosion.methods import STAGES, InspectionStage
from kessik.core.corrosion.not_as_planned import NotAsPlanned, not_as_planned
from kessik.core.corrosion.phases import Span, soak_in, spans_of
from kessik.core.corrosion.ranking import Ranking, mean_area, rank
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.rounds import Round, rounds_in, rounds_of
from kessik.core.corrosion.soaks import (
    DISCOLOURATIONS,
    Act,
    Discolouration,
    Look,
    Soak,
)
from kessik.core.corrosion.wear import WearOrder, Worn, wear_orders, worn_of

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
class SoakAnswer:
    """All that a soak says so far, at so many hours of exposure of `whole_h`."""

    hours: float
    whole_h: float
    stage: InspectionStage | None
    courses: tuple[Course, ...]
    validity: Validity
    ranking: Ranking
    compared: LikeLooks
    held: tuple[FairnessCheck, ...]
    discoloured: tuple[tuple[Discolouration, tuple[str, ...]], ...] = ()
    worn: tuple[Worn, ...] = ()
    levels: LevelOrder | None = None
    hardened: tuple[Hardened, ...] = ()
    rounds: tuple[Round, ...] = ()
    not_as_planned: tuple[NotAsPlanned, ...] = ()
    agreements: tuple[Agreement, ...] = ()
    masses: tuple[MassLoss, ...] = ()
    cabinet: tuple[CabinetCheck, ...] = ()
    wear: tuple[WearOrder, ...] = ()
    parts: tuple[PartChange, ...] = ()
    climate: tuple[ClimateReading, ...] = ()
    out_of_cabinet: tuple[OutOfCabinet, ...] = ()
    phases: tuple["PhaseAnswer", ...] = ()

    @property
    def confounded(self) -> tuple[FairnessCheck, ...]:
        return tuple(each for each in self.held if each.status == "confounded")

    def had_area(self, coupon_id: str) -> bool:
        """Whether an area of a coupon was read in any stage."""
        return any(c.points for c in self.courses if c.coupon_id == coupon_id)

    def had_rust(self, coupon_id: str) -> bool:
        """Whether a coupon showed rust in any stage, at any hour."""
        return any(
            has_rust(point.area)
            for course in self.courses
            if course.coupon_id == coupon_id
            for point in course.points
        )

    @property
    def one_side_each(self) -> bool:
        return bool(self.ranking.standings) and all(s.sides == 1 for s in self.ranking.standings)


@dataclass(frozen=True)
class PhaseAnswer:
    """What one phase says by itself: areas as they stood at its last round; `came` is what of them
    came since the phase before, by coupon, where the same sides were in both.
    """

    span: Span
    soak: Soak
    answer: SoakAnswer
    came: Mapping[str, Bounds]


def soak_answer(
    soak: Soak,
    specimens: Sequence[Specimen],
    acts: Sequence[Act],
    looks: Sequence[Look],
    clock_h: float,
    rater: UsualRater | None = None,
) -> SoakAnswer:
    """Everything a soak says, from its coupons, acts and looks, and what each of its phases does;
    `clock_h` is now, and `rater` what is known of the rater's eye.
    """
    rounds = rounds_of(soak, acts, looks)
    whole = _answer(soak, specimens, acts, looks, rounds, clock_h, rater)
    spans = spans_of(soak, acts)
    found: list[PhaseAnswer] = []
    for span in spans:
        own_rounds = rounds_in(spans, span, rounds)
        ids = frozenset().union(*(each.look_ids for each in own_rounds))
        own_soak = soak_in(soak, span)
        inside = [look for look in looks if look.id in ids and _is_about(span, look)]
        there = [each for each in specimens if own_soak.coupon(each.coupon.id)]
        own = _answer(own_soak, there, acts, inside, own_rounds, clock_h, rater)
        before = found[-1] if found else None
        found.append(PhaseAnswer(span, own_soak, own, _came(before, span, own)))
    return replace(whole, phases=tuple(found))


def _is_about(span: Span, look: Look) -> bool:
    return "both" in (span.phase.side, look.side) or span.phase.side == look.side


def _came(before: PhaseAnswer | None, span: Span, own: SoakAnswer) -> Mapping[str, Bounds]:
    """What came since the phase before, of coupons that were ranked in both."""
    if before is None or before.span.phase.side != span.phase.side:
        return {}
    earlier = {s.coupon_id: s.area for s in before.answer.ranking.standings}
    return {
        s.coupon_id: less(s.area, earlier[s.coupon_id])
        for s in own.ranking.standings
        if s.coupon_id in earlier
    }


def _answer(
    soak: Soak,
    specimens: Sequence[Specimen],
    acts: Sequence[Act],
    looks: Sequence[Look],
    rounds: Sequence[Round],
    clock_h: float,
    rater: UsualRater | None,
) -> SoakAnswer:
    by_coupon: dict[str, list[Look]] = {coupon.id: [] for coupon in soak.coupons}
    for look in looks:
        if look.coupon_id in by_coupon and not look.struck:
            by_coupon[look.coupon_id].append(look)
    counted = [look for own in by_coupon.values() for look in own]
    rated = rated_twice(counted, rounds, rater)
    courses = tuple(
        _course(coupon, own, acts, rounds, rated.rater_points) for coupon, own in by_coupon.items()
    )
    points = {course.coupon_id: course.points for course in courses}
    compared = like_looks(soak.coupons, points, rounds)
    ranking = rank(compared.by_coupon)
    standings = {standing.coupon_id: standing for standing in ranking.standings}
    masses = mass_losses(soak, acts)
    worn = worn_of(acts)
    return SoakAnswer(
        exposure_h(clock_h, acts),
        whole_hours(soak, acts),
        compared.stage,
        courses,
        _validity(soak, compared.by_coupon),
        ranking,
        compared,
        fairness(soak, specimens),
        _discoloured(by_coupon, rounds),
        worn,
        level_order(soak.factor, specimens, standings),
        hardening_warnings(specimens),
        tuple(rounds),
        not_as_planned(soak, acts, clock_h),
        rated.agreements,
        tuple(masses),
        tuple(cabinet_checks(soak, masses)),
        wear_orders(soak, worn),
        part_changes(counted, acts),
        climate_of(acts),
        out_of_cabinet(soak, acts),
    )


def _course(
    coupon_id: str,
    looks: Sequence[Look],
    acts: Sequence[Act],
    rounds: Sequence[Round],
    rater_points: float,
) -> Course:
    points = tuple(
        points_of([look for look in looks if look.region != "worn"], acts, rounds, rater_points)
    )
    pits = [look.pits for look in looks if look.pits is not None and look.counts]
    deep = [look.deepest_pit_mm for look in looks if look.deepest_pit_mm is not None]
    elsewhere = dict.fromkeys(
        look.region for look in looks if not look.counts and (look.rust_high or 0) > 0
    )
    at_wear = points_of(
        [look for look in looks if look.region == "worn"], acts, rounds, rater_points
    )
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


def _validity(soak: Soak, areas_of: Mapping[str, Sequence[Point]]) -> Validity:
    if soak.method.needed_grade >= 10:
        needed = 0.0
    else:
        needed = area_of("iso_10289", soak.method.needed_grade)[0]
    baselines = [coupon for coupon in soak.coupons if coupon.role == "baseline"]
    references = [coupon.id for coupon in soak.coupons if coupon.role == "reference"]
    reference = any(p.area.low > needed for i in references for p in areas_of.get(i, ()))
    if not baselines:
        return Validity("no_baseline", needed, reference_rusted=reference)
    first = baselines[0].id
    areas = [p.area for b in baselines for p in areas_of.get(b.id, ())]
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
    by_coupon: Mapping[str, Sequence[Look]], rounds: Sequence[Round]
) -> tuple[tuple[Discolouration, tuple[str, ...]], ...]:
    """Coupons by how far they discoloured, the least first: the worst side in the last stage of the
    last round that shows it.
    """
    began = {look_id: place for place, each in enumerate(rounds) for look_id in each.look_ids}
    worst: dict[str, Discolouration] = {}
    for coupon_id, looks in by_coupon.items():
        told = [
            ((began.get(look.id, 0), STAGES.index(look.stage)), look.discolouration)
            for look in looks
            if look.discolouration is not None and look.counts
        ]
        if told:
            last = max(when for when, _ in told)
            here = [word for when, word in told if when == last]
            worst[coupon_id] = max(here, key=DISCOLOURATIONS.index)
    return tuple(
        (word, tuple(i for i, w in worst.items() if w == word))
        for word in DISCOLOURATIONS
        if word in worst.values()
    )
