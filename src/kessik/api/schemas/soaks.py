"""Soaks over the wire: what is sent."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import (
    Bounded,
    Finite,
    Id,
    LongText,
    NoPictureYet,
    PictureHash,
    ShortText,
    Wire,
)
from kessik.api.schemas.records import Body, Patch
from kessik.core.corrosion.fairness import SoakFactor
from kessik.core.corrosion.measuring import Ends, KnownLength, Measuring, Stroke
from kessik.core.corrosion.methods import InspectionStage, Intervention, Phase, SoakMethod
from kessik.core.corrosion.quick import graded, spotted
from kessik.core.corrosion.soaks import (
    Act,
    Coupon,
    Look,
    Soak,
)
from kessik.core.limits import most
from kessik.core.moments import Moment

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


class InterventionBody(Body[Intervention]):
    """What is done to the coupons again and again."""

    from_h: Hours = 0
    until_h: Hours | None = None


class PhaseBody(Body[Phase]):
    """A stretch of a soak in a medium of its own."""


class SoakMethodBody(Body[SoakMethod]):
    """How blades are exposed, looked at and tended."""

    look_h: Annotated[list[Hours], Field(max_length=most("soak_looks"))]
    stages: Annotated[list[InspectionStage], Field(min_length=1, max_length=4)]
    tending: list[InterventionBody] = Field(default_factory=list, max_length=20)
    needed_grade: Annotated[int, Field(ge=0, le=10)] = 6
    steps: list[LongText] = Field(default_factory=list, max_length=20)
    cautions: list[LongText] = Field(default_factory=list, max_length=20)
    source: ShortText = ""


class CouponBody(Body[Coupon]):
    """One thing exposed."""


class SoakBody(Body[Soak], without="id started created_utc"):
    """One exposure, with its question written first."""

    factor: SoakFactor
    let_go: list[ShortText] = Field(default_factory=list, max_length=20)


class SoakPatch(Patch[Soak], without="id started created_utc"):
    """What is said of a soak, to change; what is not sent stays."""

    factor: SoakFactor | None = None
    let_go: Annotated[list[ShortText], Field(max_length=20)] | None = None


class ActBody(Body[Act], AtBody, without="id at clock_h struck"):
    """Something done to a soak or to a coupon."""


class StrokeBody(Body[Stroke]):
    """A stroke of the brush, in picture pixels."""

    width_px: Annotated[Finite, Field(gt=0, le=4000)]
    points: StrokePoints


class KnownLengthBody(Body[KnownLength]):
    """A known length in a picture."""

    start: Corner
    end: Corner


class MeasuringBody(Body[Measuring], without="version"):
    """The choices of one measurement, in picture pixels."""

    outline: Corners
    white_point: Corner | None = None
    left_out: list[Corners] = Field(default_factory=list, max_length=40)
    strokes: list[StrokeBody] = Field(default_factory=list, max_length=400)
    scale: KnownLengthBody | None = None


class EndsBody(Body[Ends]):
    """Both ends of a blade, as they were pressed."""

    plunge: Corner
    tip: Corner


class SeriesBody(Wire):
    """The picture that was measured by hand; the others of its series are measured like it."""

    picture: PictureHash
    import_id: Id


class SpotsBody(Wire):
    """Spots counted by eye: how many, how large across, on a side of what area."""

    count: Annotated[int, Bounded("pits")]
    size_mm: Finite
    side_cm2: Finite


class LookBody(Body[Look], AtBody, without="id at clock_h doubts struck"):
    """One observation of a side in a stage; where it is measured, the area is read off the
    picture.
    """

    said: ShortText = ""
    picture: NoPictureYet = ""
    measuring: MeasuringBody | None = None
    spots: SpotsBody | None = None
    grade: Annotated[int, Field(ge=0, le=10)] | None = None

    def look(self, look_id: str) -> Look:
        """The look, with the area that a grade or counted spots stand for."""
        look = self.to_core(id=look_id, at=self.moment())
        if self.grade is not None:
            return graded(look, self.grade)
        if self.spots is not None:
            return spotted(look, **dict(self.spots))
        return look
