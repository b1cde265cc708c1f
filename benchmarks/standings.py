"""Standings on seasons that nobody saw before: are the intervals, places and names right?

An oracle that knows every variance and every fault solves the same seasons beside them.
"""

import argparse
import os
import time
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field
from itertools import combinations

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import numpy as np

from benchmarks.seasons import Season, SeasonKind, season
from kessik.core.standings.answer import standings
from kessik.core.standings.board import ArmFacts, StandingsQuestion, board
from kessik.core.standings.comparable import TrialLife
from kessik.core.standings.doubt import cells_of
from kessik.core.standings.fit import fit_given
from kessik.core.standings.intervals import differences
from kessik.core.standings.network import network_of
from kessik.core.standings.shifts import shifts_of
from kessik.core.standings.variances import Variances

KINDS = {
    "30 trials, one tester": SeasonKind(trials=30, arms=12, testers=1),
    "60 trials": SeasonKind(),
    "60 trials, a guest in few": SeasonKind(guest_share=0.1),
    "20 trials, 10 blades": SeasonKind(trials=20, arms=10),
    "60 trials, heavy tails": SeasonKind(heavy=5.0),
    "60 trials, two islands": SeasonKind(islands=2),
    "200 trials, 60 blades": SeasonKind(trials=200, arms=60),
    "60 trials, one off by 1.5": SeasonKind(fault=1.5),
    "mostly open ends": SeasonKind(stops=0.9, trials=40, arms=20),
}


@dataclass
class Tally:
    """What came of seasons of a kind."""

    inside: list[bool] = field(default_factory=list)
    width: list[float] = field(default_factory=list)
    error: list[float] = field(default_factory=list)
    oracle_width: list[float] = field(default_factory=list)
    oracle_error: list[float] = field(default_factory=list)
    bounds: list[bool] = field(default_factory=list)
    unanswered: int = 0
    places: list[bool] = field(default_factory=list)
    place_width: list[float] = field(default_factory=list)
    named: list[bool] = field(default_factory=list)
    found: list[bool] = field(default_factory=list)
    oracle_found: list[bool] = field(default_factory=list)
    islands: list[bool] = field(default_factory=list)
    seconds: list[float] = field(default_factory=list)

    def add(self, other: "Tally") -> None:
        for name, value in vars(other).items():
            setattr(self, name, getattr(self, name) + value)


def one(task: tuple[SeasonKind, int]) -> Tally:
    kind, seed = task
    truth = season(kind, seed)
    tally = Tally()
    begun = time.perf_counter()
    found = standings(truth.records, np.random.default_rng(13).standard_normal)
    tally.seconds.append(time.perf_counter() - begun)
    arms = found.network.arms
    oracle = _oracle(truth)
    for (i, a), (j, b) in combinations(enumerate(arms), 2):
        _pair(tally, truth, found.ratio(a, b), oracle, (i, j))
    _places(tally, truth, found)
    trials = {found.network.trials[cell.trial] for cell in found.doubts.named}
    fault = {truth.fault[0]} if truth.fault else set()
    tally.named.append(bool(trials - fault))
    if truth.fault:
        tally.found.append(truth.fault[0] in trials)
        tally.oracle_found.append(_oracle_finds(truth))
    real = {frozenset(a for a in arms if truth.island[a] == n) for n in set(truth.island.values())}
    tally.islands.append(real == {frozenset(own) for own in found.network.islands()})
    return tally


def _pair(tally, truth, ratio, oracle, at):
    if ratio is None:
        return
    true = truth.log_life[ratio.a] - truth.log_life[ratio.b]
    if ratio.ratio is None:
        if ratio.low is not None:
            tally.bounds.append(np.log(ratio.low) <= true)
        if ratio.high is not None:
            tally.bounds.append(true <= np.log(ratio.high))
        tally.unanswered += bool(np.isfinite(oracle.log_ratio[at]))
        return
    tally.inside.append(bool(np.log(ratio.low) <= true <= np.log(ratio.high)))
    tally.width.append(np.log(ratio.high / ratio.low))
    tally.error.append((np.log(ratio.ratio) - true) ** 2)
    tally.oracle_width.append(2 * 1.96 * np.sqrt(oracle.variance[at]))
    tally.oracle_error.append((oracle.log_ratio[at] - true) ** 2)


def _places(tally, truth, found):
    all_right, widths = True, []
    for members in found.network.islands():
        order = sorted(members, key=lambda arm: -truth.log_life[arm])
        for true, arm in enumerate(order, start=1):
            place = found.place(arm)
            all_right &= place.best <= true <= place.worst
            widths.append((place.worst - place.best + 1) / len(order))
    tally.places.append(all_right)
    tally.place_width.append(float(np.mean(widths)))


def _known(truth, network):
    sd = np.array([truth.edge_sd[trial] for trial in network.trials])
    many = np.full(sd.size, 1e6)
    return Variances(sd, many, 0.1, 1e6, truth.tester_sd, 1e6)


def _oracle(truth: Season):
    network = network_of(truth.records)
    if truth.fault:
        trial, arm = truth.fault
        if trial in network.trials:
            off = (network.arms.index(arm), network.trials.index(trial))
            network = network.without([off])
    return differences(fit_given(network, _known(truth, network)))


def _oracle_finds(truth: Season) -> bool:
    network = network_of(truth.records)
    trial, arm = truth.fault
    if trial not in network.trials:
        return False
    cells = cells_of(shifts_of(fit_given(network, _known(truth, network))))
    arm_no, trial_no = network.arms.index(arm), network.trials.index(trial)
    own = [c for c in cells if c.trial == trial_no]
    two = len({r.arm for r in truth.records if r.trial == trial}) == 2
    return any((c.arm == arm_no or two) and c.p * len(cells) <= 0.05 for c in own)


def report(seasons: int = 40, first: int = 5000, workers: int = 2) -> None:
    """Print the gates for each kind of season."""
    print("Standings: pairs, places and names over seasons made by a generator of its own")
    print(
        f"{'seasons':28}{'pairs':>7}{'width':>7}{'error':>7}{'bounds':>8}{'unans.':>7}{'places':>8}"
        f"{'wide':>6}{'false':>7}{'found':>12}{'islands':>8}{'s':>6}"
    )
    everything = Tally()
    with ProcessPoolExecutor(workers) as pool:
        for name, kind in KINDS.items():
            total = Tally()
            for tally in pool.map(one, [(kind, first + n) for n in range(seasons)]):
                total.add(tally)
            _line(name, total)
            everything.add(total)
    _line("all", everything)
    for arms in (60, 300):
        _speed(arms)


def _speed(arms: int) -> None:
    """A board of some 2,000 runs in 200 trials beside plain least squares on the same runs."""
    truth = season(SeasonKind(trials=200, arms=arms), 77)
    lives: dict[str, list[TrialLife]] = {}
    for record in truth.records:
        own = TrialLife(
            record.arm, record.arm, record.arm, record.tester, record.block, record.edge,
            record.lower, record.upper, 0.0, "cuts",
        )  # fmt: skip
        lives.setdefault(record.trial, []).append(own)
    facts = {arm: ArmFacts(arm, arm, {"grade": arm[-1]}) for arm in truth.log_life}
    begun = time.perf_counter()
    board(lives, StandingsQuestion(agree=()), facts, np.random.default_rng(13).standard_normal)
    taken = time.perf_counter() - begun
    network = network_of(truth.records)
    columns = np.hstack(
        [np.eye(len(network.arms))[network.arm], np.eye(network.blocks)[network.block]]
    )
    middle = np.nan_to_num(0.5 * (network.log_lower + network.log_upper), posinf=5.0, neginf=4.0)
    begun = time.perf_counter()
    np.linalg.lstsq(columns, middle)
    plain = time.perf_counter() - begun
    print(
        f"  a board of {network.runs} runs of {arms} blades: {taken:.2f} s (wanted: < 20),"
        f" {taken / plain:.1f} x least squares on the same runs"
    )


def _line(name: str, t: Tally) -> None:
    found = f"{np.mean(t.found):.0%} of {np.mean(t.oracle_found):.0%}" if t.found else ""
    bounds = f"{np.mean(t.bounds):.1%}" if t.bounds else ""
    print(
        f"{name:28}{np.mean(t.inside):7.1%}{np.mean(t.width) / np.mean(t.oracle_width):7.2f}"
        f"{np.sqrt(np.mean(t.error) / np.mean(t.oracle_error)):7.2f}{bounds:>8}{t.unanswered:7}"
        f"{np.mean(t.places):8.0%}{np.mean(t.place_width):6.0%}{np.mean(t.named):7.0%}{found:>12}"
        f"{np.mean(t.islands):8.0%}{np.median(t.seconds):6.2f}",
        flush=True,
    )


if __name__ == "__main__":
    parser = argparse.ArgumentParser()
    parser.add_argument("--seasons", type=int, default=40)
    parser.add_argument("--first", type=int, default=5000)
    report(**vars(parser.parse_args()))
