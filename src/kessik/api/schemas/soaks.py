"""Soaks over the wire: what is sent."""

from dataclasses import replace
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, Id, LongText, NoPictureYet, ShortText, Wire
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import SoakFactor
from kessik.core.corrosion.measuring import BrushKind, Measuring, Stroke
from kessik.core.corrosion.methods import InspectionStage, Intervention, Scale, SoakMethod, TendKind
from kessik.core.corrosion.quick import area_of_spots
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.soaks import (
    Act,
    ActKind,
    Coupon,
    CouponRole,
    CouponSide,
    Discolouration,
    How,
    Look,
    Region,
    Soak,
)
from kessik.core.limits import most
from kessik.core.moments import Moment

Percent = Annotated[Finite, Bounded("rust_percent")]
Hours = Annotated[Finite, Field(ge=0, le=20_000)]
Corner = Annotated[list[Finite], Field(min_length=2, max_length=2)]
Corners = Annotated[list[Corner], Field(max_length=most("corners"))]
StrokePoints = Annotated[list[Corner], Field(max_length=most("brush_points"))]
Time = Annotated[str, Field(min_length=10, max_length=40)]


class AtBody(Wire):
    """A moment: UTC by ISO 8601, with the offset it was told in."""

    at_utc: Time
    offset_minutes: Annotated[int, Field(ge=-1440, le=1440)] = 0

    def moment(self) -> Moment:
        return Moment(self.at_utc, self.offset_minutes)


class TendingBody(Wire):
    """What is done to the coupons again and again."""

    kind: TendKind
    every_h: Annotated[Finite, Bounded("soak_hours")]
    from_h: Hours = 0
    until_h: Hours | None = None

    def to_core(self) -> Intervention:
        return Intervention(**self.model_dump())


class SoakMethodBody(Wire):
    """How blades are exposed, looked at and tended."""

    key: ShortText
    name: ShortText
    medium: ShortText
    hours: Annotated[Finite, Bounded("soak_hours")]
    look_h: Annotated[list[Hours], Field(max_length=most("soak_looks"))]
    stages: Annotated[list[InspectionStage], Field(min_length=1, max_length=4)]
    tending: list[TendingBody] = Field(default_factory=list, max_length=20)
    scale: Scale = "rust"
    salt_percent: Finite | None = None
    needed_grade: Annotated[int, Field(ge=0, le=10)] = 6
    steps: list[LongText] = Field(default_factory=list, max_length=20)
    cautions: list[LongText] = Field(default_factory=list, max_length=20)
    source: ShortText = ""

    def to_core(self) -> SoakMethod:
        lists = {"look_h", "stages", "tending", "steps", "cautions"}
        return SoakMethod(
            **self.model_dump(exclude=lists),
            look_h=tuple(self.look_h),
            stages=tuple(self.stages),
            tending=tuple(each.to_core() for each in self.tending),
            steps=tuple(self.steps),
            cautions=tuple(self.cautions),
        )


class CouponBody(Wire):
    """One thing exposed."""

    id: Id
    name: ShortText
    blade_id: ShortText = ""
    side: CouponSide = "both"
    arm: ShortText = ""
    role: CouponRole = ""
    oil: ShortText = ""
    coating: ShortText = ""
    flat_finish: ShortText = ""
    polished_before: ShortText = ""
    degreased_with: ShortText = ""
    exposed_before: ShortText = ""

    def to_core(self) -> Coupon:
        return Coupon(**self.model_dump())


class SoakBody(Wire):
    """One exposure, with its question written first."""

    name: ShortText
    question: LongText
    factor: SoakFactor
    method: SoakMethodBody
    coupons: list[CouponBody] = Field(default_factory=list, max_length=most("soak_coupons"))
    salt: ShortText = ""
    water: ShortText = ""
    note: LongText = ""
    let_go: list[ShortText] = Field(default_factory=list, max_length=20)

    def to_core(self, soak_id: str) -> Soak:
        return Soak(
            id=soak_id,
            name=self.name,
            question=self.question,
            factor=self.factor,
            method=self.method.to_core(),
            coupons=tuple(each.to_core() for each in self.coupons),
            salt=self.salt,
            water=self.water,
            note=self.note,
            let_go=tuple(self.let_go),
        )


class SoakPatch(Wire):
    """What is said of a soak, to change; what is not sent stays."""

    name: ShortText | None = None
    question: LongText | None = None
    factor: SoakFactor | None = None
    method: SoakMethodBody | None = None
    coupons: Annotated[list[CouponBody], Field(max_length=most("soak_coupons"))] | None = None
    salt: ShortText | None = None
    water: ShortText | None = None
    note: LongText | None = None
    let_go: Annotated[list[ShortText], Field(max_length=20)] | None = None

    def changes(self) -> dict[str, object]:
        plain = self.model_dump(exclude_unset=True, exclude={"method", "coupons", "let_go"})
        changed: dict[str, object] = {k: v for k, v in plain.items() if v is not None}
        if self.method is not None:
            changed["method"] = self.method.to_core()
        if self.coupons is not None:
            changed["coupons"] = tuple(each.to_core() for each in self.coupons)
        if self.let_go is not None:
            changed["let_go"] = tuple(self.let_go)
        return changed


class ActBody(AtBody):
    """Something done to a soak or to a coupon."""

    kind: ActKind
    coupon_id: ShortText = ""
    amount: Finite | None = None
    ph: Annotated[Finite, Bounded("ph")] | None = None
    salt_percent: Percent | None = None
    temperature_c: Finite | None = None
    said: LongText = ""

    def to_core(self, act_id: str) -> Act:
        plain = self.model_dump(exclude={"at_utc", "offset_minutes"})
        return Act(id=act_id, at=self.moment(), **plain)


class StrokeBody(Wire):
    """A stroke of the brush, in picture pixels."""

    kind: BrushKind
    width_px: Annotated[Finite, Field(gt=0, le=4000)]
    points: StrokePoints

    def to_core(self) -> Stroke:
        return Stroke(self.kind, self.width_px, _corners(self.points))


class MeasuringBody(Wire):
    """The choices of one measurement, in picture pixels."""

    outline: Corners
    white_point: Corner | None = None
    left_out: list[Corners] = Field(default_factory=list, max_length=40)
    strokes: list[StrokeBody] = Field(default_factory=list, max_length=400)
    threshold: Annotated[Finite, Bounded("rust_threshold")] = 0.5
    least_spot_px: Annotated[Finite, Bounded("least_spot_px")] = 3.0

    def to_core(self) -> Measuring:
        white = None if self.white_point is None else (self.white_point[0], self.white_point[1])
        return Measuring(
            _corners(self.outline),
            white,
            tuple(_corners(each) for each in self.left_out),
            tuple(stroke.to_core() for stroke in self.strokes),
            self.threshold,
            self.least_spot_px,
        )


class SpotsBody(Wire):
    """Spots counted by eye: how many, how large across, on a side of what area."""

    count: Annotated[int, Bounded("pits")]
    size_mm: Finite
    side_cm2: Finite

    def bounds(self) -> Bounds:
        return area_of_spots(self.count, self.size_mm, self.side_cm2)

    @property
    def says(self) -> str:
        return f"{self.count} spots of {self.size_mm:g} mm on {self.side_cm2:g} cm²"


class LookBody(AtBody):
    """One observation of a side in a stage; where it is measured, the area is read off the
    picture.
    """

    coupon_id: Id
    side: CouponSide
    stage: InspectionStage
    region: Region = ""
    rust_percent: Percent | None = None
    rust_low: Percent | None = None
    rust_high: Percent | None = None
    stain_percent: Percent | None = None
    pits: Annotated[int, Bounded("pits")] | None = None
    deepest_pit_mm: Annotated[Finite, Bounded("pit_mm")] | None = None
    discolouration: Discolouration | None = None
    gone_matte: bool = False
    pivot: ShortText = ""
    lock: ShortText = ""
    handle: ShortText = ""
    how: How = "typed"
    said: ShortText = ""
    picture: NoPictureYet = ""
    note: LongText = ""
    measuring: MeasuringBody | None = None
    spots: SpotsBody | None = None
    grade: Annotated[int, Field(ge=0, le=10)] | None = None

    def to_core(self, look_id: str) -> Look:
        plain = self.model_dump(exclude={"at_utc", "offset_minutes", "measuring", "spots", "grade"})
        look = Look(id=look_id, at=self.moment(), **plain)
        if self.grade is not None:
            low, high = area_of("iso_10289", self.grade)
            said = f"ISO 10289 grade {self.grade}"
            return replace(look, rust_percent=None, rust_low=low, rust_high=high, how="grade",
                           said=said)  # fmt: skip
        if self.spots is not None:
            area = self.spots.bounds()
            return replace(look, rust_percent=None, rust_low=area.low, rust_high=area.high,
                           how="spots", said=self.spots.says)  # fmt: skip
        return look


def _corners(corners: list[list[float]]) -> tuple[tuple[float, float], ...]:
    return tuple((x, y) for x, y in corners)
