"""The proposed outline of a blade in generated pictures: how often it is right, how often it asks,
what it costs in rust where it does not ask, and how often two presses settle it.
"""

import time
from collections.abc import Sequence
from dataclasses import dataclass
from multiprocessing import get_context

import numpy as np

from benchmarks.outline_pictures import Knife, harder, take, usual
from kessik.core.corrosion.photo.outline import (
    Outline,
    likeness,
    outline_between,
    propose_outline,
)
from kessik.interchange.masks import mask_of_outlines
from kessik.services.soaks.rust import read_masked

PRESSED_SHARE = 0.01
"""How far off a tester presses, of the blade's length."""


@dataclass(frozen=True)
class Tried:
    """What a proposal and two presses shared with the true outline; rust off in points."""

    likeness: float
    asks: bool
    rust_off: float
    between: float
    seconds: float


def tried(knife: Knife) -> Tried:
    taken = take(knife)
    size = taken.rgb.shape[1::-1]
    began = time.perf_counter()
    proposed = propose_outline(taken.rgb)
    seconds = time.perf_counter() - began
    rng = np.random.default_rng(knife.seed)
    off = PRESSED_SHARE * knife.blade_px
    ends = [(x + rng.normal(0, off), y + rng.normal(0, off)) for x, y in (taken.plunge, taken.tip)]

    def shared(outline: Outline) -> float:
        return likeness(mask_of_outlines([outline], size), taken.mask)

    between = shared(outline_between(taken.rgb, *ends))
    if proposed is None:
        return Tried(0, True, 0, between, seconds)
    asks = bool(proposed.unsure)
    rust_off = 0.0 if asks else _rust_off(taken, mask_of_outlines([proposed.outline], size))
    return Tried(shared(proposed.outline), asks, rust_off, between, seconds)


def _rust_off(taken, mask) -> float:
    true = 100 * float((taken.rust & taken.mask).sum() / taken.mask.sum())
    area = read_masked(taken.rgb, mask, taken.white_point).area
    return 0.0 if area.rust_percent is None else abs(area.rust_percent - true)


def line(name: str, found: Sequence[Tried]) -> None:
    shares = np.array([t.likeness for t in found])
    between = np.array([t.between for t in found])
    asks = np.array([t.asks for t in found])

    def percent(of) -> str:
        return f"{100 * np.mean(of):3.0f} %"

    print(
        f"{name:24} {len(found):3}  right (0.95) {percent(shares >= 0.95)}  asks {percent(asks)}"
        f"  right or asks {percent((shares >= 0.95) | asks)}"
        f"  unasked above 0.90 {percent(shares[~asks] >= 0.9)}"
        f"  rust off unasked: worst {max(t.rust_off for t in found):.1f} points"
        f"  two presses above 0.95 {percent(between >= 0.95)}, 0.90 {percent(between >= 0.9)}"
        f"  {np.median([t.seconds for t in found]):.1f} s"
    )


def report(count: int) -> None:
    print(f"\nOutline of the blade, {count} usual and {count} harder pictures")
    with get_context("spawn").Pool(2) as pool:
        line("handles on four grounds", pool.map(tried, usual(count, 21), chunksize=4))
        line("any angle, any handle", pool.map(tried, harder(count, 22), chunksize=4))
