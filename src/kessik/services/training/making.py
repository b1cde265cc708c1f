"""The rounds of the trainers, drawn from a seed on the virtual bench."""

import math
from collections.abc import Callable, Mapping
from functools import lru_cache

import numpy as np

from kessik.core.comparison.lives import BladeEdges, Measured, solve
from kessik.core.comparison.ratios import all_ratios
from kessik.core.comparison.variables import BY_NAME
from kessik.core.errors import OutOfRangeError
from kessik.core.sharpness.joint import life_masses, quantiles
from kessik.core.sharpness.posterior import ForceReadings, edge_likelihood
from kessik.core.spreads import Z_95
from kessik.core.training.rounds import (
    ROUNDS,
    CallRound,
    CountRound,
    ForeseeRound,
    RustRound,
    Tap,
    TrainerKind,
    TrainingRound,
    UnfairRound,
)
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.soaked_blade import SoakedSide, photograph, rusted_percent
from kessik.instruments.virtual_bench.true_decay import KINDS, true_edge
from kessik.services.training.steel_rounds import steel_round

INTERRUPTIONS = 6
"""How many different interruptions there are."""
_LIMIT_GF = 400.0
_FORESEE_TESTER = SimulatedTester(0.06, 0.02)
_RUST_PERCENT = (0.06, 45.0)
_RATIOS = (1.0, 1.0, 1.0, 1.15, 1.3, 1.5, 1.8)
_FAIR_SHARE = 0.2
# a usual value for each variable of a line-up, about which blades differ within the tolerance
_USUAL = {
    "side_angle_deg": 15.0,
    "thickness_behind_edge_mm": 0.38,
    "hardness_hrc": 60.0,
    "edge_length_mm": 96.0,
    "stock_mm": 3.0,
}


def make_round(kind: TrainerKind, seed: int, number: int) -> TrainingRound:
    """The round of this number (from 1) of a session; OutOfRangeError beyond the last."""
    if not 1 <= number <= ROUNDS:
        raise OutOfRangeError(f"a session has {ROUNDS} rounds: give 1 to {ROUNDS}", field="number")
    return _made(kind, seed, number)


@lru_cache(maxsize=4096)
def _made(kind: TrainerKind, seed: int, number: int) -> TrainingRound:
    rng = np.random.default_rng([seed, number, *kind.encode()])
    return _MAKERS[kind](rng)


def picture_of(asked: RustRound) -> bytes:
    """The picture of a rust round, a JPEG."""
    return photograph(SoakedSide(asked.picture_seed, asked.drawn_percent))


def _count_round(rng: np.random.Generator) -> CountRound:
    cuts = int(rng.integers(8, 17))
    at, taps = 1200.0, []
    interrupted = set(rng.choice(np.arange(2, cuts - 1), size=2, replace=False).tolist())
    spoiled = set(rng.choice(np.arange(1, cuts), size=int(rng.integers(0, 3))).tolist())
    for cut in range(cuts):
        if cut in interrupted:
            taps.append(Tap(int(at), "interruption", int(rng.integers(INTERRUPTIONS))))
            at += 600.0
        if cut in spoiled:
            taps.append(Tap(int(at), "spoiled"))
            at += float(rng.uniform(500, 900))
        taps.append(Tap(int(at), "cut"))
        at += float(rng.uniform(450, 1100))
    return CountRound(tuple(taps))


def _foresee_round(rng: np.random.Generator) -> ForeseeRound:
    life = float(np.exp(rng.uniform(math.log(12), math.log(60))))
    kind = str(rng.choice(list(KINDS)))
    edge = true_edge(kind, life, rng, start_gf=float(rng.uniform(130, 190)), limit_gf=_LIMIT_GF)
    upto = life * float(rng.uniform(0.45, 0.75))
    counts = np.unique(np.round(np.concatenate([[0.0, 1.0], np.geomspace(2, upto, 6)])))
    read = [(float(c), _FORESEE_TESTER.read_gf(float(edge.force_gf(c)[0]), rng)) for c in counts]
    later = np.linspace(0.0, 1.3 * life, 40)
    known = ForceReadings(counts, np.array([gf for _, gf in read]))
    likely = edge_likelihood(known, _LIMIT_GF, falls=False)
    (masses,) = life_masses([likely])
    low, middle, high = (float(q) for q in quantiles(likely.log_life, masses.mass, (0.1, 0.5, 0.9)))
    return ForeseeRound(
        tuple(read),
        tuple((float(c), float(gf)) for c, gf in zip(later, edge.force_gf(later), strict=True)),
        _LIMIT_GF,
        life,
        (low, middle, high),
    )


def _rust_round(rng: np.random.Generator) -> RustRound:
    low, high = _RUST_PERCENT
    wanted = float(np.exp(rng.uniform(math.log(low), math.log(high))))
    seed = int(rng.integers(2**31))
    return RustRound(seed, rusted_percent(SoakedSide(seed, wanted)), wanted)


def _call_round(rng: np.random.Generator) -> CallRound:
    ratio = float(rng.choice(_RATIOS))
    if rng.random() < 0.5:
        ratio = 1 / ratio
    edges = int(rng.integers(2, 5))
    spread, error = float(rng.uniform(0.04, 0.1)), float(rng.uniform(0.05, 0.1))
    life = float(rng.uniform(15, 60))
    lives, judged = {}, []
    for code, true in (("A", life), ("B", life * ratio)):
        found = np.log(true) + rng.normal(0, spread, edges) + rng.normal(0, error, edges)
        reach = Z_95 * error
        lives[code] = tuple(
            (float(np.exp(x - reach)), float(np.exp(x)), float(np.exp(x + reach))) for x in found
        )
        judged.append(BladeEdges(code, tuple((Measured(float(x), error),) for x in found)))
    (said,) = all_ratios(solve(judged))
    ends = (said.at_95.low, said.at_95.high)
    low, high = ends if said.a == "A" else (1 / ends[1], 1 / ends[0])
    return CallRound(lives, ratio, low, high)


def _unfair_round(rng: np.random.Generator) -> UnfairRound:
    blades = ("A", "B", "C")
    names = [str(name) for name in rng.permutation(list(_USUAL))]
    planted = None if rng.random() < _FAIR_SHARE else names[int(rng.integers(len(names)))]
    odd = int(rng.integers(len(blades)))
    values = {name: _values(rng, name, odd if name == planted else None) for name in names}
    return UnfairRound(blades, values, planted, blades[odd] if planted else "")


def _values(rng: np.random.Generator, name: str, odd: int | None) -> tuple[float, ...]:
    variable = BY_NAME[name]
    usual = _USUAL[name]
    allowed = variable.tolerance * (usual / 100 if variable.kind == "relative" else 1.0)
    found = usual + rng.uniform(-0.4, 0.4, 3) * allowed
    if odd is not None:
        found[odd] += allowed * float(rng.uniform(1.8, 3.5)) * float(rng.choice([-1.0, 1.0]))
    return tuple(round(float(value), variable.decimals + 1) for value in found)


_MAKERS: Mapping[TrainerKind, Callable[[np.random.Generator], TrainingRound]] = {
    "count": _count_round,
    "foresee": _foresee_round,
    "rust": _rust_round,
    "call": _call_round,
    "unfair": _unfair_round,
    "steel": steel_round,
}
