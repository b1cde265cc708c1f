"""What a soak says, over the wire."""

from kessik.api.schemas.common import Wire
from kessik.core.corrosion.answer import Course, Severity, SoakAnswer, Worn
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import NAMES, FairnessCheck, HeldStatus
from kessik.core.corrosion.methods import InspectionStage
from kessik.core.corrosion.soaks import CouponSide
from kessik.core.vocabulary import DISCOLOURATIONS, INSPECTION_STAGES
from kessik.core.words.soaks import (
    BORROWED,
    area_words,
    coating_words,
    first_words,
    held_words,
    soak_headline,
    soak_reasons,
    superficial_words,
)
from kessik.services.soaks.sheets import SoakSheet


class BoundsOut(Wire):
    """An area, per cent, with its bounds and in words."""

    low: float
    high: float
    best: float | None
    says: str

    @classmethod
    def of(cls, area: Bounds) -> "BoundsOut":
        return cls(low=area.low, high=area.high, best=area.best, says=area_words(area))


class HeldOut(Wire):
    """One variable over the coupons; `says` where it is confounded."""

    variable: str
    name: str
    status: HeldStatus
    values: dict[str, str]
    odd: list[str]
    says: str

    @classmethod
    def of(cls, held: FairnessCheck, names: dict[str, str]) -> "HeldOut":
        says = held_words(held, names) if held.status == "confounded" else ""
        return cls(
            variable=held.variable,
            name=NAMES[held.variable],
            status=held.status,
            values=dict(held.values),
            odd=list(held.odd),
            says=says,
        )


class PointOut(Wire):
    """An area at an hour of exposure."""

    hours: float
    side: CouponSide
    stage: InspectionStage
    area: BoundsOut


class CourseOut(Wire):
    """One coupon along the soak."""

    coupon_id: str
    points: list[PointOut]
    first: str
    superficial: str
    pits: int | None
    deepest_pit_mm: float | None

    @classmethod
    def of(cls, course: Course) -> "CourseOut":
        points = [
            PointOut(hours=p.hours, side=p.side, stage=p.stage, area=BoundsOut.of(p.area))
            for p in course.points
        ]
        return cls(
            coupon_id=course.coupon_id,
            points=points,
            first=first_words(course.first),
            superficial=superficial_words(course.superficial) if course.superficial else "",
            pits=course.worst_pits,
            deepest_pit_mm=course.deepest_pit_mm,
        )


class StandingOut(Wire):
    """Where a coupon stands: its place, from 1, shared with all of the same place."""

    coupon_id: str
    place: int
    area: BoundsOut
    sides: int


class WornOut(Wire):
    """The wear part of a coating trial: what a coupon went through, and its rust where it was
    worn.
    """

    coupon_id: str
    counts: list[str]
    rust_where_worn: str


class DiscolouredOut(Wire):
    """Coupons that discoloured alike."""

    word: str
    coupon_ids: list[str]


class SoakAnswerOut(Wire):
    """What a soak says so far."""

    headline: str
    reasons: list[str]
    coatings: list[str]
    worn: list[WornOut]
    severity: Severity
    needed_percent: float
    hours: float
    whole_h: float
    judged_stage: str
    standings: list[StandingOut]
    ties: list[list[str]]
    discoloured: list[DiscolouredOut]
    courses: list[CourseOut]
    held: list[HeldOut]
    borrowed: str

    @classmethod
    def of(cls, sheet: SoakSheet) -> "SoakAnswerOut":
        answer, names = sheet.answer, sheet.names
        return cls(
            headline=soak_headline(sheet.soak, answer, names),
            reasons=soak_reasons(sheet.soak, answer, names),
            coatings=coating_words(sheet.soak, answer),
            worn=[_worn(answer, worn) for worn in answer.worn],
            severity=answer.validity.severity,
            needed_percent=answer.validity.needed_percent,
            hours=answer.hours,
            whole_h=answer.whole_h,
            judged_stage=INSPECTION_STAGES[answer.stage] if answer.stage else "",
            standings=standings_out(answer),
            ties=[list(tie) for tie in answer.ranking.ties],
            discoloured=[
                DiscolouredOut(word=DISCOLOURATIONS[w], coupon_ids=list(ids))
                for w, ids in answer.discoloured
            ],
            courses=[CourseOut.of(course) for course in answer.courses],
            held=[HeldOut.of(held, names) for held in answer.held],
            borrowed=BORROWED,
        )


def _worn(answer: SoakAnswer, worn: Worn) -> WornOut:
    course = next(c for c in answer.courses if c.coupon_id == worn.coupon_id)
    return WornOut(
        coupon_id=worn.coupon_id,
        counts=[f"{number:g} {what}" for what, number in worn.counts],
        rust_where_worn=area_words(course.worn_percent) if course.worn_percent else "",
    )


def standings_out(answer: SoakAnswer) -> list[StandingOut]:
    """Every coupon at its place; none where the soak was not severe enough."""
    if answer.validity.severity == "not_enough":
        return []
    place_of: dict[str, int] = {}
    first = 1
    for group in answer.ranking.places:
        place_of.update(dict.fromkeys(group, first))
        first += len(group)
    return [
        StandingOut(
            coupon_id=s.coupon_id,
            place=place_of[s.coupon_id],
            area=BoundsOut.of(s.area),
            sides=s.sides,
        )
        for s in answer.ranking.standings
    ]
