"""What runs end with besides lives: doses with a control, card depths, effort by layers; blades
compared by them.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.efforts import effort_table
from kessik.core.comparison.figures import run_figures
from kessik.core.comparison.lot_factor import lot_factors
from kessik.core.comparison.matching import MatchingRule
from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import Method, StopRule
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.words.dose import dose_words
from kessik.core.words.figures import figure_words, figures_words
from kessik.core.words.notes import lot_factor_words
from kessik.core.words.verdict import headline
from tests.conftest import series

DOSE, CARD, LAYERS = (BY_SCHOOL[name] for name in ("fixed_dose", "machine_card", "geometry_layers"))
RULE = MatchingRule()


def dosed(blade, start, end, *, edge=1, control=(), dose=50.0):
    checks = [Check(0.0, "force", gf, position_mm=30.0) for gf in start]
    checks += [Check(dose, "force", gf, position_mm=30.0) for gf in end]
    checks += [Check(dose, "force", gf, position_mm=90.0) for gf in control]
    return RunSeries(blade, edge, 1, tuple(checks), worked_mm=(12.0, 76.0))


def card(blade, depths, edge=1):
    return RunSeries(
        blade, edge, 1, tuple(Check(n, "depth", value=d) for n, d in enumerate(depths, 1)), "cycles"
    )


def felt(blade, efforts, edge=1):
    return RunSeries(
        blade, edge, 1, tuple(Check(n, "effort", value=e) for n, e in efforts.items()), "layers"
    )


def test_a_dose_shows_the_change_and_its_per_cent_and_the_control_beside_the_zone():
    # page 01: a rise from 150 to 270 gf is +80 %, no doubling; 240 to 330 gf is +37.5 % and the
    # duller edge
    figures = run_figures(dosed("A", [150], [270], control=[152]), DOSE)
    assert figures == pytest.approx(
        {"end_gf": 270, "change_gf": 120, "change_percent": 80, "control_gf": 152}
    )
    other = run_figures(dosed("B", [240], [330]), DOSE)
    assert other["change_percent"] == pytest.approx(37.5)
    assert other["end_gf"] > figures["end_gf"], "fewer per cent lost, and yet the duller edge"


def test_a_dose_that_was_not_finished_has_no_end():
    assert run_figures(dosed("A", [150], [270], dose=49.0), DOSE) == {}
    assert run_figures(dosed("A", [150], []), DOSE) == {}


def test_card_depths_are_summed_over_three_cycles_and_over_all():
    # ISO 8442-5: initial cutting performance is the sum over the first 3 cycles, retention over 60
    # (from memory)
    depths = [10.0, 9.0, 8.0, *([5.0] * 57)]
    figures = run_figures(card("A", depths), CARD)
    assert figures == {"initial_cutting_mm": 27.0, "edge_retention_mm": 27.0 + 57 * 5.0}
    assert "initial_cutting_mm" not in run_figures(card("A", [10.0, 9.0]), CARD)


@given(st.lists(st.floats(0.1, 50), min_size=60, max_size=60), st.floats(1.1, 3))
def test_a_card_that_is_cut_deeper_at_every_cycle_is_never_said_to_be_cut_less(depths, better):
    found = analyse([card("A", depths), card("B", [d * better for d in depths])], {}, RULE, CARD)
    assert {c.stage for c in found.figure_comparisons} == {
        "initial_cutting_mm",
        "edge_retention_mm",
    }
    for pair in found.figure_comparisons:
        assert pair.ratio == pytest.approx(better, rel=0.02)
        assert pair.verdict != "shorter"


def test_blades_separate_where_a_step_of_effort_lies_between_them_and_no_repeat_reaches_across():
    thick, thin = felt("A", {1: 2, 2: 4, 4: 7, 6: 9}), felt("B", {1: 2, 2: 3.5, 4: 4.5, 6: 5})
    assert effort_table([thick, thin]).separates_at == 4
    again = felt("B", {1: 2, 2: 3, 4: 6.5, 6: 5}, edge=2)
    assert effort_table([thick, thin, again]).separates_at == 6, (
        "at 4 layers a repeat of B came within a step of A"
    )
    assert effort_table([thick]).separates_at is None
    lapse = felt("B", {1: 2, 2: 3.5, 4: 4.5, 6: 9})
    assert effort_table([thick, lapse]).separates_at is None, "apart at 4 layers, and not after"
    ranks = [
        RunSeries(b, 1, 1, tuple(Check(n, "rank", value=r) for n, r in at.items()), "layers")
        for b, at in (("A", {2: 3, 4: 3}), ("B", {2: 1, 4: 1}), ("C", {2: 1.5, 4: 1.5}))
    ]
    assert effort_table(ranks).groups == (("B", "C"), ("A",))
    assert effort_table([series((0, 150))]) is None


def test_a_run_that_is_not_over_is_compared_on_the_layers_that_both_did():
    # A did all: 2, 3, 6, 8 (mean 4.75). B stopped after 4 layers: 3, 4, 7 (mean 4.67, and a step
    # above A at each layer that both did). C did only 8 layers, which nobody else did.
    a, b = felt("A", {1: 2, 2: 3, 4: 6, 6: 8}), felt("B", {1: 3, 2: 4, 4: 7})
    found = effort_table([b, a])
    assert found.groups == (("A",), ("B",))
    assert found.missing == {"B": (6.0,)}
    assert effort_table([a, b, felt("C", {8: 1})]).alone == ("C",)
    geometry = BY_SCHOOL["geometry_layers"]
    said = headline(analyse([a, b], {}, MatchingRule("geometry"), geometry), "")
    assert said == (
        "Least effort first: A, then B; they can be told apart from 1 layer on. B did not do 6"
        " layers, and"
        " is compared on those it did."
    )


def test_the_answer_names_who_ends_duller_with_its_base_and_is_careful_with_one_reading():
    runs = [dosed("A", [150] * 6, [260] * 6), dosed("B", [150] * 6, [390] * 6)]
    (pair,) = analyse(runs, {}, RULE, DOSE).figure_comparisons
    assert figure_words(pair).startswith("B ends duller than A by 50 %, ")
    few = [dosed("A", [150], [260]), dosed("B", [150], [300])]
    (unsure,) = analyse(few, {}, RULE, DOSE).figure_comparisons
    assert unsure.verdict == "not_enough_evidence"
    assert "cannot be told apart yet by reading after the dose" in figure_words(unsure)
    assert headline(analyse(runs[:1], {}, RULE, DOSE), "").startswith(
        "A alone, reading after the dose"
    )


def test_figures_carry_their_sign_and_unit():
    said = figures_words({"end_gf": 269.7, "change_percent": 79.8, "initial_cutting_mm": 27.04})
    assert said == [
        "reading after the dose: 270 gf",
        "change on its own start: +80 %",
        "depth in the first 3 cycles: 27.0 mm",
    ]


def test_intervals_of_end_readings_hold_the_truth_as_often_as_they_say():
    # the model of section 5 with its own prior spread and 7 % reading scatter, three readings each,
    # two edges a blade
    rng = np.random.default_rng(11)
    held, trials = 0, 160
    for _ in range(trials):
        spread = np.exp(rng.normal(np.log(0.0424), 0.53))
        runs = []
        for blade, truth in (("A", 260.0), ("B", 310.0)):
            for edge in (1, 2):
                mean = truth * np.exp(rng.normal(0, spread))
                runs.append(
                    dosed(blade, [150] * 3, mean * np.exp(rng.normal(0, 0.07, 3)), edge=edge)
                )
        (pair,) = analyse(runs, {}, RULE, DOSE).figure_comparisons
        held += pair.low <= 310 / 260 <= pair.high
    assert 0.90 <= held / trials <= 1.0, "95 % by design; 160 trials leave about ±3.5 %"


def test_a_lot_factor_speaks_of_one_blade_on_both_lots_only():
    def run(blade, edge, life):
        return series(
            *((n, 150 + 250 * n / life) for n in range(0, int(life * 1.3), 2)),
            blade=blade,
            edge=edge,
        )

    runs = [run("A", 1, 20), run("A", 2, 20.4), run("A", 3, 30), run("B", 1, 40)]
    lots = {r.key: "lot 7" if r.edge < 3 else "lot 8" for r in runs}
    (factor,) = lot_factors(analyse(runs, {}, RULE, Method()).runs, lots, "dull")
    assert (factor.blade, factor.old, factor.new, factor.edges) == ("A", "lot 7", "lot 8", (2, 1))
    assert factor.low < 1.5 < factor.high
    assert lot_factor_words(factor).endswith("No result is corrected by it.")


def test_pass_fail_stages_of_a_method_decide_what_a_doubt_means():
    paper = BY_SCHOOL["paper_stop_rope"]
    said = [("pass", 20), ("doubt", 30), ("doubt", 50), ("fail", 60)]
    run = RunSeries("A", 1, 1, tuple(Check(float(n), "paper", outcome=o) for o, n in said))
    graded = analyse([run], {}, RULE, paper).runs[0].lives
    assert (graded["rough"].life.found.last_pass, graded["rough"].life.found.first_fail) == (20, 30)
    assert (graded["working"].life.found.last_pass, graded["working"].life.found.first_fail) == (
        50,
        60,
    )
    plain = replace(paper, stages=paper.stages[1:])
    assert analyse([run], {}, RULE, plain).runs[0].lives["working"].life.found.last_pass == 20, (
        "a doubt widens"
    )


def judged_dose(blade, outcome, control=None, *, count=120.0):
    checks = [Check(count, "paper", outcome=outcome, position_mm=40.0)] * 2
    if control:
        checks.append(Check(count, "paper", outcome=control, position_mm=8.0))
    return RunSeries(blade, 3, 1, tuple(checks), worked_mm=(20.0, 80.0), passes_noted=True)


def test_a_dose_with_pass_and_fail_says_the_plain_fact_first():
    method = replace(
        DOSE, checks=(CheckSpec("paper", readings=2),), ends=(StopRule("dose", amount=120),)
    )
    runs = [judged_dose("A", "fail", "pass"), judged_dose("B", "pass")]
    found = analyse(runs, {}, RULE, method)
    fact = dose_words(found.after_dose)
    assert fact == (
        "At 120 cuts B still slices paper and A no longer does; A's untouched edge at 8 mm still"
        " does, so it is wear."
    )
    bound = headline(found, "working")
    assert "B is at most" in bound, "and then how far it may fall short"
    blunt = analyse([judged_dose("A", "fail", "fail"), runs[1]], {}, RULE, method)
    assert "does not either, so look at the edge" in dose_words(blunt.after_dose)
