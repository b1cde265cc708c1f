"""Generated photographs of whole knives, handle and all, whose blade's outline is known exactly.

Written without reading the proposal in `kessik.core.corrosion.photo`; colours are linear light.
"""

import io
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw
from scipy import ndimage

Array = NDArray[np.float32]
Points = list[tuple[float, float]]
GROUNDS = {
    "paper": (0.72, 0.71, 0.69),
    "grey cloth": (0.20, 0.20, 0.21),
    "wooden table": (0.36, 0.20, 0.095),
    "dark mat": (0.035, 0.036, 0.040),
    "green mat": (0.05, 0.14, 0.085),
    "stone": (0.33, 0.32, 0.30),
}
HANDLES = {
    "brown wood": (0.17, 0.08, 0.038),
    "black": (0.018, 0.018, 0.019),
    "tan": (0.34, 0.24, 0.13),
    "red": (0.24, 0.03, 0.025),
    "blue": (0.04, 0.08, 0.24),
    "bone": (0.62, 0.56, 0.44),
    "steel": (0.36, 0.36, 0.36),
}
PROFILES = ("drop", "clip", "sheep", "kitchen", "spear")
GRAINED = ("wooden table", "brown wood")
_FINE = 2
_GUARD_PAST = 0.015
"""How far a guard reaches over the plunge line, as a share of the blade's length."""


@dataclass(frozen=True)
class Knife:
    """What lies on the ground; lengths in shares of the blade's, `width` at the plunge line."""

    seed: int
    profile: str = "drop"
    handle: str = "brown wood"
    ground: str = "paper"
    angle_deg: float = 0.0
    width: float = 0.2
    steel: float = 0.4
    rusted: float = 0.05
    warmth: float = 0.0
    slope: float = 0.2
    shadow: float = 0.35
    has_guard: bool = False
    has_handle: bool = True
    size_px: tuple[int, int] = (1200, 800)
    blade_px: float = 560


@dataclass(frozen=True)
class Taken:
    """The picture, the blade in it, the card and both ends of the blade's axis."""

    rgb: NDArray[np.uint8]
    mask: NDArray[np.bool_]
    rust: NDArray[np.bool_]
    white_point: tuple[int, int]
    plunge: tuple[float, float]
    tip: tuple[float, float]


def _blade(knife: Knife) -> Points:
    """Round the blade, from the plunge line at 0 to the tip at 1; the edge lies below."""
    t = np.linspace(0, 1, 50)
    half = knife.width / 2
    match knife.profile:
        case "drop":
            spine, edge = -half + 1.1 * half * t**3, half - 0.9 * half * t**2.6
        case "clip":
            drop = np.clip((t - 0.6) / 0.4, 0, 1)
            spine, edge = -half + 1.3 * half * drop**0.8, half - 0.7 * half * t**4
        case "sheep":
            spine, edge = -half + 1.9 * half * np.clip((t - 0.75) / 0.25, 0, 1) ** 2, 0 * t + half
        case "kitchen":
            spine, edge = -half + 0.4 * half * t**2, 1.5 * half - 2.1 * half * t**2.2
        case _:
            spine, edge = -half * (1 - t**2.5), half * (1 - t**2.5)
    upper = [(float(x), float(y)) for x, y in zip(t, spine, strict=True)]
    lower = [(float(x), float(y)) for x, y in zip(t, edge, strict=True)]
    return upper + lower[::-1]


def _ends(knife: Knife) -> Points:
    """The middle of the plunge line, past the guard, and of the tip."""
    round_it = _blade(knife)
    last = len(round_it) // 2
    at_plunge, at_tip = (round_it[0], round_it[-1]), round_it[last - 1 : last + 1]
    (start, middle), tip = (
        (pair[0][0], (pair[0][1] + pair[1][1]) / 2) for pair in (at_plunge, at_tip)
    )
    return [(start + (_GUARD_PAST if knife.has_guard else 0.0), middle), tip]


def _handle(knife: Knife, rng: np.random.Generator) -> Points:
    t = np.linspace(0, 1, 40)
    half = knife.width / 2 * float(rng.uniform(0.8, 1.15))
    wave = half * (1 + 0.12 * np.sin(2 * np.pi * t + rng.uniform(0, 6)) - 0.25 * t**8)
    long = float(rng.uniform(0.6, 0.95))
    upper = [(-long * float(x), -float(y)) for x, y in zip(t, wave, strict=True)]
    lower = [(-long * float(x), float(y)) for x, y in zip(t, wave, strict=True)]
    return upper + lower[::-1]


def _placed(points: Points, knife: Knife, at: tuple[float, float]) -> Points:
    """In picture pixels, turned about the middle of the whole knife."""
    angle = np.radians(knife.angle_deg)
    cos, sin = np.cos(angle), np.sin(angle)
    placed = []
    for x, y in points:
        along, across = (x - 0.1) * knife.blade_px, y * knife.blade_px
        placed.append((at[0] + along * cos - across * sin, at[1] + along * sin + across * cos))
    return placed


def _drawn(points: Points, size: tuple[int, int]) -> Array:
    """Shares of pixels inside, by drawing finer."""
    sheet = Image.new("L", (size[0] * _FINE, size[1] * _FINE), 0)
    ImageDraw.Draw(sheet).polygon([(x * _FINE, y * _FINE) for x, y in points], fill=255)
    fine = np.asarray(sheet, np.float32).reshape(size[1], _FINE, size[0], _FINE)
    return np.asarray(fine.mean(axis=(1, 3)) / 255, np.float32)


def _noise(rng: np.random.Generator, shape: tuple[int, int], size: tuple[float, float]) -> Array:
    """Of unit spread; coarse noise is made small and enlarged."""
    step = max(1, int(min(size) / 3))
    small = rng.normal(size=(-(-shape[0] // step), -(-shape[1] // step))).astype(np.float32)
    rough = ndimage.gaussian_filter(small, (size[0] / step, size[1] / step), mode="wrap")
    large = ndimage.zoom(rough, step, order=1)[: shape[0], : shape[1]]
    return np.asarray(large / (large.std() + 1e-9), np.float32)


def _surface(name: str, colour: tuple[float, float, float], rng, shape) -> Array:
    """A material of its own texture, (h, w, 3)."""
    texture = 1 + 0.04 * _noise(rng, shape, (1.2, 1.2))
    if name in GRAINED:
        texture += 0.14 * _noise(rng, shape, (2.0, 60.0)) + 0.08 * _noise(rng, shape, (8.0, 120.0))
    if name == "grey cloth":
        texture += 0.10 * _noise(rng, shape, (1.5, 1.5))
    if name == "stone":
        texture += 0.12 * _noise(rng, shape, (18.0, 22.0))
    return np.asarray(np.clip(texture, 0.2, None)[..., None] * np.float32(colour))


def _rust(knife: Knife, rng: np.random.Generator, blade: Array) -> Array:
    """Shares of rust in each pixel: blobs of smooth noise cut at the wanted share."""
    if knife.rusted <= 0:
        return np.zeros_like(blade)
    rough = _noise(rng, blade.shape, (5, 5)) + 0.6 * _noise(rng, blade.shape, (14, 14))
    limit = float(np.quantile(rough[blade > 0.5], 1 - knife.rusted))
    return np.asarray(np.clip((rough - limit) / 0.15 + 0.5, 0, 1) * blade, np.float32)


def take(knife: Knife) -> Taken:
    """Photograph a knife."""
    rng = np.random.default_rng(knife.seed)
    width, height = knife.size_px
    shape = (height, width)
    at = (width * float(rng.uniform(0.46, 0.52)), height * float(rng.uniform(0.46, 0.56)))
    blade = _drawn(_placed(_blade(knife), knife, at), knife.size_px)
    handle = np.zeros(shape, np.float32)
    if knife.has_handle:
        handle = _drawn(_placed(_handle(knife, rng), knife, at), knife.size_px) * (1 - blade)
    guard = np.zeros(shape, np.float32)
    if knife.has_guard:
        half = 0.72 * knife.width
        bar = [(-0.03, -half), (_GUARD_PAST, -half), (_GUARD_PAST, half), (-0.03, half)]
        guard = _drawn(_placed(bar, knife, at), knife.size_px)
        blade, handle = blade * (1 - guard), handle * (1 - guard)
    light = _surface(knife.ground, GROUNDS[knife.ground], rng, shape)
    whole = np.clip(blade + handle + guard, 0, 1)
    cast = ndimage.shift(ndimage.gaussian_filter(whole, 9), (7, 5), order=1)
    light = light * (1 - knife.shadow * cast)[..., None]
    light = _over(light, _surface(knife.handle, HANDLES[knife.handle], rng, shape), handle)
    light = _over(light, _surface("guard", (0.3, 0.29, 0.26), rng, shape), guard)
    light = _over(light, _steel(knife, rng, shape), blade)
    rust = _rust(knife, rng, blade)
    light = _over(light, _surface("rust", (0.17, 0.066, 0.018), rng, shape), rust)
    light, white_point = _with_card(light, rng)
    return Taken(
        _photographed(light, knife, rng),
        blade > 0.5,
        rust > 0.5,
        white_point,
        *_placed(_ends(knife), knife, at),
    )


def _over(below: Array, above: Array, share: Array) -> Array:
    return np.asarray(below * (1 - share[..., None]) + above * share[..., None])


def _steel(knife: Knife, rng: np.random.Generator, shape: tuple[int, int]) -> Array:
    """Satin lines and slow reflections of a room."""
    lines = 1 + 0.06 * _noise(rng, shape, (0.6, 20)) + 0.10 * _noise(rng, shape, (70, 90))
    return np.asarray(knife.steel * lines[..., None] * np.float32((1, 0.995, 0.985)))


def _with_card(light: Array, rng: np.random.Generator) -> tuple[Array, tuple[int, int]]:
    """A white card in a corner of the picture, off the knife."""
    height, width, _ = light.shape
    side = int(0.09 * height)
    x, y = int(0.03 * width + rng.uniform(0, 20)), int(0.04 * height + rng.uniform(0, 20))
    light[y : y + side, x : x + side] = 0.86
    return light, (x + side // 2, y + side // 2)


def _photographed(light: Array, knife: Knife, rng: np.random.Generator) -> NDArray[np.uint8]:
    """Uneven warm light, a lens that blurs, noise, codes and a JPEG."""
    height, width, _ = light.shape
    rows, columns = np.mgrid[-1 : 1 : height * 1j, -1 : 1 : width * 1j]
    turn = rng.uniform(0, 2 * np.pi)
    fall = 1 + knife.slope * (columns * np.cos(turn) + rows * np.sin(turn)) - 0.1 * columns**2
    cast = np.array([1 + 0.35 * knife.warmth, 1.0, 1 - 0.45 * knife.warmth])
    lit = np.clip(light * fall[..., None] * cast, 0, None).astype(np.float32)
    lit = ndimage.gaussian_filter(lit, (0.7, 0.7, 0))
    lit += rng.normal(size=lit.shape).astype(np.float32) * (0.003 + 0.012 * lit)
    lit = np.clip(lit, 0, 1)
    coded = np.where(lit <= 0.0031308, 12.92 * lit, 1.055 * lit ** (1 / 2.4) - 0.055)
    out = io.BytesIO()
    Image.fromarray(np.round(255 * coded).astype(np.uint8)).save(out, "JPEG", quality=88)
    return np.asarray(Image.open(out).convert("RGB"))


def usual(count: int, seed: int) -> list[Knife]:
    """Handles of three colours on four grounds, lying about level."""
    rng = np.random.default_rng(seed)
    grounds = ("paper", "grey cloth", "wooden table", "dark mat")
    handles = ("brown wood", "black", "tan")
    return [
        Knife(
            seed * 1000 + n,
            str(rng.choice(PROFILES)),
            handles[n % 3],
            grounds[n // 3 % 4],
            float(rng.uniform(-10, 10)) + 180 * float(rng.integers(2)),
            float(rng.uniform(0.15, 0.24)),
            float(rng.uniform(0.3, 0.5)),
            float(rng.choice([0, 0.02, 0.08, 0.2])),
            float(rng.uniform(0, 0.8)),
            float(rng.uniform(0, 0.25)),
            float(rng.uniform(0.1, 0.5)),
            bool(rng.random() < 0.3),
        )
        for n in range(count)
    ]


def harder(count: int, seed: int) -> list[Knife]:
    """Any angle, every handle and ground, steel of the ground's own tone and bare strips."""
    rng = np.random.default_rng(seed)
    return [
        replace(
            knife,
            handle=str(rng.choice(list(HANDLES))),
            ground=str(rng.choice(list(GROUNDS))),
            angle_deg=float(rng.uniform(0, 360)),
            steel=float(rng.uniform(0.15, 0.6)),
            blade_px=float(rng.uniform(330, 440)),
            slope=float(rng.uniform(0, 0.45)),
            has_handle=bool(rng.random() > 0.12),
        )
        for knife in usual(count, seed)
    ]
