"""Soaks over the wire: what is kept of them, and each in a line."""

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.api.schemas.soak_answers_out import SoakAnswerOut
from kessik.api.schemas.soak_pictures_out import SoakPictureOut
from kessik.api.schemas.soaks import CouponBody, SoakMethodBody
from kessik.core.corrosion.duties import DueStep
from kessik.core.corrosion.fairness import SoakFactor
from kessik.core.corrosion.methods import CouponSide, Scale
from kessik.core.corrosion.rounds import Round, SideToSee
from kessik.core.corrosion.soaks import Act, Look


class ActOut(Answer[Act], without="at"):
    """Something done, at its true hour."""

    at_utc: str
    offset_minutes: int
    exposure_h: float
    says: str


class LookOut(Answer[Look], without="at"):
    """One inspection, at its true hour, with the grades its area has."""

    at_utc: str
    offset_minutes: int
    exposure_h: float
    together_h: float = Field(description="the hour at which its round began")
    area_says: str
    ratings: list[str]
    doubts: list[str]


class DueStepOut(Answer[DueStep]):
    """A round of inspection or an intervention, due at an hour of the soak."""

    what: str
    says: str


class InspectionRoundOut(Answer[Round], without="look_ids"):
    """A round of inspection: how many places it has, and how many of them were missed."""

    places: int
    missing: int
    medium: str = Field(description="of its phase, where the soak has several")


class PlaceToSeeOut(Answer[SideToSee]):
    """A side of a coupon in a stage, still to be inspected."""


class CouponOut(CouponBody):
    """A coupon, with what its blade says of itself, and its own name in this soak."""

    called: str
    steel: str
    mark: int


class SoakLineOut(Wire):
    """A soak in the list: where it stands, and what it says."""

    id: str
    name: str
    question: str
    method: str
    started_utc: str
    offset_minutes: int
    is_open: bool
    hours: float
    whole_h: float
    headline: str
    coupons: list[CouponOut]
    waiting: list[DueStepOut]
    clock_h: float
    duties: list[DueStepOut]


class SoakOut(SoakLineOut):
    """A soak, whole."""

    factor: SoakFactor
    how: SoakMethodBody
    salt: str
    water: str
    note: str
    let_go: list[str]
    created_utc: str
    acts: list[ActOut]
    looks: list[LookOut]
    rounds: list[InspectionRoundOut]
    to_see: list[PlaceToSeeOut]
    pictures: list[SoakPictureOut]
    answer: SoakAnswerOut
    scales: dict[CouponSide, Scale] = Field(description="what each side is read on now")


class BladeSoakOut(Wire):
    """What a soak says of one blade, with the conditions it was got under."""

    soak_id: str
    name: str
    on: str
    called: str
    place_says: str
    area: str
    conditions: str
    superficial: str
    first: str


class BladeInSoaksOut(Wire):
    """A blade of a trial with what soaks say of it."""

    blade_id: str
    code: str
    mark: int
    soaks: list[BladeSoakOut]


class PlacedOut(Wire):
    """A blade's place in a soak."""

    place_says: str
    area: str


class PlaceRowOut(Wire):
    """A blade's places, soak by soak."""

    blade: str
    places: list[PlacedOut | None]


class PlaceTableOut(Wire):
    """Places from soak to soak, and whether they are kept."""

    soaks: list[SoakLineOut]
    rows: list[PlaceRowOut]
    by_steel: bool
    says: str
