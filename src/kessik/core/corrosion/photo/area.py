"""The rusted share of a blade, with its interval and what stands against it."""

from dataclasses import dataclass
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.corrosion.photo.classes import Classes, classify
from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, Array
from kessik.core.corrosion.photo.view import WORK_PX, Bools, View, cut_out, reduced_like
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit

Doubt = Literal[
    "too_fine", "dark_steel", "black", "tint", "salt", "burnt", "small", "no_card", "wide_mask"
]  # fmt: skip
"""What stands against an area read from colour; words for it are in `core.words`."""

THRESHOLDS = tuple(round(0.1 + 0.02 * n, 2) for n in range(41))
"""The places of the slider."""
_UNSURE, _UNSURE_ABOVE, _BORDER = 0.18, 0.22, 0.12
_LEAST_DOUBT_PERCENT = 0.02
_FINE_PX, _MANY, _MOST_FINE = 5.0, 12, 0.35
_DARK_STEEL, _TINTED = 0.11, 0.05
_BLIND: tuple[Doubt, ...] = ("dark_steel", "too_fine")


@dataclass(frozen=True)
class Choices:
    """What a tester chooses: the share of rust from which a pixel counts, the size of the smallest
    spot, in worked pixels across, and about how many pixels along the blade are worked on.
    """

    threshold: float = 0.5
    least_spot_px: float = 3.0
    work_px: int = WORK_PX


@dataclass(frozen=True)
class Paint:
    """What a brush says, each of the picture's shape: this is rust, this is not."""

    rust: Bools
    clean: Bools

    @property
    def is_used(self) -> bool:
        return bool(self.rust.any() or self.clean.any())


@dataclass(frozen=True)
class Area:
    """Rust and stain in per cent of the `pixels` that count; `rust_percent` is None where colour
    alone cannot say, `low` and `high` bound it all the same.

    `by_threshold` holds the area at each place of the slider.
    """

    rust_percent: float | None
    low: float
    high: float
    stain_percent: float
    pixels: int
    doubts: tuple[Doubt, ...] = ()
    by_threshold: tuple[tuple[float, float], ...] = ()


@dataclass(frozen=True)
class Maps:
    """Where it was measured: `strength` of rust from 0 to 1, a pixel counts from the threshold on;
    `stain`, `doubtful` and what is `counted`, all of the view's shape. `level` is how light the
    steel is, `steel_light` its usual colour in linear light, white at 1.
    """

    view: View
    strength: Array
    stain: Bools
    doubtful: Bools
    counted: Bools
    level: float
    steel_light: tuple[float, float, float]


def measure(
    rgb: NDArray[np.uint8],
    mask: Bools,
    white: tuple[float, float, float] | None,
    *,
    excluded: Bools | None = None,
    paint: Paint | None = None,
    choices: Choices | None = None,
) -> tuple[Area, Maps]:
    """Measure rust and stain on the blade in a picture.

    Parameters
    ----------
    rgb : (h, w, 3), sRGB codes
    mask, excluded, paint : (h, w), the blade; what does not count; what a hand says
    white : linear light of the card, each channel above 0; None where there is no card

    OutOfRangeError where the mask is empty, outside the picture, or wholly excluded.
    """
    choices = choices or Choices()
    check_limit("rust_threshold", choices.threshold, "threshold")
    check_limit("least_spot_px", choices.least_spot_px, "least_spot_px")
    view = cut_out(rgb, mask, white or _brightest(rgb), choices.work_px)
    classes = classify(view, choices.least_spot_px)
    counted = view.mask if excluded is None else view.mask & ~reduced_like(view, excluded)
    counted = counted & ~classes.beyond
    if not counted.any():
        raise OutOfRangeError("nothing of the blade is left to count", field="excluded")
    strength, doubtful = classes.strength, classes.doubtful
    if paint is not None and paint.is_used:
        rust, clean = reduced_like(view, paint.rust), reduced_like(view, paint.clean)
        strength = np.where(rust, np.float32(1), np.where(clean, np.float32(0), strength))
        doubtful = doubtful & ~rust & ~clean
    stain = classes.stain & ~(strength > choices.threshold)
    usual = _usual_light(view, counted & ~(strength > 0))
    maps = Maps(view, strength, stain, doubtful, counted, classes.steel.level, usual)
    by_hand = paint is not None and paint.is_used
    return _area(maps, classes, choices, has_card=white is not None, by_hand=by_hand), maps


def _brightest(rgb: NDArray[np.uint8]) -> tuple[float, float, float]:
    """Where there is no card: the light of the brightest hundredth of the picture, as a grey."""
    step = max(1, max(rgb.shape[:2]) // 400)
    green = LIGHT_OF_CODE[rgb[::step, ::step, 1]]
    level = max(float(np.percentile(green, 99)), 0.05)
    return level, level, level


def _usual_light(view: View, steel: Bools) -> tuple[float, float, float]:
    part = view.light[steel if steel.any() else view.mask]
    red, green, blue = (float(v) for v in np.median(part, axis=0))
    return red, green, blue


def _area(maps: Maps, classes: Classes, choices: Choices, *, has_card: bool, by_hand: bool) -> Area:
    whole = int(maps.counted.sum())
    inside = np.sort(maps.strength[maps.counted])

    def percent_above(threshold: float) -> float:
        return 100 * (whole - int(np.searchsorted(inside, threshold, side="right"))) / whole

    def percent(part: Bools) -> float:
        return 100 * int((part & maps.counted).sum()) / whole

    at = choices.threshold
    rust = percent_above(at)
    spots = (maps.strength > at) & maps.counted
    border = _BORDER * percent(spots & ~scipy.ndimage.binary_erosion(spots))
    low = min(percent_above(min(at + _UNSURE, 0.97)), rust - border)
    low -= percent(spots & classes.weak)
    high = max(percent_above(max(at - _UNSURE_ABOVE, 0.03)), rust + border)
    around = scipy.ndimage.binary_dilation(classes.specks) & ~spots
    high += percent(maps.doubtful | around) + _LEAST_DOUBT_PERCENT
    doubts = _doubts(maps, classes, spots, rust, has_card=has_card)
    is_blind = any(doubt in _BLIND for doubt in doubts) and not by_hand
    return Area(
        None if is_blind else rust,
        max(low, 0.0),
        min(high, 100.0),
        percent(maps.stain),
        whole * maps.view.step**2,
        doubts,
        tuple((threshold, percent_above(threshold)) for threshold in THRESHOLDS),
    )


def _doubts(
    maps: Maps, classes: Classes, spots: Bools, rust: float, *, has_card: bool
) -> tuple[Doubt, ...]:
    whole = int(maps.counted.sum())

    def percent(part: Bools) -> float:
        return 100 * int((part & maps.counted).sum()) / whole

    said: list[tuple[Doubt, bool]] = [
        ("dark_steel", maps.level < _DARK_STEEL),
        ("too_fine", _is_too_fine(spots, classes.specks & maps.counted)),
        ("black", percent(maps.doubtful) > max(0.03 * rust, 0.15)),
        ("tint", _most_tinted(maps, classes) > _TINTED),
        ("salt", percent(classes.lighter) > 0.12),
        ("burnt", maps.view.burnt_share > 0.05),
        ("wide_mask", int(classes.beyond.sum()) > 0.005 * int(maps.view.mask.sum())),
        ("small", whole < 20_000),
        ("no_card", not has_card),
    ]
    return tuple(doubt for doubt, is_so in said if is_so)


def _most_tinted(maps: Maps, classes: Classes) -> float:
    """How warm the steel itself is in its warmest parts, beside its usual colour."""
    return float(np.percentile(classes.steel.film[maps.view.mask], 97))


def _is_too_fine(spots: Bools, specks: Bools) -> bool:
    """Whether most of what rusted is in spots a few pixels across."""
    labels, count = scipy.ndimage.label(spots | specks, np.ones((3, 3), bool))
    area = np.bincount(labels.ravel(), minlength=count + 1)[1:]
    fine = area < np.pi / 4 * _FINE_PX**2
    return bool(fine.sum() >= _MANY and area[fine].sum() > _MOST_FINE * area.sum())
