"""Played plans: a rehearsed run is the run of the bench, the tallies are the verdicts', and a plan
finds as often as it promises.
"""

from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
import pytest

from kessik.core.moments import Moment
from kessik.core.planning.expected import expected_run
from kessik.core.planning.played import tally
from kessik.core.planning.power import power_of
from kessik.core.planning.rehearsal import rehearse
from kessik.core.protocols.folding import check_of
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Trial
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import true_edge
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import start_run
from kessik.services.bench.virtual_cutting import TrueBlade, VirtualHand, cut_run
from kessik.services.practice import playing
from kessik.services.practice.playing import PlaySpec, play
from kessik.services.shelf.blades import make_blade
from kessik.services.trials.trials import make_trial, take_from_shelf

NOW = Moment("2026-05-04T08:00:00.000+00:00", 0)
EXACT = SimulatedTester(scatter=1e-9, outlier_share=0.0)


@pytest.fixture
def here(monkeypatch):
    """What processes of their own do is done in this one: their start would take the time."""

    class Here:
        Pool = lambda *_, **__: Here()  # noqa: E731 - stands for a class
        imap = staticmethod(lambda work, tasks, **_: map(work, tasks))

        def __enter__(self):
            return self

        def __exit__(self, *_):
            return None

    monkeypatch.setattr(playing, "get_context", lambda _: Here())
    monkeypatch.setattr(playing, "_EDGES_FIXED", 75)


@pytest.mark.parametrize("school", ["force_limit_rope", "paper_stop_rope", "push_cut_board"])
def test_a_rehearsed_run_makes_the_checks_that_the_bench_asks_for(database, school):
    method = BY_SCHOOL[school]
    bench, rng = Bench(database), np.random.default_rng(4)
    blade = TrueBlade(true_edge("wear_power", 22.0, rng), tester=EXACT)
    trial = make_trial(database, Trial("trial-0001", "One run", NOW, method=method))
    edge = Edge("edge-0001", "blade-0001", 3)
    make_blade(database, Blade("blade-0001", "A", edges=(edge,)))
    take_from_shelf(database, trial.id, "blade-0001", "")
    start_run(bench, Run("run-00001", trial.id, edge.id, 1, NOW))
    hand = VirtualHand("hand", datetime(2026, 5, 4, 8, tzinfo=UTC), lambda n: f"event-{n:04}")
    cut = cut_run(bench, "run-00001", blade, np.random.default_rng(1), hand)
    again = np.random.default_rng(1)
    rehearsed = rehearse(
        method, lambda kind, count: check_of(blade.look(kind, count, None, again), count)
    )
    seen = [(c.kind, c.count, c.force_gf, c.outcome) for c in cut.worked_checks]
    assert seen == [(c.kind, c.count, c.force_gf, c.outcome) for c in rehearsed]


def test_a_played_plan_finds_as_often_as_the_plan_expects_and_names_no_equal_blade(here):
    """By fixed checks, whose runs are quick; the plan's power against what verdicts say."""
    school = BY_SCHOOL["force_limit_rope"]
    ends = tuple(replace(rule, confirm="same_count") for rule in school.ends)
    method = replace(school, schedule="every", every=4.0, ends=ends)
    lives = {"A": 20.0, "B": 20.0, "C": 25.0}
    told = []
    played = play(
        PlaySpec(method, lives, 3, 60, 0.05, 0.07, 5), lambda done, of: told.append((done, of))
    )
    assert told[-1][0] == told[-1][1]
    pairs = {f"{p.a}{p.b}": p for p in tally([trial.pairs for trial in played], lives)}
    assert pairs["AB"].wrong <= 3
    assert pairs["AC"].wrong == pairs["BC"].wrong == 0
    found = (pairs["AC"].right + pairs["BC"].right) / 120
    error = float(np.mean([expected_run(method, life).log_sd for life in lives.values()]))
    assert found == pytest.approx(power_of(1.25, 3, error, 3, None, 0.05), abs=0.2)


def test_a_trial_takes_no_edge_twice_and_a_seed_is_a_game(here):
    spec = PlaySpec(BY_SCHOOL["paper_stop_rope"], {"A": 40.0, "B": 60.0}, 3, 10, 0.1, 0.07, 1)
    first, again = (play(spec, lambda *_: None) for _ in range(2))
    assert first == again
    assert play(replace(spec, seed=2), lambda *_: None) != first
    for trial in first:
        assert len({(run.blade, run.checks) for run in trial.runs}) > 4
        assert sorted(run.edge for run in trial.runs) == [1, 1, 2, 2, 3, 3]
