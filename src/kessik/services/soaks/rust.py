"""Rust measured in a picture, by the choices of a tester or by those proposed."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from kessik.core.corrosion.measuring import Ends, Measuring, check_ends, check_measuring
from kessik.core.corrosion.photo.area import Area, Choices, Maps, Paint, measure
from kessik.core.corrosion.photo.axes import Point
from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE
from kessik.core.corrosion.photo.outline import Unsure, outline_between, propose_outline
from kessik.core.corrosion.photo.registration import Laid
from kessik.core.corrosion.photo.spots import NO_SPOTS, Spots, spots_in
from kessik.core.corrosion.photo.view import Bools
from kessik.core.corrosion.ratings import Rating, ratings
from kessik.core.errors import OutOfRangeError
from kessik.interchange.masks import mask_of_outlines, mask_of_strokes
from kessik.interchange.photos import DecodedPicture

_CARD_SHARE = 0.006
"""Half the side of the patch that is read off a card, as a share of the picture's length."""
_LEAST_LIGHT = 0.04
_OVERLAY_RUST = np.array([214, 40, 20])
_OVERLAY_DOUBT = np.array([150, 60, 190])
_OVERLAY_STAIN = np.array([40, 110, 190])


@dataclass(frozen=True)
class RustReading:
    """An area with its grades, the maps it was read in, and the spots that make it up."""

    area: Area
    ratings: tuple[Rating, ...]
    maps: Maps
    spots: Spots = NO_SPOTS


def read_rust(picture: DecodedPicture, measuring: Measuring) -> RustReading:
    """Measure by a tester's choices; OutOfRangeError names the choice that cannot be."""
    size = picture.size_px
    check_measuring(measuring, *size)
    mask = mask_of_outlines([measuring.outline], size)
    left_out = mask_of_outlines(measuring.left_out, size) if measuring.left_out else None
    reading = read_masked(
        picture.rgb,
        mask,
        measuring.white_point,
        left_out=left_out,
        paint=_paint(measuring, size),
        choices=Choices(measuring.threshold, measuring.least_spot_px, measuring.work_px),
    )
    mm_per_px = measuring.scale.mm_per_px if measuring.scale else None
    return replace(reading, spots=spots_in(reading.maps, measuring.threshold, mm_per_px))


def read_masked(
    rgb: NDArray[np.uint8],
    mask: Bools,
    white_point: Point | None,
    *,
    left_out: Bools | None = None,
    paint: Paint | None = None,
    choices: Choices | None = None,
) -> RustReading:
    """Measure under a mask of the picture's size."""
    white = None if white_point is None else white_at(rgb, white_point)
    area, maps = measure(rgb, mask, white, excluded=left_out, paint=paint, choices=choices)
    return RustReading(area, ratings(area.rust_percent, area.low, area.high), maps)


def white_at(rgb: NDArray[np.uint8], point: Point) -> tuple[float, float, float]:
    """The light of the card about a point (x, y), linear; OutOfRangeError outside of the picture,
    and where it is too dark to be a card.
    """
    height, width, _ = rgb.shape
    x, y = int(point[0]), int(point[1])
    if not (0 <= x < width and 0 <= y < height):
        raise OutOfRangeError(
            f"the white point {x},{y} lies outside of a picture of {width} × {height} pixels",
            field="white_point",
        )
    half = max(1, round(_CARD_SHARE * max(width, height)))
    part = rgb[max(0, y - half) : y + half + 1, max(0, x - half) : x + half + 1]
    red, green, blue = (float(v) for v in np.median(LIGHT_OF_CODE[part], axis=(0, 1)))
    if min(red, green, blue) < _LEAST_LIGHT:
        raise OutOfRangeError(
            f"what is at {x},{y} is too dark to be a white card; point at the card",
            field="white_point",
        )
    return red, green, blue


def proposed_outline(
    picture: DecodedPicture, ends: Ends | None = None
) -> tuple[tuple[Point, ...], tuple[Unsure, ...]]:
    """The outline of the blade, from its plunge line to its tip where both were pressed, and what
    speaks against it; OutOfRangeError where none stands out.
    """
    if ends is not None:
        check_ends(ends, *picture.size_px)
        outline = outline_between(picture.rgb, ends.plunge, ends.tip)
        return kept_inside(outline, picture.size_px), ()
    found = propose_outline(picture.rgb)
    if found is None:
        raise OutOfRangeError("no blade is found in this picture: draw its outline", field="mask")
    return kept_inside(found.outline, picture.size_px), found.unsure


def kept_inside(outline: Sequence[Point], size_px: tuple[int, int]) -> tuple[Point, ...]:
    """Corners moved to the border of the picture where they lie outside."""
    right, bottom = size_px[0] - 1.0, size_px[1] - 1.0
    return tuple((min(max(x, 0.0), right), min(max(y, 0.0), bottom)) for x, y in outline)


def carried_white(white: Point | None, laid: Laid, size_px: tuple[int, int]) -> Point | None:
    """The card in the later of two pictures; None where there was none, or it lies outside."""
    if white is None:
        return None
    ((x, y),) = laid.carried((white,))
    return (x, y) if 0 <= x < size_px[0] and 0 <= y < size_px[1] else None


def overlay_of(
    picture: NDArray[np.uint8], reading: RustReading, threshold: float
) -> NDArray[np.uint8]:
    """The blade cut out, rust, doubt and stain laid over it in colour; (h, w, 3)."""
    view = reading.maps.view
    left, top = view.corner
    height, width = view.shape
    part = picture[top : top + height * view.step : view.step]
    part = part[:, left : left + width * view.step : view.step][:height, :width]
    shown = part.astype(float)
    maps = reading.maps
    for where, colour in (
        (maps.stain, _OVERLAY_STAIN),
        (maps.doubtful, _OVERLAY_DOUBT),
        (maps.strength > threshold, _OVERLAY_RUST),
    ):
        inside = (where & maps.counted)[: shown.shape[0], : shown.shape[1]]
        shown[inside] = 0.35 * shown[inside] + 0.65 * colour
    return np.asarray(shown, np.uint8)


def map_codes(reading: RustReading, before: Bools | None = None) -> NDArray[np.uint8]:
    """The maps as one picture of (h, w, 3): red the strength of rust, 0 to 255; green 1 for stain,
    2 for doubtful, 0 else, 3 where nothing counts; blue 255 where rust was at the last look.
    """
    maps = reading.maps
    kinds = np.zeros(maps.counted.shape, np.uint8)
    kinds[maps.stain] = 1
    kinds[maps.doubtful] = 2
    kinds[~maps.counted] = 3
    earlier = np.zeros_like(kinds) if before is None else before.astype(np.uint8) * 255
    strength = np.where(maps.counted, maps.strength * 255, 0).astype(np.uint8)
    return np.stack([strength, kinds, earlier], axis=-1)


def _paint(measuring: Measuring, size: tuple[int, int]) -> Paint | None:
    if not measuring.strokes:
        return None
    rust = np.zeros((size[1], size[0]), bool)
    clean = rust.copy()
    for stroke in measuring.strokes:  # the later stroke decides
        under = mask_of_strokes([(stroke.points, stroke.width_px)], size)
        painted, wiped = (rust, clean) if stroke.kind == "rust" else (clean, rust)
        painted |= under
        wiped &= ~under
    return Paint(rust, clean)
