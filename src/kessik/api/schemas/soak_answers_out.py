"""What a soak says, over the wire."""

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.core.corrosion.action import PartChange
from kessik.core.corrosion.answer import Course, Severity
from kessik.core.corrosion.climate import ClimateReading
from kessik.core.corrosion.course import Bounds, Point
from kessik.core.corrosion.fairness import FairnessCheck
from kessik.core.corrosion.ranking import RankEntry


class BoundsOut(Answer[Bounds]):
    """An area, per cent, with its bounds and in words."""

    says: str


class FairnessCheckOut(Answer[FairnessCheck]):
    """One variable over the coupons, its values in words; `says` where it is confounded."""

    variable: str
    name: str
    told: list[str]
    says: str


class CoursePointOut(Answer[Point]):
    """An area at an hour of exposure."""


class CourseOut(Answer[Course], without="worst_pits elsewhere gone_matte worn_percent"):
    """One coupon along the soak."""

    first: str
    superficial: str
    pits: int | None


class RankEntryOut(Answer[RankEntry], without="points error unlike_sides"):
    """Where a coupon stands: its place, from 1, shared with all of the same place."""

    place: int


class LevelEntryOut(Wire):
    """A level of the factor at its place, with its area over all its coupons."""

    place: int
    level: str
    coupon_ids: list[str]
    area: BoundsOut
    says: str


class WornOut(Wire):
    """The wear part of a coating trial: what a coupon went through, and its rust where it was
    worn.
    """

    coupon_id: str
    counts: list[str]
    rust_where_worn: str


class PartChangeOut(Answer[PartChange]):
    """A moving part or a handle before and after, in words."""

    part: str
    says: str


class ClimateReadingOut(Answer[ClimateReading]):
    """What was measured of the air or the brine at an hour."""


class DiscolouredOut(Wire):
    """Coupons that discoloured alike."""

    word: str
    coupon_ids: list[str]


class MassLossOut(Wire):
    """What a coupon lost or gained, in words: a dash where it cannot be said, `missing` why."""

    coupon_id: str
    hours: float
    gained_mg: str
    lost_mg: str
    lost_g_m2: str
    rate_mm_a: str
    missing: str


class PhaseOut(Wire):
    """What one phase says by itself; `came` has, by coupon, what of its rust came in the phase."""

    title: str
    medium: str
    from_h: float
    to_h: float
    says: str
    judged_stage: str
    standings: list[RankEntryOut]
    discoloured: list[DiscolouredOut]
    came: dict[str, str]


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
    standings: list[RankEntryOut]
    levels: list[LevelEntryOut]
    unlinked_levels: list[str]
    ties: list[list[str]]
    discoloured: list[DiscolouredOut]
    courses: list[CourseOut]
    held: list[FairnessCheckOut]
    borrowed: str
    masses: list[MassLossOut]
    cabinet: list[str]
    parts: list[PartChangeOut]
    parts_say: list[str]
    climate: list[ClimateReadingOut]
    climate_says: str
    phases: list[PhaseOut]
    is_one_answer: bool = Field(description="whether the last round tells of all phases")
