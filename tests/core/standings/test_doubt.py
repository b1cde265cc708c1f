"""Trials that disagree, places, groups, and the next cut."""

from itertools import product

import numpy as np
import pytest
from benchmarks.seasons import SeasonKind, season

from kessik.core.standings.answer import standings
from kessik.core.standings.fit import fit_given
from kessik.core.standings.groups import groups_of
from kessik.core.standings.network import network_of
from kessik.core.standings.next_cut import CuttingWork, advise_pair, advise_top, bridges
from kessik.core.standings.records import LifeRecord
from kessik.core.standings.variances import Variances

LIVES = {"A": 100.0, "B": 130.0, "C": 160.0, "D": 200.0, "E": 105.0}


def answer(records, **options):
    return standings(records, np.random.default_rng(13).standard_normal, **options)


def made(off=None, trials=8, edges=4, arms="ABCDE"):
    """Trials of all arms, each with a level of its own; `off` is a factor by trial and arm."""
    rng = np.random.default_rng(21)
    level = np.exp(rng.normal(0, 0.3, trials))
    return [
        LifeRecord(f"T{t}", "", arm, "hand", life, life)
        for t, arm in product(range(trials), arms)
        for noise in rng.normal(0, 0.08, edges)
        for life in [float(LIVES[arm] * level[t] * (off or {}).get((t, arm), 1.0) * np.exp(noise))]
    ]


def test_a_blade_re_hardened_by_mistake_is_named_with_its_trial_and_tells_nothing_elsewhere():
    found = answer(made({(3, "B"): 0.6}))
    (cell,) = found.doubts.named
    assert (found.network.trials[cell.trial], found.network.arms[cell.arm]) == ("T3", "B")
    assert cell.factor == pytest.approx(0.6, rel=0.15)
    with_it = answer(made({(3, "B"): 0.6}), without_doubted=False)
    assert found.ratio("B", "A").ratio == pytest.approx(1.3, rel=0.05)
    assert with_it.ratio("B", "A").ratio < found.ratio("B", "A").ratio


def test_a_sound_season_names_nobody():
    assert answer(made()).doubts.named == ()


def test_of_two_blades_in_a_trial_either_may_be_off():
    rows = made(trials=6) + made({(0, "B"): 0.5}, trials=1, arms="AB")
    renamed = [
        LifeRecord("odd", "", r.arm, r.tester, r.lower, r.upper) if at >= 120 else r
        for at, r in enumerate(rows)
    ]
    (cell,) = answer(renamed).doubts.named
    names = {cell.arm, *cell.or_else}
    assert names == {0, 1}


def test_one_edge_alone_could_have_shown_nothing_and_more_could():
    few = answer(made(edges=1)).doubts.cells
    many = answer(made(edges=4)).doubts.cells
    assert np.median([c.could_find for c in few]) > np.median([c.could_find for c in many]) > 1.1


def test_places_hold_the_truth_and_say_what_is_tied():
    found = answer(made())
    order = sorted(LIVES, key=lambda arm: -LIVES[arm])
    for true, arm in enumerate(order, start=1):
        assert found.place(arm).best <= true <= found.place(arm).worst
    assert found.place("D").worst == 1
    assert found.place("A").best < found.place("A").worst  # beside E, 5 % apart


def test_the_answer_is_the_same_however_the_records_are_ordered():
    rows = made(trials=3)
    turned = answer(rows[::-1])
    there = answer(rows)
    for arm in "BCD":
        assert turned.ratio(arm, "A").ratio == pytest.approx(there.ratio(arm, "A").ratio, rel=1e-6)


def test_a_grade_has_the_spread_of_its_blades_and_names_the_one_that_is_low():
    found = answer(
        [
            LifeRecord(f"T{t}", "", f"{grade}{n}", "hand", life, life)
            for t, (grade, base) in product(range(3), {"X": 100.0, "Y": 150.0}.items())
            for n in range(6)
            for life in [base * (0.55 if (grade, n) == ("X", 5) else 1 + 0.01 * n + 0.005 * t)]
        ]
    )
    names = {arm: arm[0] for arm in found.network.arms}
    groups = groups_of(found, names, "X0")
    assert [group.name for group in groups.groups] == ["Y", "X"]
    assert groups.groups[1].lowest == pytest.approx(0.55, rel=0.05)
    assert groups.unlike.keys() == {"X5"}
    assert sum(groups.spread.shares().values()) == pytest.approx(1.0)


def test_the_next_cut_narrows_as_much_as_cutting_it_does():
    """Against the same network with those edges cut, all variances alike."""
    truth = season(SeasonKind(trials=12, arms=6, testers=1, stops=0.0, checks=0.0), 5)
    found = answer(truth.records)
    cut = advise_pair(found, CuttingWork(), "S-03", "S-05").cuts[0]
    assert {cut.a, cut.b} == {"S-03", "S-05"}
    more = [
        LifeRecord("next", "", arm, found.network.testers[0], 100.0, 100.0)
        for arm in (cut.a, cut.b)
        for _ in range(cut.edges)
    ]
    old = found.fit.variances
    sd = np.append(old.edge_sd, old.common_sd)
    df = np.append(old.edge_df, old.common_df)
    whole = Variances(sd, df, old.common_sd, old.common_df, old.tester_sd, old.tester_df)
    again = fit_given(network_of([*truth.records, *more]), whole)
    i, j = (again.design.network.arms.index(arm) for arm in ("S-03", "S-05"))
    covariance = again.arm_covariance()
    after = covariance[i, i] + covariance[j, j] - 2 * covariance[i, j]
    assert cut.factor_after == pytest.approx(np.exp(1.96 * np.sqrt(after)), rel=0.01)
    assert cut.factor_after < cut.factor_now


def test_the_top_is_settled_by_cutting_what_could_be_first():
    rows = made(trials=2, edges=1)
    advice = advise_top(answer(rows), CuttingWork())
    assert advice.cuts
    assert {"D"} & {advice.cuts[0].a, advice.cuts[0].b}


def test_the_cheapest_honest_answer_is_said_in_edges():
    found = answer(made(trials=1, edges=2))
    assert advise_pair(found, CuttingWork(), "A", "D").edges_to_order == 0
    assert advise_pair(found, CuttingWork(), "B", "E").edges_to_order == 2
    assert advise_pair(found, CuttingWork(), "A", "E").edges_to_order is None


def test_an_edge_that_takes_longer_to_dull_costs_more():
    found = answer(made(trials=4))
    number = found.network.arms.index
    slow = CuttingWork(counts={number("D"): 3000.0}, usual=30.0)
    there = {(c.a, c.b): c for c in advise_pair(found, slow, "A", "B").cuts}
    assert there["A", "B"].hours < min(c.hours for pair, c in there.items() if "D" in pair)


def test_an_island_is_joined_by_what_its_others_are_known_best_beside():
    island = [
        LifeRecord("I", "", arm, "hand", life, life)
        for arm, life in (("F", 90.0), ("G", 120.0), ("F", 95.0))
    ]
    found = answer([*made(trials=4), *island])
    (bridge,) = bridges(found)
    assert bridge.a in LIVES
    assert bridge.b in ("F", "G")
    assert bridge.factor_after > 1.0


def test_edges_that_scatter_wildly_do_not_make_a_sound_season_name_its_trials():
    kind = SeasonKind(trials=30, arms=12, heavy=3.0)
    named = [bool(answer(season(kind, seed).records).doubts.named) for seed in range(40, 80)]
    assert sum(named) <= 5


def test_a_blade_bounded_only_by_the_trial_that_is_off_is_told_as_a_bound_without_it():
    rows = made({(0, "B"): 0.4}, trials=1) + [
        LifeRecord(f"T{r.trial}", "", r.arm, r.tester, r.lower, None if r.arm == "B" else r.upper)
        for r in made(trials=6)
    ]
    found = answer(rows)
    (cell,) = found.doubts.named
    assert found.network.arms[cell.arm] == "B"
    ratio = found.ratio("B", "A")
    assert ratio.ratio is None
    assert ratio.low > 1.0
