"""Where the blade is in a picture: proposed from it, or between two taps, for a hand to correct."""

from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import scipy

from kessik.core.corrosion.photo.axes import Axis, Point, axis_between, axis_of
from kessik.core.corrosion.photo.border import bordered, sides_of, snapped
from kessik.core.corrosion.photo.colour import LUMINANCE, Codes, Doubles
from kessik.core.corrosion.photo.ground import (
    Scene,
    above_ground,
    has_another,
    object_in,
    scene_of,
    told_apart,
)
from kessik.core.corrosion.photo.handle import (
    WayToSee,
    cut_near,
    likeliest,
    steel_like,
    straightened,
)
from kessik.core.corrosion.photo.view import Bools
from kessik.core.errors import OutOfRangeError

Outline = tuple[Point, ...]
"""Corners (x, y) in picture pixels."""
Unsure = Literal["which_part", "unsteady", "faint", "dark", "little_steel", "two_alike"]
"""Why a proposed outline asks for two taps; words for it are in `core.words`."""

_SEARCH_PX, _BORDER_PX = 400, 1200
_LEAST_PX, _LEAST_PLACES = 24, 3
_REACH_SHARE, _SEED_SHARE, _SEED_LONG, _PAST_SHARE = 1 / 3, 0.05, 0.85, 0.02
"""Of a blade's length: how far from its axis it can reach, what is surely steel, narrowing towards
the tip and as far along, and what lies past a tap.
"""
_BEFORE_SHARE, _TAP_SHARE = 0.12, 0.025
_ROUNDS = 4
_ROUGH_PX, _SNAP_PX = 1.7, 9
"""How far off a border may be, at search size and at border size."""
_LEAST_CHANCE, _LEAST_ALIKE, _MOST_FAINT = 0.5, 0.88, 0.25
_DARK, _LEAST_STEEL = 0.045, 0.3


@dataclass(frozen=True)
class Proposed:
    """Corners around a blade with both ends of its axis, and why a tester should tap them."""

    outline: Outline
    plunge: Point
    tip: Point
    unsure: tuple[Unsure, ...] = ()


@dataclass(frozen=True)
class _Found:
    """A blade at search size: its rough mask, its axis from plunge line to tip, and its lean."""

    scene: Scene
    mask: Bools
    axis: Axis
    lean: float


def propose_outline(rgb: Codes) -> Proposed | None:
    """Find the blade, without its handle; None where nothing long lies on the ground."""
    scene = scene_of(rgb, _SEARCH_PX)
    if min(scene.light.shape[:2]) < _LEAST_PX:
        return None
    whole = object_in(scene)
    if whole is None:
        return None
    best = likeliest(straightened(scene, whole, axis_of(whole)))
    found = _without_handle(scene, whole, axis_of(whole), best)
    finished = _finished(rgb, found)
    if finished is None:
        return None
    proposed, faint_share = finished
    again = _between(scene, proposed.plunge, proposed.tip)
    return replace(proposed, unsure=_why_unsure(found, best, faint_share, again))


def outline_between(rgb: Codes, plunge: Point, tip: Point) -> Outline:
    """Corners around the blade from its plunge line to its tip, both pressed in picture pixels.

    OutOfRangeError where no blade lies between the two.
    """
    found = _between(scene_of(rgb, _SEARCH_PX), plunge, tip)
    finished = None if found is None else _finished(rgb, found)
    if finished is None:
        raise OutOfRangeError(
            "no blade is found between these two points: press on the plunge line and on the tip",
            field="tip",
        )
    proposed, _ = finished
    return proposed.outline


def _without_handle(scene: Scene, whole: Bools, axis: Axis, best: WayToSee) -> _Found:
    """The part of a thing that is seen as the blade, its axis turned towards the tip."""
    turned = axis if best.is_after else axis.turned_round()
    if best.cut is None:
        return _from_plunge(scene, whole, turned, 0.0)
    along, across = _seen_from(scene, turned)
    start = best.cut.along if best.is_after else -best.cut.along
    mask = whole & (along - best.cut.lean * across >= start)
    return _from_plunge(scene, mask, turned, best.cut.lean)


def _between(scene: Scene, plunge: Point, tip: Point) -> _Found | None:
    """What lies between two taps, in picture pixels, cut at the strongest step near the first."""
    axis = axis_between(*((x / scene.step, y / scene.step) for x, y in (plunge, tip)))
    length = axis.half_length
    if length < _LEAST_PX / 2:
        return None
    along, across = _seen_from(scene, axis)
    off = np.hypot(across, np.clip(np.maximum(-along, along - length), 0, None))
    apart = above_ground(scene.tones)
    reach = (off < _REACH_SHARE * length) & (along < (1 + _PAST_SHARE) * length)
    near = reach & (along > -_BEFORE_SHARE * length)
    narrowing = _SEED_SHARE * (length - along)
    seed = (np.abs(across) < narrowing) & (along > 0) & (along < _SEED_LONG * length)
    found = seed
    for _ in range(_ROUNDS):
        found = _touching(told_apart(apart, found, ~reach) & near, seed)
    beside = (along > 0) & (along < _BEFORE_SHARE * length) & found
    half = float(np.abs(across[beside]).mean()) if beside.any() else 2.0
    strip = (np.abs(across) < 1.4 * half) & (np.abs(along) < _BEFORE_SHARE * length)
    cut = cut_near(straightened(scene, strip, axis), 0.0, _TAP_SHARE * length)
    mask = found & (along - cut.lean * across >= cut.along)
    return _from_plunge(scene, mask, axis, cut.lean) if mask.sum() >= _LEAST_PX else None


def _touching(found: Bools, seed: Bools) -> Bools:
    """The parts of a mask that touch a seed, closed and without holes."""
    closed = scipy.ndimage.binary_closing(found, iterations=2)
    labels, _ = scipy.ndimage.label(closed)
    kept = np.isin(labels, np.unique(labels[seed & closed]))
    return np.asarray(scipy.ndimage.binary_fill_holes(kept))


def _seen_from(scene: Scene, axis: Axis) -> tuple[Doubles, Doubles]:
    y, x = np.indices(scene.light.shape[:2], float)
    return axis.seen_from(x, y)


def _from_plunge(scene: Scene, mask: Bools, axis: Axis, lean: float) -> _Found:
    """The same axis direction, from the middle of the plunge line to the middle of the far end."""
    y, x = np.nonzero(mask)
    straight, across = axis.seen_from(x, y)
    along = straight - lean * across
    length = along.max() - along.min()
    ends = []
    for near in (along < along.min() + 0.06 * length, along > along.max() - 0.02 * length):
        ends.append(float(across[near].mean()))
    plunge = axis.at(along.min() + lean * ends[0], ends[0])
    tip = axis.at(along.max() + lean * ends[1], ends[1])
    return _Found(scene, mask, axis_between(plunge, tip), lean)


def _finished(rgb: Codes, found: _Found) -> tuple[Proposed, float] | None:
    """The blade at border size in picture pixels, and how much of its border is faint; None where
    too little of it is left to go round.
    """
    fine = scene_of(rgb, _BORDER_PX)
    times = found.scene.step / fine.step
    axis = found.axis.times(times)
    rough = _enlarged(found.mask, fine)
    along, across = _seen_from(fine, axis)
    blade = bordered(fine, rough, round(_ROUGH_PX * times) + 1)
    mask = blade.mask & (along - found.lean * across >= -0.5)
    sides = snapped(fine, sides_of(mask if mask.any() else rough, axis, found.lean), _SNAP_PX)
    if len(sides.along) < _LEAST_PLACES:
        return None

    def in_picture(point: Point) -> Point:
        return (point[0] + 0.5) * fine.step, (point[1] + 0.5) * fine.step

    plunge, tip = in_picture(axis.centre), in_picture(axis.at(axis.half_length))
    proposed = Proposed(tuple(map(in_picture, sides.corners)), plunge, tip)
    return proposed, blade.faint_share


def _enlarged(mask: Bools, fine: Scene) -> Bools:
    rows, columns = (
        np.minimum(np.arange(size) * mask.shape[n] // size, mask.shape[n] - 1)
        for n, size in enumerate(fine.light.shape[:2])
    )
    return np.asarray(mask[rows][:, columns])


def _why_unsure(
    found: _Found, best: WayToSee, faint_share: float, again: _Found | None
) -> tuple[Unsure, ...]:
    """What speaks against a proposal; found anew from its own ends it should be the same."""
    light = found.scene.light[found.mask] @ LUMINANCE
    steel = steel_like(found.scene.tones)[found.mask].mean()
    said: list[tuple[Unsure, bool]] = [
        ("which_part", best.chance < _LEAST_CHANCE),
        ("unsteady", again is None or likeness(found.mask, again.mask) < _LEAST_ALIKE),
        ("faint", faint_share > _MOST_FAINT),
        ("dark", float(np.median(light)) < _DARK),
        ("little_steel", float(steel) < _LEAST_STEEL),
        ("two_alike", has_another(found.scene, found.mask)),
    ]
    return tuple(reason for reason, is_so in said if is_so)


def likeness(one: Bools, other: Bools) -> float:
    """What two masks share, of what either holds, 0 to 1."""
    return float((one & other).sum() / max((one | other).sum(), 1))
