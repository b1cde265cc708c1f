"""Playing a plan: virtual trials of exactly this plan on stated lives, judged as real ones are.

Edges are simulated once for each blade and dealt to the trials by lot: a trial takes other edges
than its neighbours, and no edge twice. Their lives scatter about the stated one in even steps of a
normal distribution, so that no blade is dealt a lucky lot.
"""

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from multiprocessing import get_context
from multiprocessing.pool import Pool

import numpy as np
import scipy

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import NotAllowedNowError
from kessik.core.planning.played import PlayedPair, played_pairs
from kessik.core.planning.rehearsal import rehearse
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.folding import check_of
from kessik.core.protocols.methods import Method, Stage, StopRule
from kessik.core.protocols.series import RunSeries
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import KINDS, true_edge
from kessik.services.bench.virtual_cutting import GIVES_UP_GF, TrueBlade

_PROCESSES = 2
_EDGES_ADAPTIVE, _EDGES_FIXED = 96, 320
"""How many edges are simulated in all, where the trials could take more: an adaptive run asks for
its next check a dozen times, a fixed one never."""
_TRIALS_AT_ONCE = 5
_START_GF, _START_SPREAD = 150.0, 0.05
_OUTLIER_SHARE = 0.01


@dataclass(frozen=True)
class PlaySpec:
    """What is played: a method, the stated life of each blade by its code, how many edges each,
    how many trials, and the scatter of edges and of readings as standard deviations of ln.
    """

    method: Method
    lives: Mapping[str, float]
    edges: int
    trials: int
    edge_spread: float
    reading_scatter: float
    seed: int


@dataclass(frozen=True)
class PlayedTrial:
    """One virtual trial: its runs, and what its verdict says of every pair."""

    number: int
    runs: tuple[RunSeries, ...]
    pairs: tuple[PlayedPair, ...]


Told = Callable[[int, int], None]


def playable_stage(method: Method) -> Stage:
    """The stage whose loss ends a run; NotAllowedNowError where virtual edges cannot show it."""
    stage = next((s for s in method.stages if s.name == method.end_stage), None)
    if stage is None or method.cycles or method.dose is not None:
        raise NotAllowedNowError(
            "only a method whose runs end at a limit, or with a lost ability, is played: the"
            " virtual edges have lives and nothing else",
            field="method",
        )
    unknown = [kind for kind in stage.kinds if kind != FORCE and kind not in GIVES_UP_GF]
    if unknown:
        raise NotAllowedNowError(
            f"the virtual bench does not know the check {unknown[0]}; choose a method with a check"
            " that is built in",
            field="method",
        )
    return stage


def play(spec: PlaySpec, told: Told) -> list[PlayedTrial]:
    """Play a plan in processes of its own; `told` hears how many pieces of work are done."""
    playable_stage(spec.method)
    own = _edges_a_blade(spec)
    edges = [(spec, code, place, own) for code in spec.lives for place in range(own)]
    of = len(edges) + spec.trials
    with get_context("spawn").Pool(_PROCESSES, initializer=_lower_priority) as pool:
        runs = _heard(pool.imap(_simulate, edges, chunksize=2), told, 0, of)
        dealt = list(_dealt(spec, own, runs))
        chunks = [dealt[i : i + _TRIALS_AT_ONCE] for i in range(0, len(dealt), _TRIALS_AT_ONCE)]
        return _judged(pool, spec, chunks, lambda done: told(len(edges) + done, of))


def _heard(results: Iterable[RunSeries], told: Told, before: int, of: int) -> list[RunSeries]:
    found = []
    for result in results:
        found.append(result)
        told(before + len(found), of)
    return found


def _judged(
    pool: Pool, spec: PlaySpec, chunks: Sequence[list[PlayedTrial]], told: Callable[[int], None]
) -> list[PlayedTrial]:
    found: list[PlayedTrial] = []
    for judged in pool.imap(_judge, [(spec, chunk) for chunk in chunks]):
        found.extend(judged)
        told(len(found))
    return found


def _lower_priority() -> None:
    """Whatever is tapped at the bench meanwhile comes first."""
    import os

    if hasattr(os, "nice"):
        os.nice(10)


def _edges_a_blade(spec: PlaySpec) -> int:
    most = _EDGES_ADAPTIVE if spec.method.schedule == "adaptive" else _EDGES_FIXED
    return max(spec.edges, min(spec.trials * spec.edges, most // len(spec.lives)))


def _dealt(spec: PlaySpec, own: int, runs: Sequence[RunSeries]) -> Iterable[PlayedTrial]:
    by_blade = {code: [run for run in runs if run.blade == code] for code in spec.lives}
    rng = np.random.default_rng([spec.seed, 1])
    for number in range(1, spec.trials + 1):
        taken = {code: rng.permutation(own)[: spec.edges] for code in spec.lives}
        yield PlayedTrial(
            number,
            tuple(
                replace(by_blade[code][place], edge=edge)
                for code, places in taken.items()
                for edge, place in enumerate(places, 1)
            ),
            (),
        )


def _simulate(task: tuple[PlaySpec, str, int, int]) -> RunSeries:
    spec, code, place, own = task
    rng = np.random.default_rng([spec.seed, 2, *code.encode(), place])
    step = float(scipy.special.ndtri((place + 0.5) / own))
    life = spec.lives[code] * float(np.exp(spec.edge_spread * step))
    stage = playable_stage(spec.method)
    limit_gf = stage.limit_gf or _gives_up_gf(stage)
    start_gf = _START_GF * float(np.exp(rng.normal(0.0, _START_SPREAD)))
    kind = str(rng.choice(list(KINDS)))
    edge = true_edge(kind, life, rng, start_gf=min(start_gf, 0.8 * limit_gf), limit_gf=limit_gf)
    blade = TrueBlade(edge, tester=SimulatedTester(spec.reading_scatter, _OUTLIER_SHARE))
    checks = rehearse(
        spec.method, lambda asked, count: check_of(blade.look(asked, count, None, rng), count)
    )
    unit = spec.method.count_unit
    return RunSeries(code, place + 1, 1, checks, unit, passes_noted=True)


def _gives_up_gf(stage: Stage) -> float:
    """The true force at which an edge loses an ability: the first check's, or the last one's where
    all of them have to fail.
    """
    each = [GIVES_UP_GF[kind] for kind in stage.kinds]
    return max(each) if stage.together == "all" else min(each)


def _judge(task: tuple[PlaySpec, list[PlayedTrial]]) -> list[PlayedTrial]:
    spec, trials = task
    stage = playable_stage(spec.method)
    method = replace(spec.method, stages=(stage,), ends=(StopRule("tester"),), schedule="every")
    found = []
    for trial in trials:
        analysis = analyse(trial.runs, {}, MatchingRule(), method)
        own = [c for c in analysis.comparisons if c.stage == stage.name]
        found.append(replace(trial, pairs=played_pairs(own, spec.lives)))
    return found
