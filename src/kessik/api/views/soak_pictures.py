"""Pictures of soaks over the wire: measured, outlined, laid on the time line."""

import base64
import json
from dataclasses import asdict

from kessik.api.schemas.soak_pictures_out import (
    AreaAtOut,
    LookMeasuringOut,
    OutlineOut,
    RustOut,
    SoakPictureOut,
)
from kessik.api.schemas.soaks import MeasuringBody
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.soaks import Look, Soak
from kessik.core.pictures import Shown
from kessik.core.words.rust import area_words, doubts_words, rating_words, spots_words, unsure_words
from kessik.interchange.masks import png_of
from kessik.services.soaks.pictures import Outlined, Since
from kessik.services.soaks.rust import RustReading, map_codes
from kessik.services.soaks.soaks import picture_clock_h


def soak_picture_out(shown: Shown, soak: Soak) -> SoakPictureOut:
    """A picture on the time line of its soak."""
    picture = shown.picture
    begun = soak.started
    return SoakPictureOut.showing(
        picture,
        clock_h=picture_clock_h(begun, picture.taken_at) if begun else None,
        added_utc=shown.added_utc,
    )


def rust_out(reading: RustReading, threshold: float, new: Since | None) -> RustOut:
    """Rust measured in a picture; `new` is what came since the look before."""
    area, maps = reading.area, reading.maps
    before = new.before if new else None
    codes = map_codes(reading, before)
    height, width = maps.view.shape
    return RustOut.showing(
        area,
        says=area_words(Bounds(area.low, area.high, area.rust_percent)),
        ratings=[rating_words(each) for each in reading.ratings],
        doubts=doubts_words(area.doubts),
        by_threshold=[AreaAtOut(threshold=t, percent=p) for t, p in area.by_threshold],
        spots=spots_words(reading.spots),
        colour_step=new.colour_step if new else None,
        new_percent=new.percent(reading, threshold) if new else None,
        left_px=maps.view.corner[0],
        top_px=maps.view.corner[1],
        width_px=width * maps.view.step,
        height_px=height * maps.view.step,
        map_png="data:image/png;base64," + base64.b64encode(png_of(codes)).decode(),
    )


def outline_out(found: Outlined) -> OutlineOut:
    """Where the blade is in a picture, or why Kessik does not know."""
    width, height = found.size_px
    return OutlineOut.showing(
        found, width_px=width, height_px=height, unsure=unsure_words(found.unsure)
    )


def look_measuring_out(look: Look, measuring: Measuring | None) -> LookMeasuringOut:
    """How a look was measured: everything needed to do it again."""
    kept = None
    if measuring is not None:
        plain = {k: v for k, v in asdict(measuring).items() if k != "version"}
        kept = MeasuringBody.model_validate_json(json.dumps(plain))
    return LookMeasuringOut(picture=look.picture, measuring=kept)
