"""Several testers in one network: the same blades, counted longer by one of them."""

from itertools import product

import numpy as np
import pytest

from kessik.core.standings import testers
from kessik.core.standings.answer import standings
from kessik.core.standings.records import LifeRecord

LIVES = {"A": 100.0, "B": 140.0}


def season(longer, trials=8):
    """Trials of two testers in turn; the second counts so many times as much."""
    rng = np.random.default_rng(4)
    return [
        LifeRecord(f"T{t}", "", arm, "hand", life, life)
        for t, arm, noise in product(range(trials), LIVES, rng.normal(0, 0.05, 3))
        for life in [
            float(LIVES[arm] * (longer if t % 2 else 1.0) * np.exp(noise + 0.02 * (t % 3)))
        ]
    ]


def found(longer=1.5, owners=None):
    records = season(longer)
    owners = owners or {f"T{t}": "mira" if t % 2 else "" for t in range(8)}

    def normals():
        return np.random.default_rng(13).standard_normal

    return testers.tester_standings(standings(records, normals()), records, owners, "A", normals())


def test_a_tester_who_counts_half_as_much_again_is_told_so_and_changes_no_ratio():
    first, second = found(1.5)
    assert (first.tester, second.tester) == ("", "mira")
    assert first.level is None
    assert second.level.low < 1.5 < second.level.high
    assert second.level.ratio == pytest.approx(1.5, rel=0.05)
    for each in (first, second):
        assert each.ratios["B"].ratio == pytest.approx(1.4, rel=0.06)
    assert (second.trials, second.runs) == (4, 24)


def test_one_tester_alone_is_put_beside_nobody():
    assert found(owners={f"T{t}": "" for t in range(8)}) == ()


def test_a_tester_who_never_cut_the_reference_has_places_and_no_ratios():
    records = [r for r in season(1.0) if r.trial != "T7" or r.arm == "B"]
    owners = {f"T{t}": "mira" if t == 7 else "" for t in range(8)}
    whole = standings(records, np.random.default_rng(1).standard_normal)
    told = testers.tester_standings(
        whole, records, owners, "A", np.random.default_rng(1).standard_normal
    )
    assert dict(told[1].ratios) == {}
    assert set(told[1].places) == {"B"}
