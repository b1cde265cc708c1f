"""The virtual bench: true edges that only get duller and cross their limit at their life, and a
tester that wanders.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import KINDS, true_edge
from kessik.instruments.virtual_bench.virtual_blade import VirtualSteel, virtual_edge


@pytest.mark.parametrize("kind", KINDS)
@given(seed=st.integers(0, 10_000), life=st.floats(4, 500))
def test_a_true_edge_starts_sharp_crosses_at_its_life_and_never_recovers(kind, seed, life):
    edge = true_edge(kind, life, np.random.default_rng(seed))
    force = edge.force_gf(np.linspace(0, 1.6 * life, 200))
    assert force[0] == pytest.approx(150, abs=0.01)
    assert np.all(np.diff(force) >= -1e-6)
    just_before, just_after = edge.force_gf(np.array([life * (1 - 1e-9), life * (1 + 1e-9)]))
    assert just_before <= 400.0001
    assert just_after >= 399.9999


@given(seed=st.integers(0, 2**31))
def test_a_seed_is_an_edge(seed):
    one, again = (virtual_edge(seed, VirtualSteel("1.4034"), 400) for _ in range(2))
    cuts = np.linspace(0, 30, 7)
    assert np.array_equal(one.force_gf(cuts), again.force_gf(cuts))
    assert one.start_gf < 0.61 * 400


def test_grades_last_unlike_long_and_unknown_ones_last_something():
    lives = {
        grade: np.mean([virtual_edge(s, VirtualSteel(grade), 400).life for s in range(40)])
        for grade in ("1.4034", "1.3344", "")
    }
    assert lives["1.3344"] > 2 * lives["1.4034"]
    assert 10 < lives[""] < 40


def test_readings_scatter_as_stated_with_the_odd_bad_one():
    rng = np.random.default_rng(4)
    clean = [SimulatedTester(0.06, 0.0).read_gf(300, rng) for _ in range(4000)]
    assert np.std(np.log(clean)) == pytest.approx(0.06, rel=0.06)
    assert np.mean(np.log(clean)) == pytest.approx(np.log(300), abs=0.005)
    rough = [SimulatedTester(0.06, 0.08).read_gf(300, rng) for _ in range(4000)]
    assert np.mean(np.abs(np.log(rough) - np.log(300)) > 0.24) == pytest.approx(0.065, abs=0.03)


def test_hardness_and_angle_tell_in_life_and_in_how_an_edge_fails():
    def edges(hardness_hrc, side_angle_deg):
        return [
            virtual_edge(s, VirtualSteel("", hardness_hrc, side_angle_deg), 400) for s in range(200)
        ]

    soft, hard, thin = edges(54, 15), edges(65, 15), edges(65, 11)
    assert np.mean([e.life for e in hard]) > 1.4 * np.mean([e.life for e in soft])
    chipped = [
        np.mean([e.kind in ("sudden_end", "work_up") for e in some]) for some in (soft, hard, thin)
    ]
    assert chipped[0] < chipped[1] < chipped[2], "hard and thin edges chip"
    assert len({e.kind for e in hard}) > 3, (
        "the shape of decay differs from sharpening to sharpening"
    )
