"""A gauge that was studied: what its scatter does to lives, to the next check and to figures."""

from dataclasses import replace

import numpy as np
import pytest
from benchmarks.population import LIMIT_GF, draw_bench, run_fixed
from hypothesis import given, settings
from hypothesis import strategies as st

from kessik.core.comparison.compared_facts import BladeFacts, shown_by_runs
from kessik.core.comparison.figures import measured
from kessik.core.errors import OutOfRangeError
from kessik.core.planning.expected import expected_run
from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import Method, force_limit_rope, with_scatter
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.protocols.unlike_methods import differences
from kessik.core.sharpening.strop_back import strop_back
from kessik.core.sharpness.life import Crossed, force_lives
from kessik.core.sharpness.posterior import scatter_prior
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from tests.conftest import series

EDGES = 60


def lives(scatter, studied):
    """Whether the interval holds the true life, and its width on the log scale, of many edges."""
    found = []
    for seed in range(EDGES):
        bench = draw_bench(7_000 + seed, (8, 60))
        bench = replace(bench, tester=SimulatedTester(scatter, 0.02))
        run = run_fixed(bench, 4)
        (life,) = force_lives(
            [series(*zip(run.counts, run.force_gf, strict=True))], "dull", LIMIT_GF, studied
        )
        known = life.life.found
        if isinstance(known, Crossed):
            held = known.low <= bench.edge.life <= known.high
            found.append((held, np.log(known.high / known.low)))
    return np.mean(found, axis=0)


def test_a_coarse_gauge_says_how_little_it_knows_and_a_fine_one_how_much():
    held, width = lives(0.14, None)
    held_by_study, wider = lives(0.14, 0.14)
    assert wider > 1.15 * width
    assert held_by_study >= max(held, 0.93)
    _, width = lives(0.03, None)
    held_by_study, narrower = lives(0.03, 0.03)
    assert narrower < 0.85 * width
    assert held_by_study >= 0.93


@settings(max_examples=25, deadline=None)
@given(st.floats(0.001, 0.5))
def test_any_gauge_gets_an_interval(studied):
    readings = [(n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25, 4)]
    (life,) = force_lives([series(*readings)], "dull", 400.0, studied)
    found = life.life.found
    assert 0 < found.low < found.estimate < found.high < np.inf
    assert scatter_prior(studied).sum() == pytest.approx(1)


def test_plans_figures_and_starts_follow_the_gauge():
    rope, dose = force_limit_rope(), BY_SCHOOL["fixed_dose"]
    for method in (rope, dose):
        fine, usual, coarse = (
            expected_run(with_scatter(method, percent), 30).log_sd for percent in (3, 7, 14)
        )
        assert fine < usual < coarse
        assert usual == expected_run(method, 30).log_sd
    run = series((0, 150.0), (20, 300.0), (20, 310.0))
    assert measured("end_gf", 305.0, run, with_scatter(dose, 14)).log_sd == pytest.approx(
        0.14 / 2**0.5
    )
    shown = shown_by_runs(BladeFacts("A"), [(150.0, 4)], [], force_scatter=0.14)
    assert shown.edges["start_gf"][0].readings == pytest.approx(1), "four such are one usual one"
    narrow, wide = (strop_back([150], [400], [200], 10, scatter) for scatter in (0.03, 0.14))
    assert wide.high - wide.low > 4 * (narrow.high - narrow.low)


def test_only_force_has_such_a_scatter_and_it_moves_no_edge():
    with pytest.raises(OutOfRangeError, match="of a force check only"):
        Method(checks=(CheckSpec("force"), CheckSpec("paper", scatter_percent=3.0)))
    with pytest.raises(OutOfRangeError, match="a reading scatter"):
        Method(checks=(CheckSpec("force", scatter_percent=0.0),))
    assert differences(Method(), with_scatter(Method(), 3)) == []
