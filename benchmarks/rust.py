"""Rust measured in generated pictures: accuracy by finish and by trap beside a plain threshold in
the same run, the warnings of the hard cases, registration, speed and memory.
"""

import resource
import time
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from multiprocessing import get_context
from pathlib import Path
from tempfile import TemporaryDirectory

import numpy as np
from scipy import ndimage

from benchmarks.rust_pictures import FINISHES, ILLUMINANTS, TONES, TRAPS, Scene, take
from kessik.api.views.soaks import soak_out
from kessik.core.corrosion.methods import METHODS, STAGES
from kessik.core.corrosion.photo.area import Area
from kessik.core.corrosion.photo.registration import lay_over
from kessik.core.corrosion.soaks import Coupon, Look, Soak
from kessik.core.moments import Moment
from kessik.services.soaks.rust import read_masked
from kessik.services.soaks.sheets import soak_sheet
from kessik.store.database import Database
from kessik.store.queries import soaks

SHARES = (0, 0.0005, 0.002, 0.005, 0.01, 0.03, 0.08, 0.2, 0.4)
WEIGHTS = (0.12, 0.08, 0.1, 0.1, 0.15, 0.15, 0.15, 0.1, 0.05)
HARD = {
    "pits of 2 to 3 px": ({"spot_px": (2, 3)}, ("too_fine", "black")),
    "blackened steel": ({"steel": 0.05}, ("dark_steel",)),
    "black rust beside a logo": ({"black_spots": True, "traps": ("logo",)}, ("black",)),
    "straw against film": ({"traps": ("straw",)}, ("tint",)),
    "salt crust": ({"traps": ("salt",)}, ("salt",)),
}


@dataclass(frozen=True)
class Tried:
    """A scene, its true area, what was measured, and what a plain threshold says."""

    scene: Scene
    true: float
    area: Area
    plain: float


def population(count: int, seed: int, *, traps: bool) -> list[Scene]:
    rng = np.random.default_rng(seed)
    scenes = []
    for number in range(count):
        low = 6.0
        scenes.append(
            Scene(
                seed * 1000 + number,
                float(rng.choice(SHARES, p=WEIGHTS)),
                FINISHES[number % len(FINISHES)],
                ILLUMINANTS[int(rng.integers(len(ILLUMINANTS)))],
                (low, low * float(rng.uniform(2, 6))),
                tuple(rng.choice(list(TONES), int(rng.integers(1, 5)), replace=False)),
                tuple(rng.choice(TRAPS, int(rng.integers(1, 4)), replace=False)) if traps else (),
                float(rng.uniform(0, 0.8)),
                jpeg_quality=int(rng.choice([75, 88, 95])),
                steel=float(rng.uniform(0.25, 0.55)),
            )
        )
    return scenes


def plain_threshold(rgb):
    """Hue and saturation by a plain full-size threshold: the method used by hand."""
    from skimage.color import rgb2hsv

    hsv = rgb2hsv(rgb)
    return (hsv[..., 0] < 0.11) & (hsv[..., 1] > 0.35) & (hsv[..., 2] < 0.85)


def tried(scene: Scene) -> Tried:
    taken = take(scene)
    area = read_masked(taken.rgb, taken.mask, taken.white_point).area
    plain = 100 * float((plain_threshold(taken.rgb) & taken.mask).sum() / taken.mask.sum())
    return Tried(scene, taken.rust_percent, area, plain)


def line(name: str, found: Sequence[Tried]) -> None:
    true = np.array([t.true for t in found])
    best = np.array([np.nan if t.area.rust_percent is None else t.area.rust_percent for t in found])
    low, high = (np.array([getattr(t.area, end) for t in found]) for end in ("low", "high"))
    plain = np.array([t.plain for t in found])
    holds = 100 * np.mean((low <= true + 1e-9) & (true <= high + 1e-9))
    large, small, clean = true > 1, (true <= 1) & (true > 0), true == 0

    def share(values, part):
        return 100 * np.nanmean(np.abs(values[part] / true[part] - 1)) if part.any() else np.nan

    def points(values, part):
        return np.nanmean(np.abs(values[part] - true[part])) if part.any() else np.nan

    width = 100 * np.median((high - low)[large] / true[large]) if large.any() else np.nan
    under = 100 * np.mean(np.nan_to_num(best[clean]) < 0.1) if clean.any() else np.nan
    print(
        f"{name:18} {len(found):4}  holds {holds:3.0f} %  above 1 %: {share(best, large):5.1f} %"
        f" (plain {share(plain, large):4.0f} %)  below: {points(best, small):.3f}"
        f" (plain {points(plain, small):.2f}) points  clean under 0.1 %: {under:3.0f} %"
        f"  width {width:3.0f} %"
    )


def report(count: int) -> None:
    """All of it; `count` scenes without traps, twice as many with."""
    print(f"\nRust in generated pictures, {count} plain and {2 * count} with traps")
    with get_context("spawn").Pool(2) as pool:
        plain = pool.map(tried, population(count, 1, traps=False), chunksize=4)
        trapped = pool.map(tried, population(2 * count, 2, traps=True), chunksize=4)
        line("plain", plain)
        for finish in FINISHES:
            line(f"  {finish}", [t for t in plain if t.scene.finish == finish])
        line("traps", trapped)
        for finish in FINISHES:
            line(f"  {finish}", [t for t in trapped if t.scene.finish == finish])
        for trap in TRAPS:
            line(f"  {trap}", [t for t in trapped if trap in t.scene.traps])
        for light in ILLUMINANTS:
            line(f"  {light}", [t for t in [*plain, *trapped] if t.scene.illuminant == light])
        report_hard(pool, max(10, count // 3))
    report_registration(max(6, count // 8))
    report_opening()
    report_speed()


def report_hard(pool, count: int) -> None:
    print("hard cases: how often the warning stands")
    for name, (change, doubts) in HARD.items():
        scenes = [replace(s, rusted=max(s.rusted, 0.01), **change)
                  for s in population(count, 5, traps=False)]  # fmt: skip
        found = pool.map(tried, scenes, chunksize=2)
        said = np.mean([any(d in t.area.doubts for d in doubts) for t in found])
        print(f"  {name:26} {100 * said:3.0f} %")


def report_registration(count: int) -> None:
    """Error of a carried outline, px of a 1,500 px picture."""
    rng = np.random.default_rng(3)
    errors, seconds = [], []
    for scene in population(count, 9, traps=False):
        earlier = take(scene)
        later = take(replace(scene, rusted=1.5 * scene.rusted + 0.005, uneven=0.2)).rgb
        turn, shift = _moved(rng, later.shape)
        picture = _warped(later, turn, shift)
        began = time.perf_counter()
        laid = lay_over(earlier.rgb, earlier.mask, picture)
        seconds.append(time.perf_counter() - began)
        if laid is None:
            errors.append(np.inf)
            continue
        ys, xs = np.nonzero(earlier.mask)
        points = np.stack([xs, ys], 1)[:: max(1, len(xs) // 400)].astype(float)
        there = points @ np.array(laid.turn).T + laid.shift
        errors.append(float(np.hypot(*(there - points @ turn.T - shift).T).mean()))
    print(
        f"outline carried over: median error {np.median(errors):.2f} px, worst {max(errors):.2f},"
        f" {np.median(seconds):.2f} s"
    )


def _moved(rng, shape):
    angle, scale = np.radians(rng.uniform(-6, 6)), rng.uniform(0.94, 1.06)
    turn = scale * np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    middle = np.array([shape[1], shape[0]]) / 2
    return turn, middle + rng.uniform(-40, 40, 2) - turn @ middle


def _warped(rgb, turn, shift):
    back = np.linalg.inv(turn)
    offset = (-back @ shift)[::-1]
    planes = [
        ndimage.affine_transform(
            rgb[..., c].astype(np.float32), back[::-1, ::-1], offset, order=1, mode="nearest"
        )
        for c in range(3)
    ]
    return np.stack(planes, -1).astype(np.uint8)


def report_opening() -> None:
    """A soak of 8 blades, 10 looks, 2 sides and 4 stages, opened as the screen gets it."""

    begun = datetime(2026, 5, 4, 8, tzinfo=UTC)
    coupons = tuple(Coupon(f"coupon-{n}", f"AV-{n}") for n in range(8))
    method = replace(METHODS[0], hours=100, look_h=tuple(float(h) for h in range(10, 101, 10)))
    start = Moment(begun.isoformat())
    soak = Soak("soak", "Pack", "Which?", "steel", method, coupons, started=start)
    later = Moment((begun + timedelta(hours=200)).isoformat())
    with TemporaryDirectory() as folder:
        db = Database(Path(folder))
        with db.write() as session:
            soaks.save_soak(session, soak)
            for hours in method.look_h:
                at = Moment((begun + timedelta(hours=hours)).isoformat())
                for coupon in coupons:
                    for side in ("left", "right"):
                        for stage in STAGES:
                            look = Look(f"{coupon.id}{side}{stage}{hours}", coupon.id, side, stage,
                                        at, rust_percent=hours / 10, rust_low=hours / 11,
                                        rust_high=hours / 9)  # fmt: skip
                            soaks.save_look(session, soak.id, look, None, later.utc)
        soak_out(soak_sheet(db, soak.id, later)).model_dump_json()
        began = time.perf_counter()
        told = soak_out(soak_sheet(db, soak.id, later))
        told.model_dump_json()
        took = 1000 * (time.perf_counter() - began)
        db.close()
    print(f"a soak of {len(told.looks)} looks opened in {took:.0f} ms (wanted 300)")


def _large(kind: str, queue) -> None:
    """Seconds and peak MB of one way to read a 12-megapixel picture, in a process of its own."""
    rng = np.random.default_rng(1)
    height, width = 2730, 4400
    rgb = np.full((height, width, 3), 150, np.uint8)
    rgb[rng.random((height, width)) < 0.03] = (120, 60, 30)
    mask = np.zeros((height, width), bool)
    mask[600:2100, 400:4000] = True
    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    began = time.perf_counter()
    if kind == "plain":
        plain_threshold(rgb)
    else:
        read_masked(rgb, mask, None)
    seconds = time.perf_counter() - began
    queue.put((seconds, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024, before / 1024))


def report_speed() -> None:
    context = get_context("spawn")
    told = {}
    for kind in ("plain", "ours"):
        queue = context.SimpleQueue()
        process = context.Process(target=_large, args=(kind, queue))
        process.start()
        told[kind] = queue.get()
        process.join()
    (plain_s, plain_mb, _), (ours_s, ours_mb, _) = told["plain"], told["ours"]
    print(
        f"12 megapixels: {ours_s:.2f} s and {ours_mb:.0f} MB in all; plain threshold"
        f" {plain_s:.2f} s and {plain_mb:.0f} MB; ratio {ours_s / plain_s:.2f} (at most 1)"
    )
