"""Pictures of soaks over the wire: measured, outlined, laid on the time line."""

import base64
import json
from dataclasses import asdict

from kessik.api.schemas.common import Wire
from kessik.api.schemas.soaks import MeasuringBody
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.soaks import Look, Soak
from kessik.core.pictures import Shown
from kessik.core.words.soaks import (
    area_words,
    doubts_words,
    rating_words,
)
from kessik.interchange.masks import png_of
from kessik.services.soaks.pictures import Since
from kessik.services.soaks.rust import RustReading, map_codes
from kessik.services.soaks.soaks import picture_clock_h


class SoakPictureOut(Wire):
    """A picture on a soak's time line; `taken_at` is its camera's own time, empty where it told
    none.
    """

    hash: str
    taken_at: str
    added_utc: str
    clock_h: float | None
    width_px: int
    height_px: int

    @classmethod
    def of(cls, shown: Shown, soak: Soak) -> "SoakPictureOut":
        picture = shown.picture
        begun = soak.started
        return cls(
            clock_h=picture_clock_h(begun, picture.taken_at) if begun else None,
            hash=picture.hash,
            taken_at=picture.taken_at,
            added_utc=shown.added_utc,
            width_px=picture.width_px,
            height_px=picture.height_px,
        )


class TakenPicturesOut(Wire):
    """How many pictures were laid on the time line."""

    pictures: int


class TakenLooksOut(Wire):
    """How many looks of a file were kept."""

    looks: int


class GradeInWordsOut(Wire):
    """A grade of ISO 10289, the areas that have it, and what they look like."""

    grade: int
    above_percent: float
    up_to_percent: float
    looks_like: str


class AreaAtOut(Wire):
    """The area at a place of the slider."""

    threshold: float
    percent: float


class RustOut(Wire):
    """A measurement that is not kept yet: the area, its grades, and the map it was read in."""

    rust_percent: float | None
    low: float
    high: float
    stain_percent: float
    says: str
    ratings: list[str]
    doubts: list[str]
    by_threshold: list[AreaAtOut]
    new_percent: float | None
    colour_step: float | None
    left_px: int
    top_px: int
    width_px: int
    height_px: int
    map_png: str
    """Red the strength of rust, green the kind, blue what was rust at the look before."""

    @classmethod
    def of(cls, reading: RustReading, threshold: float, new: Since | None) -> "RustOut":
        area, maps = reading.area, reading.maps
        before = new.before if new else None
        codes = map_codes(reading, before)
        height, width = maps.view.shape
        return cls(
            rust_percent=area.rust_percent,
            low=area.low,
            high=area.high,
            stain_percent=area.stain_percent,
            says=area_words(Bounds(area.low, area.high, area.rust_percent)),
            ratings=[rating_words(each) for each in reading.ratings],
            doubts=doubts_words(area.doubts),
            by_threshold=[AreaAtOut(threshold=t, percent=p) for t, p in area.by_threshold],
            colour_step=new.colour_step if new else None,
            new_percent=new.percent(reading, threshold) if new else None,
            left_px=maps.view.corner[0],
            top_px=maps.view.corner[1],
            width_px=width * maps.view.step,
            height_px=height * maps.view.step,
            map_png="data:image/png;base64," + base64.b64encode(png_of(codes)).decode(),
        )


class OutlineOut(Wire):
    """Where the blade is in a picture, proposed or carried over from an earlier look; `white_point`
    where the earlier look had one.
    """

    outline: list[list[float]]
    white_point: list[float] | None
    likeness: float | None
    width_px: int
    height_px: int


class LookMeasuringOut(Wire):
    """How a look was measured."""

    picture: str
    measuring: MeasuringBody | None

    @classmethod
    def of(cls, look: Look, measuring: Measuring | None) -> "LookMeasuringOut":
        kept = None
        if measuring is not None:
            plain = {k: v for k, v in asdict(measuring).items() if k != "version"}
            kept = MeasuringBody.model_validate_json(json.dumps(plain))
        return cls(picture=look.picture, measuring=kept)
