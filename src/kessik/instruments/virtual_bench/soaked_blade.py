"""Simulated photographs of a blade in a soak: a camera over a bench, with a white card beside.

Spots keep their places from look to look and grow; wiping takes the bloom and leaves what bit into
the steel. Drawn, not taken: nothing here is a measurement.
"""

import io
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray
from PIL import Image, ImageDraw

Array = NDArray[np.float32]
WIDTH_PX, HEIGHT_PX = 1120, 340
_STEEL = np.array([0.40, 0.41, 0.42])
_BENCH = np.array([0.36, 0.24, 0.14])
_HANDLE = np.array([0.10, 0.055, 0.03])
_CARD = np.array([0.82, 0.82, 0.80])
_BLOOM = np.array([0.42, 0.16, 0.035])
_BITTEN = np.array([0.14, 0.055, 0.025])
_STAIN = np.array([0.24, 0.27, 0.33])
_SPOTS = 260
WHITE_POINT = (560, 30)
_SPINE = ((210, 96), (760, 96), (880, 112), (980, 150), (1045, 196))
_EDGE = ((1045, 196), (960, 232), (840, 250), (210, 250))
OUTLINE = (*_SPINE, *_EDGE[1:])
"""The blade without its handle, in picture pixels, when nothing was moved."""


@dataclass(frozen=True)
class SoakedSide:
    """One side of a blade at a look; areas in per cent: what `bit` into the steel, the `bloom` that
    wipes off, and the grey `stain`. `moved_px` is how far the blade lies from where it first lay.
    """

    seed: int
    bit: float
    bloom: float = 0.0
    stain: float = 0.0
    mark: str = ""
    moved_px: tuple[int, int] = (0, 0)
    taken_at: str = ""


def photograph(side: SoakedSide) -> bytes:
    """A JPEG with the camera's own time in it, where that is given."""
    blade = _blade_mask()
    own = np.random.default_rng(side.seed)
    swollen = 1.25 if side.bloom else 1.08
    bitten = _spots(own, blade, side.bit, 1.0)
    bloomed = _spots(np.random.default_rng(side.seed), blade, side.bit + side.bloom, swollen)
    light = np.random.default_rng(side.seed + 1)
    steel = _STEEL * (1 + 0.07 * _brushed(light)[..., None])
    grey = _patches(np.random.default_rng(side.seed + 2), blade, side.stain)
    steel = steel + (_STAIN - steel) * 0.6 * grey[..., None]
    rough = 1 + 0.18 * _cloud(light, 6)[..., None]
    steel = steel + (_BLOOM * rough - steel) * bloomed[..., None]
    steel = steel + (_BITTEN * rough - steel) * bitten[..., None]
    steel = _marked(steel, side.mark)
    soft = scipy.ndimage.gaussian_filter(blade.astype(np.float32), 0.6)[..., None]
    picture = _ground(light) * (1 - soft) + steel * soft
    picture = np.roll(picture, (side.moved_px[1], side.moved_px[0]), (0, 1))
    picture[12:62, 440:690] = _CARD
    return _developed(picture * _uneven(), light, side.taken_at)


def rusted_percent(side: SoakedSide) -> float:
    """The area that truly bit into the steel of a side as it is drawn, per cent of the side."""
    blade = _blade_mask()
    bitten = _spots(np.random.default_rng(side.seed), blade, side.bit, 1.0)
    return 100.0 * float(bitten.sum()) / float(blade.sum())


def _blade_mask() -> NDArray[np.bool_]:
    sheet = Image.new("1", (WIDTH_PX, HEIGHT_PX), 0)
    ImageDraw.Draw(sheet).polygon(list(OUTLINE), fill=1)
    return np.asarray(sheet, bool)


def _spots(
    rng: np.random.Generator, blade: NDArray[np.bool_], percent: float, swollen: float
) -> Array:
    """Round-ish spots at places of their own, grown until the area is there."""
    wanted = percent / 100 * float(blade.sum())
    shape = blade.shape
    found = np.zeros(shape, np.float32)
    ys, xs = np.nonzero(blade)
    places = rng.integers(len(ys), size=_SPOTS)
    sizes = rng.lognormal(0.0, 0.6, _SPOTS)
    bumps = rng.normal(0, 0.13, (_SPOTS, 3))
    turns = rng.uniform(0, 6.3, (_SPOTS, 3))
    if wanted <= 0:
        return found
    scale = 1.6 + 1.5 * percent**0.4
    for place, size, bump, turn in zip(places, sizes, bumps, turns, strict=True):
        radius = max(2.2, scale * size * swollen)
        reach = int(radius * 1.6) + 2
        cy, cx = int(ys[place]), int(xs[place])
        top, left = max(0, cy - reach), max(0, cx - reach)
        box = (slice(top, min(cy + reach, shape[0])), slice(left, min(cx + reach, shape[1])))
        yy, xx = np.mgrid[box]
        angle = np.arctan2(yy - cy, xx - cx)
        waves = zip((2, 3, 5), bump, turn, strict=True)
        ragged = 1 + sum(b * np.sin(k * angle + t) for k, b, t in waves)
        inside = np.clip(radius * ragged - np.hypot(yy - cy, xx - cx) + 0.5, 0, 1)
        inside = inside.astype(np.float32) * blade[box]
        found[box] = np.maximum(found[box], inside)
        if float(found.sum()) >= wanted:
            break
    return found


def _patches(rng: np.random.Generator, blade: NDArray[np.bool_], percent: float) -> Array:
    if percent <= 0:
        return np.zeros(blade.shape, np.float32)
    field = _cloud(rng, 70)
    level = np.quantile(field[blade], 1 - min(percent, 95) / 100)
    return np.asarray(1 / (1 + np.exp(-(field - level) / 0.12)), np.float32)


def _cloud(rng: np.random.Generator, size: float) -> Array:
    """Smooth noise of unit spread with features about `size` pixels wide."""
    coarse = max(1, int(size // 4))
    shape = (HEIGHT_PX // coarse + 2, WIDTH_PX // coarse + 2)
    small = scipy.ndimage.gaussian_filter(rng.normal(size=shape), max(size / coarse / 2.5, 0.7))
    big = scipy.ndimage.zoom(small, coarse, order=1)[:HEIGHT_PX, :WIDTH_PX]
    return np.asarray(big / big.std(), np.float32)


def _brushed(rng: np.random.Generator) -> Array:
    lines = scipy.ndimage.uniform_filter1d(rng.normal(size=(HEIGHT_PX, WIDTH_PX)), 70, axis=1)
    return np.asarray(lines / lines.std(), np.float32)


def _ground(rng: np.random.Generator) -> Array:
    """The bench, and the handle on it."""
    grain = scipy.ndimage.uniform_filter1d(rng.normal(size=(HEIGHT_PX, WIDTH_PX)), 130, axis=1)
    bench = _BENCH * (1 + 0.10 * (grain / grain.std()) + 0.05 * _cloud(rng, 90))[..., None]
    sheet = Image.new("L", (WIDTH_PX, HEIGHT_PX), 0)
    ImageDraw.Draw(sheet).rounded_rectangle((30, 88, 222, 256), 34, fill=255)
    handle = scipy.ndimage.gaussian_filter(np.asarray(sheet, np.float32) / 255, 0.8)[..., None]
    return np.asarray(bench * (1 - handle) + _HANDLE * handle, np.float32)


def _marked(steel: Array, mark: str) -> Array:
    if not mark:
        return steel
    sheet = Image.new("L", (WIDTH_PX, HEIGHT_PX), 0)
    ImageDraw.Draw(sheet).text((250, 112), mark, fill=255, font_size=26)
    ink = np.asarray(sheet, np.float32)[..., None] / 255
    return np.asarray(steel * (1 - ink) + 0.07 * ink, np.float32)


def _uneven() -> Array:
    y, x = np.mgrid[0:HEIGHT_PX, 0:WIDTH_PX]
    slope = 0.24 * (x / WIDTH_PX - 0.5) - 0.18 * (y / HEIGHT_PX - 0.5)
    return np.asarray(np.exp(slope), np.float32)[..., None]


def _developed(picture: Array, rng: np.random.Generator, taken_at: str) -> bytes:
    soft = scipy.ndimage.gaussian_filter(picture, (0.6, 0.6, 0))
    noisy = np.clip(soft + rng.normal(0, 0.004, soft.shape), 0, 1)
    coded = np.where(noisy <= 0.0031308, 12.92 * noisy, 1.055 * noisy ** (1 / 2.4) - 0.055)
    image = Image.fromarray(np.asarray(np.round(255 * coded), np.uint8))
    exif = Image.Exif()
    if taken_at:
        exif.get_ifd(0x8769)[0x9003] = taken_at
        exif[0x0132] = taken_at
    out = io.BytesIO()
    image.save(out, "JPEG", quality=88, exif=exif)
    return out.getvalue()
