"""Abrasive sizes: grit names of the common scales and median grain size in µm, both ways, with
their standing.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import Provenance


@dataclass(frozen=True)
class GritScale:
    """A grit scale: sizes in µm by grit number, and how they are known."""

    name: str
    prefix: str
    what: str
    standing: Provenance
    source: str
    sizes_um: Mapping[int, float]


_FEPA_P = {
    12: 1815, 16: 1324, 20: 1000, 24: 764, 30: 642, 36: 538, 40: 425, 50: 336, 60: 269, 80: 201,
    100: 162, 120: 125,
    150: 100, 180: 82, 220: 68, 240: 58.5, 280: 52.2, 320: 46.2, 360: 40.5, 400: 35.0, 500: 30.2,
    600: 25.8, 800: 21.8,
    1000: 18.3, 1200: 15.3, 1500: 12.6, 2000: 10.3, 2500: 8.4,
}  # fmt: skip  # a table is read by its rows
_FEPA_F = {
    16: 1230, 20: 1040, 24: 745, 30: 625, 36: 525, 40: 438, 46: 370, 54: 310, 60: 260, 70: 218,
    80: 185, 90: 154,
    100: 129, 120: 109, 150: 82, 180: 69, 220: 58, 230: 53, 240: 44.5, 280: 36.5, 320: 29.2,
    360: 22.8, 400: 17.3,
    500: 12.8, 600: 9.3, 800: 6.5, 1000: 4.5, 1200: 3.0, 1500: 2.0, 2000: 1.2,
}  # fmt: skip  # a table is read by its rows
_JIS = {
    150: 75, 180: 63, 220: 53, 280: 48, 320: 40, 360: 35, 400: 30, 600: 20, 700: 17, 800: 14,
    1000: 11.5, 1200: 9.5,
    1500: 8.0, 2000: 6.7, 2500: 5.5, 3000: 4.0, 4000: 3.0, 6000: 2.0, 8000: 1.2,
}  # fmt: skip  # a table is read by its rows
_MESH = {
    20: 850, 25: 710, 30: 600, 35: 500, 40: 425, 45: 355, 50: 300, 60: 250, 70: 212, 80: 180,
    100: 150, 120: 125,
    140: 106, 170: 90, 200: 75, 230: 63, 270: 53, 325: 45, 400: 38, 450: 32, 500: 25, 635: 20,
}  # fmt: skip  # a table is read by its rows

AbrasiveScale = Literal["fepa_p", "fepa_f", "jis", "mesh"]
SCALES: Mapping[str, GritScale] = {
    scale.name: scale
    for scale in (
        GritScale(
            "fepa_p",
            "P",
            "coated abrasives, as on paper",
            "standard",
            "FEPA 43 (ISO 6344)",
            _FEPA_P,
        ),
        GritScale(
            "fepa_f",
            "F",
            "bonded abrasives, as in stones",
            "standard",
            "FEPA 42 (ISO 8486)",
            _FEPA_F,
        ),
        GritScale(
            "jis",
            "JIS ",
            "Japanese water stones",
            "literature",
            "after JIS R 6001; published tables differ, so it is approximate",
            _JIS,
        ),
        GritScale(
            "mesh",
            "mesh ",
            "sieve opening, as named on diamond plates",
            "standard",
            "ASTM E11",
            _MESH,
        ),
    )
}

# Compounds are sold by size; what a compound without one holds is common practice, no source.
COMPOUNDS: tuple[tuple[str, str, float, Provenance], ...] = (
    ("diamond 15 µm", "diamond", 15.0, "standard"),
    ("diamond 6 µm", "diamond", 6.0, "standard"),
    ("diamond 3 µm", "diamond", 3.0, "standard"),
    ("diamond 1 µm", "diamond", 1.0, "standard"),
    ("diamond 0.5 µm", "diamond", 0.5, "standard"),
    ("chromium oxide strop", "strop compound", 0.5, "guessed"),
    ("alumina strop", "strop compound", 1.0, "guessed"),
    ("bare leather strop", "strop", 0.3, "guessed"),
)


@dataclass(frozen=True)
class Grit:
    """A size in µm, whether the scale lists the grit or it lies between two listed ones, and how
    far to trust it.
    """

    scale: str
    grit: float
    size_um: float
    listed: bool
    standing: Provenance
    source: str


def size_um(scale: str, grit: float) -> Grit:
    """Median size of a grit in µm; between listed grits along the logarithm of both.

    Raises OutOfRangeError for an unknown scale or a grit outside it.
    """
    known = _scale(scale)
    grits = sorted(known.sizes_um)
    if not grits[0] <= grit <= grits[-1]:
        raise OutOfRangeError(
            f"{known.prefix}{grit:g} lies outside the scale, which runs from"
            f" {known.prefix}{grits[0]} to {known.prefix}{grits[-1]}",
            field="grit",
            value=grit,
        )
    if grit in known.sizes_um:
        return Grit(scale, grit, known.sizes_um[int(grit)], True, known.standing, known.source)
    above = next(g for g in grits if g > grit)
    below = grits[grits.index(above) - 1]
    share = math.log(grit / below) / math.log(above / below)
    size = known.sizes_um[below] * (known.sizes_um[above] / known.sizes_um[below]) ** share
    return Grit(
        scale,
        grit,
        size,
        False,
        "guessed",
        f"between {known.prefix}{below} and {known.prefix}{above}",
    )


def nearest_grit(scale: str, wanted_um: float) -> Grit:
    """The listed grit whose size is nearest by ratio; OutOfRangeError beyond a factor 1.5 of the
    scale's ends.
    """
    known = _scale(scale)
    if not wanted_um > 0:
        raise OutOfRangeError(
            f"a grain of {wanted_um:g} µm is out of range: give more than 0",
            field="size_um",
            value=wanted_um,
        )
    grit, size = min(known.sizes_um.items(), key=lambda item: abs(math.log(item[1] / wanted_um)))
    if abs(math.log(size / wanted_um)) > math.log(1.5):
        fine, coarse = min(known.sizes_um.values()), max(known.sizes_um.values())
        raise OutOfRangeError(
            f"{wanted_um:g} µm lies outside the scale, which runs from {fine:g} to {coarse:g} µm",
            field="size_um",
            value=wanted_um,
        )
    return Grit(scale, grit, size, True, known.standing, known.source)


def _scale(scale: str) -> GritScale:
    if scale not in SCALES:
        raise OutOfRangeError(
            f"the scale {scale!r} is not one of {', '.join(SCALES)}", field="scale", value=scale
        )
    return SCALES[scale]
