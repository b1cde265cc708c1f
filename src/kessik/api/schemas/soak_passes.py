"""Sides graded again without names, over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import ShortText, Wire
from kessik.core.corrosion.methods import InspectionStage


class BlindGradeBody(Wire):
    """The grade of ISO 10289 that a side was given, and by whom."""

    grade: Annotated[int, Field(ge=0, le=10)]
    seen_by: ShortText = ""


class BlindPlaceOut(Wire):
    """A side to grade, by its number only."""

    number: int
    stage: InspectionStage
    has_picture: bool
    is_done: bool


class BlindPassOut(Wire):
    """A pass over the sides of a round; `agreements` once all of it is graded."""

    places: list[BlindPlaceOut]
    agreements: list[str]


class LaidOutOut(Wire):
    """What lies at a number, for whoever lays the coupons out."""

    number: int
    name: str


class AmongSoaksOut(Wire):
    """Where the steels of a soak stand among those of others, in words."""

    says: list[str]
