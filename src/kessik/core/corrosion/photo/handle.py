"""Where a blade ends and its handle begins, on a thing that lies straightened along its axis."""

from dataclasses import dataclass, replace

import numpy as np
import scipy

from kessik.core.corrosion.photo.axes import Axis
from kessik.core.corrosion.photo.colour import Array, Doubles
from kessik.core.corrosion.photo.ground import Scene
from kessik.core.corrosion.photo.view import Bools

_LEANS_DEG = (-12.0, -6.0, 0.0, 6.0, 12.0)
"""Guards and plunge lines lean."""
_WINDOW_SHARE, _APART_SHARE = 0.05, 0.04
"""Of the thing's length: what is compared before and after a step, and how far steps lie apart."""
_MOST_CUTS, _LEAST_WEIGHT, _LEAST_PART_PX = 7, 0.05, 25
_SHORT, _LONG, _TAPERED = 0.3, 0.75, 1.2
"""Of the thing's length: blades with a handle are seldom shorter or longer."""
_NEUTRAL_U, _NEUTRAL_W = 2.2, 2.6
"""How far from grey steel may lie, in scaled tones."""
_DARK, _BRIGHT = np.log(0.05) / 0.25, np.log(1.3) / 0.25
_SEEN = 1e-6
_WEIGHTS = np.array([7.4, 2.1, 3.0, 1.8, 2.8, 4.1, -16.5, -9.1])
"""What each trait speaks for: it is the whole, the step, how unlike the rest it is, its steel, the
jump of its width, its taper, that it is short, that it is all but the whole. Fitted to generated
pictures of `benchmarks.outline_pictures` that no figure is given for.
"""


@dataclass(frozen=True)
class Straight:
    """A thing along its axis: `tones` of shape (rows across, places along, 3) and `inside` where
    the thing is; place 0 lies `start` pixels along the axis from its centre.
    """

    tones: Array
    inside: Bools
    start: float

    @property
    def long(self) -> int:
        return int(self.inside.shape[1])

    @property
    def widths(self) -> Doubles:
        return np.asarray(self.inside.sum(axis=0), float)

    def after(self, cut: "Parting") -> Bools:
        """Where the thing lies after a cut."""
        rows, places = np.indices(self.inside.shape)
        middle = self.inside.shape[0] // 2
        return np.asarray(places >= cut.along - self.start + cut.lean * (rows - middle))


@dataclass(frozen=True)
class Parting:
    """A step across a thing: how far `along` its axis, leaning by `lean` pixels along for each
    across, with its strength in scaled tones and how alike it is on all rows, 0 to 1.
    """

    along: float
    lean: float
    strength: float
    coherence: float

    @property
    def weight(self) -> float:
        return float(np.log1p(self.strength)) * self.coherence


@dataclass(frozen=True)
class WayToSee:
    """One way to see the blade: before or after a cut, or the whole thing where `cut` is None;
    `chance` beside the other ways.
    """

    cut: Parting | None
    is_after: bool
    traits: Doubles
    chance: float = 0.0


def straightened(scene: Scene, mask: Bools, axis: Axis) -> Straight:
    """The thing under a mask, turned so that its axis lies level."""
    y, x = np.nonzero(mask)
    along, across = axis.seen_from(x, y)
    places = np.arange(np.floor(along.min()), np.ceil(along.max()) + 1)
    half = np.ceil(np.abs(across).max()) + 1
    rows = np.arange(-half, half + 1)
    where = axis.places_at(places[None, :], rows[:, None])[::-1]
    tones = [
        scipy.ndimage.map_coordinates(scene.tones[..., n], where, order=1, mode="nearest")
        for n in range(3)
    ]
    inside = scipy.ndimage.map_coordinates(mask.astype(np.float32), where, order=1) > 0.5
    return Straight(np.stack(tones, -1), inside, float(places[0]))


def cuts_of(straight: Straight) -> list[Parting]:
    """The steps that run coherently across the thing, the strongest first."""
    best = _steps(straight)
    apart = max(2, int(_APART_SHARE * straight.long))
    found: list[Parting] = []
    while len(found) < _MOST_CUTS:
        place = int(np.argmax([cut.weight for cut in best]))
        if best[place].weight < _LEAST_WEIGHT:
            break
        found.append(best[place])
        for near in range(max(0, place - apart), min(straight.long, place + apart + 1)):
            best[near] = replace(best[near], coherence=0.0)
    return found


def cut_near(straight: Straight, along: float, reach: float) -> Parting:
    """The strongest step about a place along the axis, or a plain cut there where there is none."""
    steps = [cut for cut in _steps(straight) if abs(cut.along - along) < 2.5 * reach]
    plain = Parting(along, 0.0, 0.0, 0.0)

    def weight(cut: Parting) -> float:
        return cut.weight * float(np.exp(-(((cut.along - along) / reach) ** 2) / 2))

    best = max(steps, key=weight, default=plain)
    return best if weight(best) > _LEAST_WEIGHT else plain


def _steps(straight: Straight) -> list[Parting]:
    """The best step at each place along, over all leans."""
    core = scipy.ndimage.binary_erosion(straight.inside, np.ones((3, 1)))
    leans = [float(np.tan(np.radians(degrees))) for degrees in _LEANS_DEG]
    scans = [_scan(straight, core, lean) for lean in leans]
    weight = np.stack([np.log1p(strength) * coherence for strength, coherence in scans])
    found = []
    for place, best in enumerate(weight.argmax(axis=0)):
        strength, coherence = scans[best]
        along = straight.start + place
        found.append(Parting(along, leans[best], float(strength[place]), float(coherence[place])))
    return found


def _scan(straight: Straight, core: Bools, lean: float) -> tuple[Doubles, Doubles]:
    """Strength and coherence of the step at each place along, for one lean."""
    window = max(4, int(_WINDOW_SHARE * straight.long))
    shifts = np.round(lean * (np.arange(core.shape[0]) - core.shape[0] // 2)).astype(int)
    columns = np.arange(straight.long)[None, :] + shifts[:, None]
    held = np.clip(columns, 0, straight.long - 1)
    rows = np.arange(core.shape[0])[:, None]
    there = core[rows, held] & (columns == held)
    tones = straight.tones[rows, held] * there[..., None]
    counts = np.cumsum(np.pad(there, ((0, 0), (1, 0))), axis=1)
    sums = np.cumsum(np.pad(tones, ((0, 0), (1, 0), (0, 0))), axis=1)
    places = np.arange(straight.long)
    low, high = np.maximum(places - window, 0), np.minimum(places + window, straight.long)
    n_before, n_after = counts[:, places] - counts[:, low], counts[:, high] - counts[:, places]
    before = (sums[:, places] - sums[:, low]) / np.maximum(n_before, 1)[..., None]
    after = (sums[:, high] - sums[:, places]) / np.maximum(n_after, 1)[..., None]
    both = (np.minimum(n_before, n_after) >= window / 2).astype(float)
    step = (after - before) * both[..., None]
    rows_seen = both.sum(axis=0)
    mean = step.sum(axis=0) / np.maximum(rows_seen, 1)[:, None]
    square = (step**2).sum(axis=(0, 2)) / np.maximum(rows_seen, 1)
    strength = np.sqrt((mean**2).sum(-1))
    enough = rows_seen >= 0.4 * np.maximum(core.sum(axis=0), 1)
    coherence = np.where(enough, strength**2 / (square + _SEEN), 0)
    return strength, coherence


def ways_to_see(straight: Straight) -> list[WayToSee]:
    """Both sides of each cut, and the whole thing, with what tells a blade of each."""
    sides = [(cut, is_after) for cut in cuts_of(straight) for is_after in (True, False)]
    parts = [WayToSee(cut, is_after, _traits(straight, cut, is_after)) for cut, is_after in sides]
    return [*parts, WayToSee(None, True, _traits_of_whole(straight))]


def likeliest(straight: Straight) -> WayToSee:
    """The way to see the blade that its traits speak for most."""
    ways = ways_to_see(straight)
    weights = np.array([way.traits @ _WEIGHTS for way in ways])
    chances = np.exp(weights - weights.max())
    best = int(chances.argmax())
    return replace(ways[best], chance=float(chances[best] / chances.sum()))


def _traits_of_whole(straight: Straight) -> Doubles:
    steel = steel_like(straight.tones)[straight.inside].mean()
    return np.array([1, 0, 0, steel, 0, _taper(straight.widths, 0), 0, 0], float)


def _traits(straight: Straight, cut: Parting, is_after: bool) -> Doubles:
    after = straight.after(cut)
    part = straight.inside & (after if is_after else ~after)
    rest = straight.inside & ~part
    if min(part.sum(), rest.sum()) < _LEAST_PART_PX:
        return np.array([0, 0, 0, 0, 0, 0, 1, 1], float)
    place = int(cut.along - straight.start)
    widths = straight.widths if is_after else straight.widths[::-1]
    place = place if is_after else straight.long - place
    length = (straight.long - place) / straight.long
    steel = steel_like(straight.tones)
    return np.array([
        0,
        cut.weight,
        _unlike(straight.tones[part], straight.tones[rest]),
        steel[part].mean(),
        _jump(widths, place),
        _taper(widths, place),
        max(0.0, _SHORT - length),
        max(0.0, length - _LONG),
    ])  # fmt: skip


def steel_like(tones: Array) -> Bools:
    """Grey, and neither black nor burnt."""
    grey = (np.abs(tones[..., 1]) < _NEUTRAL_U) & (np.abs(tones[..., 2]) < _NEUTRAL_W)
    return np.asarray(grey & (tones[..., 0] > _DARK) & (tones[..., 0] < _BRIGHT))


def _unlike(one: Array, other: Array) -> float:
    """How far two sets of tones lie apart, over their spreads; held at 4."""
    gap = np.median(one, axis=0) - np.median(other, axis=0)
    spread = np.sqrt(_mad(one) ** 2 + _mad(other) ** 2) + 0.5
    return min(float(np.sqrt(((gap / spread) ** 2).sum())), 4.0)


def _mad(values: Array) -> Doubles:
    return np.asarray(1.4826 * np.median(np.abs(values - np.median(values, axis=0)), axis=0))


def _jump(widths: Doubles, place: int) -> float:
    window = max(3, int(_WINDOW_SHARE * len(widths)))
    before = widths[max(0, place - window) : place]
    after = widths[place : place + window]
    if not before.size or not after.size:
        return 0.0
    return min(abs(float(np.log((after.mean() + 1) / (before.mean() + 1)))), 1.0)


def _taper(widths: Doubles, place: int) -> float:
    """How much narrower the far end is than the middle of the part, in logs."""
    part = widths[place:]
    if len(part) < 8:
        return 0.0
    end = part[-max(2, len(part) // 20) :]
    return float(np.clip(np.log((np.median(part) + 1) / (end.mean() + 1)), -1, _TAPERED))
