"""Seasons of trials whose truth is known, written without the estimator that they judge."""

from dataclasses import dataclass

import numpy as np

from kessik.core.standings.records import LifeRecord


@dataclass(frozen=True)
class SeasonKind:
    """What a season is like: sizes, scatter, how lives are checked and when runs stop."""

    trials: int = 60
    arms: int = 24
    testers: int = 2
    guest_share: float = 0.5  # the share of trials that not the first tester cut
    tester_sd: float = 0.06
    field_sd: float = 0.35
    block_sd: float = 0.3
    edge_sd: tuple[float, float] = (0.05, 0.2)
    checks: float = 0.5  # the share of trials with pass and fail at steps of 10 to 25 %
    stops: float = 0.25  # the share of trials that stop at a dose
    islands: int = 1
    fault: float = 0.0  # the factor of one blade in one trial
    heavy: float = 0.0  # degrees of a t for the edges, 0 for normal ones


@dataclass(frozen=True)
class Season:
    """Records with what is true of them."""

    records: tuple[LifeRecord, ...]
    log_life: dict[str, float]
    tester_sd: float
    edge_sd: dict[str, float]
    island: dict[str, int]
    fault: tuple[str, str] | None


def season(kind: SeasonKind, seed: int) -> Season:
    """One season by its seed."""
    rng = np.random.default_rng(seed)
    names = [f"S-{number + 1:02}" for number in range(kind.arms)]
    life = dict(zip(names, rng.normal(0.0, kind.field_sd, kind.arms), strict=True))
    island = {name: number % kind.islands for number, name in enumerate(names)}
    off = {(n, t): rng.normal(0.0, kind.tester_sd) for n in names for t in range(kind.testers)}
    trials = [_lineup(rng, names, island, at % kind.islands) for at in range(kind.trials)]
    for name in sorted(set(names) - {name for lineup in trials for name in lineup}):
        own = [at for at in range(kind.trials) if at % kind.islands == island[name]]
        trials[own[int(rng.integers(len(own)))]].append(name)
    fault = _fault(rng, trials) if kind.fault else None
    records: list[LifeRecord] = []
    edge_sd = {}
    for at, lineup in enumerate(trials):
        trial = f"T{at + 1:03}"
        edge_sd[trial] = float(np.exp(rng.uniform(*np.log(kind.edge_sd))))
        shifts = {fault[1]: np.log(kind.fault)} if fault and fault[0] == trial else {}
        records += _trial(rng, kind, trial, lineup, life, off, edge_sd[trial], shifts)
    return Season(tuple(records), life, kind.tester_sd, edge_sd, island, fault)


def _lineup(rng, names, island, number):
    """Two references in most trials, and one to four others."""
    own = [name for name in names if island[name] == number]
    wanted = int(rng.integers(1, 5))
    references = [name for name in own[:2] if rng.random() < 0.7]
    others = [str(n) for n in rng.choice(own[2:], min(wanted, len(own) - 2), replace=False)]
    lineup = references + others
    return lineup if len(lineup) > 1 else [own[0], *lineup][:2]


def _fault(rng, trials):
    at = int(rng.integers(len(trials)))
    return f"T{at + 1:03}", str(rng.choice(trials[at]))


def _trial(rng, kind, trial, lineup, life, off, edge_sd, shifts):
    is_guest = kind.testers > 1 and rng.random() < kind.guest_share
    tester = int(rng.integers(1, kind.testers)) if is_guest else 0
    edges = int(rng.integers(1, 5))
    blocks = int(rng.integers(1, 3)) if edges > 1 else 1
    level = np.log(150.0) + rng.normal(0.0, kind.block_sd, blocks)
    step = rng.uniform(0.1, 0.25) if rng.random() < kind.checks else 0.0
    dose = np.inf
    if rng.random() < kind.stops:
        dose = np.log(150.0) + rng.uniform(0.0, 0.8)
    for name in lineup:
        for edge in range(edges):
            block = edge % blocks
            noise = rng.standard_t(kind.heavy) if kind.heavy else rng.normal()
            true = life[name] + off[name, tester] + level[block] + shifts.get(name, 0.0)
            lower, upper = _checked(true + edge_sd * noise, step, dose, rng)
            yield LifeRecord(trial, f"b{block}", name, f"tester {tester}", lower, upper)


def _checked(log_life, step, dose, rng):
    """The interval in which a life is known to lie."""
    if log_life > dose:
        return float(np.exp(dose)), None
    if not step:
        return float(np.exp(log_life)), float(np.exp(log_life))
    first = np.log(60.0) + step * rng.uniform()
    if log_life < first:
        return None, float(np.exp(first))
    at = np.floor((log_life - first) / step)
    return float(np.exp(first + at * step)), float(np.exp(min(first + (at + 1) * step, dose)))
