"""Generated photographs of blades whose rusted area is known exactly.

Written without reading the measurement in `kessik.core.corrosion`: colours come from reflectance
spectra under the illuminants and the standard observer of colour-science, never from RGB constants.
Spots are drawn three times finer than the picture, so that the true share of every pixel is known.
"""

import io
import warnings
from dataclasses import dataclass, field
from functools import cache

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw
from scipy import ndimage

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour

Array = NDArray[np.float32]
ILLUMINANTS = ("D65", "D50", "A", "FL2", "LED-B3", "LED-B1")
FINISHES = ("satin", "polished", "stonewashed", "blasted")
TRAPS = (
    "patina", "straw", "oil", "logo", "warm reflection", "shadow", "salt", "drops", "handle",
)  # fmt: skip
_FINE = 3
_WAVES = np.arange(400, 701, 10)
TONES = {
    "fresh orange": (0.04, 0.50, 575, 18),
    "ochre": (0.06, 0.42, 560, 22),
    "red-brown": (0.035, 0.24, 600, 20),
    "dark brown": (0.03, 0.13, 600, 28),
    "brown-black": (0.028, 0.060, 610, 40),
}
"""Reflectance of rust: floor, ceiling, wavelength of the rise and its width, both in nm."""


@dataclass(frozen=True)
class Scene:
    """What is photographed; `rusted` is the share wanted, 0 to 1."""

    seed: int
    rusted: float = 0.05
    finish: str = "satin"
    illuminant: str = "D65"
    spot_px: tuple[float, float] = (6, 30)
    tones: tuple[str, ...] = tuple(TONES)
    traps: tuple[str, ...] = ()
    uneven: float = 0.4
    size_px: tuple[int, int] = (1500, 420)
    jpeg_quality: int | None = 88
    steel: float = 0.42
    black_spots: bool = False
    feather_px: float = 0.0
    thinnest: float = 1.0
    noise: float = 1.0
    mask_off_px: int = 0


@dataclass
class Taken:
    """The picture and all that is true of it."""

    rgb: NDArray[np.uint8]
    mask: NDArray[np.bool_]
    rust: NDArray[np.bool_]
    rust_percent: float
    white_point: tuple[int, int]
    logo: NDArray[np.bool_] = field(default_factory=lambda: np.zeros((0, 0), bool))


@cache
def _render_table(illuminant: str) -> NDArray[np.float64]:
    """Linear sRGB per spectrum sample, for a camera that was not balanced."""
    shape = colour.SpectralShape(400, 700, 10)
    light = colour.SDS_ILLUMINANTS[illuminant].copy().align(shape).values
    observer = colour.MSDS_CMFS["CIE 1931 2 Degree Standard Observer"].copy().align(shape).values
    weighed = observer * light[:, None]
    xyz = weighed / weighed[:, 1].sum()
    return np.asarray(xyz @ colour.RGB_COLOURSPACES["sRGB"].matrix_XYZ_to_RGB.T)


def lit(reflectance: NDArray[np.float64], illuminant: str, balance: float) -> NDArray[np.float64]:
    """Linear sRGB of a spectrum under a light, as a camera balances it: wholly at 1, not at 0."""
    table = _render_table(illuminant)
    return np.asarray(reflectance @ table / table.sum(axis=0) ** balance)


def _rise(low: float, high: float, centre: float, width: float) -> NDArray[np.float64]:
    return low + (high - low) / (1 + np.exp(-(_WAVES - centre) / width))


def _steel(level: float) -> NDArray[np.float64]:
    return level * (1 + 0.00015 * (_WAVES - 550))


def _noise(rng: np.random.Generator, shape: tuple[int, int], size: float) -> Array:
    """Smooth noise of unit spread whose features are about `size` pixels."""
    step = max(1, int(size / 2))
    small = rng.normal(size=(shape[0] // step + 3, shape[1] // step + 3)).astype(np.float32)
    small = ndimage.gaussian_filter(small, max(0.6, size / step / 2.5))
    big = ndimage.zoom(small, step, order=1)[: shape[0], : shape[1]]
    return np.asarray((big - big.mean()) / (big.std() + 1e-9), np.float32)


def _blade(scene: Scene) -> Image.Image:
    """The outline, drawn fine."""
    width, height = scene.size_px[0] * _FINE, scene.size_px[1] * _FINE
    mask = Image.new("L", (width, height), 0)
    top, bottom = 0.22 * height, 0.80 * height
    along = np.linspace(0, 1, 60)
    spine = [(width * (0.10 + 0.80 * t), top + 0.30 * height * max(0, t - 0.6) ** 2 / 0.16)
             for t in along]  # fmt: skip
    edge = [(width * (0.10 + 0.80 * t), bottom - 0.28 * height * max(0, t - 0.55) ** 2 / 0.2025)
            for t in along[::-1]]  # fmt: skip
    ImageDraw.Draw(mask).polygon(spine + edge, fill=255)
    return mask


def _spots(scene: Scene, rng: np.random.Generator, blade: NDArray[np.bool_]) -> list[Array]:
    """One fine-scale mask of rust per tone, together about the share that is wanted."""
    height, width = blade.shape
    wanted = scene.rusted * blade.sum()
    drawn = [np.zeros(blade.shape, bool) for _ in scene.tones]
    if wanted <= 0:
        return [each.astype(np.float32) for each in drawn]
    ys, xs = np.nonzero(blade)
    have, tries = 0.0, 0
    while have < wanted and tries < 4000:
        tries += 1
        low, high = np.log(scene.spot_px[0] / 2), np.log(scene.spot_px[1] / 2)
        radius = float(np.exp(rng.uniform(low, high))) * _FINE
        left = wanted - have
        radius = max(scene.spot_px[0] / 2 * _FINE, min(radius, np.sqrt(left / np.pi) * 1.1))
        at = rng.integers(len(ys))
        cy, cx = ys[at], xs[at]
        reach = int(radius * 1.8) + 2
        y0, y1, x0, x1 = cy - reach, cy + reach + 1, cx - reach, cx + reach + 1
        if y0 < 0 or x0 < 0 or y1 > height or x1 > width:
            continue
        yy, xx = np.mgrid[-reach : reach + 1, -reach : reach + 1]
        angle = np.arctan2(yy, xx)
        ragged = sum(rng.normal(0, 0.12) * np.sin(k * angle + rng.uniform(0, 6.3))
                     for k in (2, 3, 5, 7))  # fmt: skip
        inside = (np.hypot(yy, xx) < radius * (1 + ragged)) & blade[y0:y1, x0:x1]
        own = drawn[rng.integers(len(drawn))]
        before = sum(each[y0:y1, x0:x1].sum() for each in drawn)
        for each in drawn:
            each[y0:y1, x0:x1] &= ~inside
        own[y0:y1, x0:x1] |= inside
        have += sum(each[y0:y1, x0:x1].sum() for each in drawn) - before
    return [each.astype(np.float32) for each in drawn]


def _coarse(fine: NDArray[np.generic]) -> Array:
    """Shares of the picture's pixels from the fine drawing."""
    height, width = fine.shape[0] // _FINE, fine.shape[1] // _FINE
    blocks = fine.reshape(height, _FINE, width, _FINE).astype(np.float32)
    return np.asarray(blocks.mean(axis=(1, 3)), np.float32)


def _texture(scene: Scene, rng: np.random.Generator) -> Array:
    """Relative brightness of the bare finish."""
    width, height = scene.size_px
    shape = (height, width)
    match scene.finish:
        case "satin":
            lines = ndimage.gaussian_filter1d(rng.normal(size=shape).astype(np.float32), 30, axis=1)
            return np.asarray(1 + 0.10 * lines / lines.std(), np.float32)
        case "polished":
            return np.asarray(1 + 0.25 * np.tanh(_noise(rng, shape, 260)), np.float32)
        case "stonewashed":
            lines = np.zeros(shape, np.float32)
            scratches = Image.new("L", (width, height), 0)
            pen = ImageDraw.Draw(scratches)
            for _ in range(900):
                x, y = rng.uniform(0, width), rng.uniform(0, height)
                dx, dy = rng.normal(0, 30, 2)
                pen.line((x, y, x + dx, y + dy), fill=int(rng.integers(60, 255)), width=1)
            lines = np.asarray(scratches, np.float32) / 255
            return np.asarray(0.95 + 0.25 * ndimage.gaussian_filter(lines, 0.7), np.float32)
    grain = ndimage.gaussian_filter(rng.normal(size=shape).astype(np.float32), 0.8)
    return np.asarray(0.85 * (1 + 0.08 * grain / grain.std()), np.float32)


def take(scene: Scene) -> Taken:
    """Photograph a scene."""
    rng = np.random.default_rng(scene.seed)
    width, height = scene.size_px
    shape = (height, width)
    balance = float(rng.uniform(0.6, 1.0))
    fine = np.asarray(_blade(scene)) > 127
    spots = _spots(scene, rng, fine)
    alphas = [_coarse(each) for each in spots]
    if scene.feather_px:
        alphas = [ndimage.gaussian_filter(each, scene.feather_px) for each in alphas]
    if scene.thinnest < 1:
        cover = scene.thinnest + (1 - scene.thinnest) * (
            0.5 + 0.5 * np.tanh(_noise(rng, shape, 40))
        )
        alphas = [each * cover for each in alphas]
    blade = _coarse(fine)

    def colour_of(reflectance: NDArray[np.float64]) -> Array:
        return np.asarray(lit(reflectance, scene.illuminant, balance), np.float32)

    texture = _texture(scene, rng)[..., None]
    steel = colour_of(_steel(scene.steel)) * texture
    steel = _trapped(scene, rng, steel, colour_of, shape)
    rust = sum(alphas)
    body = steel * (1 - np.clip(rust, 0, 1)[..., None])
    mottle = 1 + 0.15 * _noise(rng, shape, 7)[..., None]
    for name, alpha in zip(scene.tones, alphas, strict=True):
        low, high, centre, spread = TONES[name]
        body = body + colour_of(_rise(low, high, centre, spread)) * mottle * alpha[..., None]
    logo = np.zeros(shape, bool)
    if "logo" in scene.traps:
        body, logo = _with_logo(rng, body, shape, colour_of)
    if scene.black_spots:
        dark = _coarse(
            _spots(Scene(scene.seed + 1, 0.01, spot_px=(8, 20), tones=("ochre",)), rng, fine)[0]
        )
        body = body * (1 - 0.9 * dark[..., None])
    wood = colour_of(_rise(0.12, 0.38, 570, 45)) * (1 + 0.06 * _noise(rng, shape, 40)[..., None])
    picture = wood * (1 - blade[..., None]) + body * blade[..., None]
    mask = blade > 0.5
    if "handle" in scene.traps:  # the mask reaches three pixels into it
        mask[:, : int(0.13 * width) - 3] = False
        picture[:, : int(0.13 * width)] = colour_of(_rise(0.03, 0.16, 590, 35))
    card = (slice(8, int(0.14 * height)), slice(int(0.42 * width), int(0.58 * width)))
    picture[card] = colour_of(np.full(_WAVES.size, 0.85))
    picture = picture * _light(scene, rng, shape)
    rgb = _developed(scene, rng, picture)
    true = _coarse(sum(spots))
    if scene.mask_off_px:
        mask = np.roll(mask, (scene.mask_off_px, scene.mask_off_px), (0, 1))
    if "handle" in scene.traps:
        true[:, : int(0.13 * width)] = 0
    white = (int(0.5 * width), int(0.07 * height))
    percent = 100 * float(true[mask].sum() / mask.sum())
    return Taken(rgb, mask, true > 0.5, percent, white, logo & mask)


def _light(scene: Scene, rng: np.random.Generator, shape: tuple[int, int]) -> Array:
    height, width = shape
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    angle = rng.uniform(0, 2 * np.pi)
    ramp = (np.cos(angle) * (x / width - 0.5) + np.sin(angle) * (y / height - 0.5)) * scene.uneven
    light = np.exp(ramp)
    if "shadow" in scene.traps:
        edge = ndimage.gaussian_filter((x + 0.6 * y > rng.uniform(0.3, 0.8) * width) * 1.0, 12)
        light = light * (1 - 0.55 * edge)
    return np.asarray(light[..., None], np.float32)


def _trapped(scene, rng, steel, colour_of, shape):
    """Steel with what is not rust upon it."""

    def patch(size: float, share: float, soft: float) -> Array:
        field_ = _noise(rng, shape, size)
        level = np.quantile(field_, 1 - share)
        return np.asarray(1 / (1 + np.exp(-(field_ - level) / soft)), np.float32)[..., None]

    if "patina" in scene.traps:
        blue = colour_of(0.22 - 0.12 * (_WAVES - 400) / 300)
        part = patch(160, 0.25, 0.12) * 0.7
        steel = steel * (1 - part) + blue * part
    if "straw" in scene.traps:
        film = colour_of(_rise(0.62, 1.0, 470, 30)) / colour_of(np.ones(_WAVES.size))
        steel = steel * (1 + (film - 1) * patch(300, 0.35, 0.4))
    if "oil" in scene.traps:
        film = colour_of(_rise(0.80, 1.0, 480, 30)) / colour_of(np.ones(_WAVES.size))
        steel = steel * (1 + (film - 1) * patch(180, 0.3, 0.10))
    if "warm reflection" in scene.traps:
        glow = colour_of(_rise(0.05, 0.30, 590, 30))
        steel = steel + glow * 0.6 * patch(220, 0.2, 0.3)
    if "salt" in scene.traps:
        grains = np.clip(_noise(rng, shape, 5) - 2.0, 0, 1)[..., None]
        steel = steel * (1 - grains) + colour_of(np.full(_WAVES.size, 0.9)) * grains
    if "drops" in scene.traps:
        height, width = shape
        y, x = np.mgrid[0:height, 0:width].astype(np.float32)
        for _ in range(14):
            cy, cx = rng.uniform(0.3, 0.7) * height, rng.uniform(0.15, 0.8) * width
            radius = rng.uniform(9, 26)
            away = np.hypot(y - cy, x - cx) - radius
            rim = np.exp(-((away / 1.6) ** 2))[..., None]
            shine = np.exp(-((np.hypot(y - cy + radius / 3, x - cx + radius / 3) / 3) ** 2))
            steel = steel * (1 - 0.45 * rim) + 0.4 * shine[..., None]
    return steel


def _with_logo(rng, body, shape, colour_of):
    """Letters etched dark into the flat."""
    height, width = shape
    sheet = Image.new("L", (width, height), 0)
    ImageDraw.Draw(sheet).text(
        (0.28 * width, 0.36 * height), "VOE 48", fill=255, font_size=int(0.13 * height)
    )
    part = np.asarray(sheet, np.float32)[..., None] / 255
    black = colour_of(np.full(_WAVES.size, 0.05))
    marked = ndimage.binary_dilation(part[..., 0] > 0.1, iterations=3)
    return body * (1 - part) + black * part, marked


def _developed(scene: Scene, rng: np.random.Generator, picture: Array) -> NDArray[np.uint8]:
    """Lens blur, exposure, sensor noise, sRGB, JPEG."""
    soft = ndimage.gaussian_filter(picture, (0.7, 0.7, 0))
    exposed = soft * (0.78 / np.quantile(soft, 0.995))
    noisy = exposed + rng.normal(size=soft.shape) * scene.noise * (
        0.002 + 0.006 * np.sqrt(np.abs(exposed))
    )
    coded = colour.cctf_encoding(np.clip(noisy, 0, 1), function="sRGB")
    rgb = np.asarray(np.clip(np.round(coded * 255), 0, 255), np.uint8)
    if scene.jpeg_quality is None:
        return rgb
    out = io.BytesIO()
    Image.fromarray(rgb).save(out, "JPEG", quality=scene.jpeg_quality)
    return np.asarray(Image.open(out).convert("RGB"), np.uint8)
