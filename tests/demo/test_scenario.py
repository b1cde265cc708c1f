"""The demo: the same every time, dated in the days before it is started, and showing what it is
there to show.
"""

from datetime import datetime, timedelta, timezone

import pytest

from kessik.api.views.answers import pages
from kessik.core.comparison.findings import Contradicting, OddEdge
from kessik.core.moments import Moment
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.edges import departures_of
from kessik.core.shelf.facts import settled_edge
from kessik.core.trials.next_step import next_step
from kessik.core.words.matching import cell_words, open_lines
from kessik.core.words.plans import shortfall_words
from kessik.core.words.verdict import answer_headline, answer_standing
from kessik.demo.arms_and_blocks import BUNDLES_TRIAL_ID, FINISH_TRIAL_ID
from kessik.demo.building import build
from kessik.demo.scenario import TRIAL_ID, UNFAIR_TRIAL_ID
from kessik.demo.schools import DEMO_SCHOOLS
from kessik.services.assays.verdicts import assay_place
from kessik.services.shelf.blades import the_shelf
from kessik.services.today import what_waits
from kessik.services.trials.answers import Answers
from kessik.services.trials.line_up import line_up
from kessik.services.trials.plans import plan_of
from kessik.services.trials.verdicts import verdict
from kessik.store.database import Database
from kessik.store.queries.shelf import all_recipes
from kessik.store.queries.trials import all_trials

TODAY = datetime(2026, 5, 20, 9, 30, tzinfo=timezone(timedelta(hours=2)))


@pytest.fixture(scope="module")
def demo(tmp_path_factory):
    database = Database(tmp_path_factory.mktemp("demo"), hurried=True)
    build(database, TODAY)
    Answers(database, pages()).settle()
    yield database
    database.close()


@pytest.fixture(scope="module")
def answer(demo):
    return verdict(demo, TRIAL_ID)


def test_three_fair_blades_with_two_edges_each_and_one_run_in_progress(answer):
    stopped = {}
    for r in answer.runs:
        if r.state.status == "stopped":
            stopped.setdefault(r.blade.code, []).append(r.edge.number)
    assert stopped == {"AV-01": [3, 4], "AV-02": [3, 4], "AV-03": [3], "AV-05": [3, 4]}
    (open_run,) = [r for r in answer.runs if r.state.status == "paused"]
    assert (open_run.blade.code, open_run.state.count) == ("AV-05", 21)
    assert next_step(answer.state).run_id == open_run.run.id


def test_the_unfair_blade_is_flagged_and_left_out_of_the_ranking(answer):
    (spoiled,) = [c for c in answer.analysis.cells if c.state == "confounded"]
    assert (spoiled.blade, spoiled.variable) == ("AV-03", "thickness_behind_edge_mm")
    assert all(
        c.verdict == "confounded" for c in answer.analysis.comparisons if "AV-03" in (c.a, c.b)
    )
    assert "AV-03 is not ranked" in answer_headline(answer)


def test_the_pending_hardness_is_named_and_shrinks_the_scope(answer):
    claim, hardness = open_lines(answer.analysis.pending)
    assert hardness == "hardness of AV-05 is only claimed"
    assert claim.startswith("AV-01: the assay leaves the claimed steel undecided")
    scopes = {(c.a, c.b): c.scope for c in answer.analysis.comparisons if c.stage == "dull"}
    assert {scopes["AV-01", "AV-02"], scopes["AV-02", "AV-05"]} == {"these blades"}


def test_the_order_of_the_blades_is_the_true_one(answer):
    lives = {b.blade: b.lives["dull"].found for b in answer.analysis.blades}
    assert lives["AV-05"].estimate > lives["AV-02"].estimate > lives["AV-01"].estimate
    for code, truth in (("AV-01", 13.5), ("AV-02", 23.8), ("AV-05", 39.5)):
        assert lives[code].low < truth < lives[code].high


def test_it_is_dated_in_the_days_before(answer):
    midnight = datetime(2026, 5, 20, tzinfo=TODAY.tzinfo)
    starts = [datetime.fromisoformat(r.run.started.utc) for r in answer.runs]
    assert min(starts) > midnight - timedelta(days=13)
    assert max(starts) < midnight + timedelta(days=1)
    assert all(r.run.started.offset_minutes == 120 for r in answer.runs)


def test_it_is_the_same_every_time_whichever_day_it_is_built(answer, built_demo):
    again = Database(built_demo)
    other = verdict(again, TRIAL_ID)
    again.close()
    assert answer_headline(other) == answer_headline(answer)
    readings = [[c.check.force_gf for c in r.state.checks] for r in answer.runs]
    assert [[c.check.force_gf for c in r.state.checks] for r in other.runs] == readings


def test_the_trial_kept_unfair_on_purpose_is_flagged_for_both_its_faults(demo):
    found = line_up(demo, UNFAIR_TRIAL_ID)
    spoiled = {(c.blade, c.variable) for c in found.cells if c.state == "confounded"}
    both = {("AV-04", "thickness_behind_edge_mm"), ("AV-04", "hardness_hrc")}
    assert spoiled == {*both, ("AV-06", "grade")}, "and one is not what it was sold as"
    values = {(c.blade, c.variable): c.value for c in found.cells}
    assert values["AV-06", "hardness_hrc"] - values["AV-04", "hardness_hrc"] == pytest.approx(
        3, abs=0.2
    )
    thickness = [values[code, "thickness_behind_edge_mm"] for code in ("AV-06", "AV-04")]
    assert thickness[1] / thickness[0] == pytest.approx(2, abs=0.1)
    answer = verdict(demo, UNFAIR_TRIAL_ID)
    (pair,) = [c for c in answer.analysis.comparisons if c.stage == "dull"]
    assert pair.verdict == "confounded"
    assert "No two blades here can be compared fairly" in answer_headline(answer)


def test_the_line_up_of_the_raft_has_a_confounded_a_pending_and_a_stale_cell(demo):
    found = line_up(demo, TRIAL_ID)
    cells = {(c.blade, c.variable): c for c in found.cells}
    assert cells["AV-03", "thickness_behind_edge_mm"].state == "confounded"
    claimed = cells["AV-05", "hardness_hrc"]
    assert cell_words(claimed, found.state.trial.rule) == "hardness is only claimed"
    stale = cells["AV-01", "thickness_behind_edge_mm"]
    assert (stale.state, stale.shown) == ("pending", "about 0.40 mm")
    assert found.missing_references == (), "a low and a high reference are named"
    assert found.taken_as_equal == ()


def test_six_blades_stand_on_the_shelf_with_their_marks_and_loans(demo):
    shelved, field = the_shelf(demo)[:6], the_shelf(demo)[6:]
    assert [s.blade.code for s in field] == [f"AV-{n:02}" for n in range(7, 17)]
    assert [(s.blade.code, s.blade.mark) for s in shelved] == [
        (f"AV-0{n}", n - 1) for n in range(1, 7)
    ]
    waits = what_waits(demo, Moment(TODAY.isoformat()))
    assert [(due.kind, due.overdue) for due in waits] == [
        ("loan", True),
        ("soak", False),
        ("soak", False),
        ("work", False),
        ("work", False),
        ("loan", False),
        ("loan", False),
        ("stock", False),
        ("assay", False),
        ("hardness", False),
    ]
    hardness = shelved[0].blade.used("hardness_hrc")
    assert len(hardness.details["readings"]) == 3
    assert all(edge.factory == (edge.number == 1) for s in shelved for edge in s.blade.edges)


def test_a_departure_from_the_recipe_and_damage_are_there_to_be_seen(demo):
    by_code = {s.blade.code: s.blade for s in the_shelf(demo)}
    with demo.read() as session:
        recipes = all_recipes(session)
    assert departures_of(by_code["AV-02"].edge(3), recipes) == ["step 4: times done 2 instead of 1"]
    assert departures_of(by_code["AV-02"].edge(4), recipes) == []
    assert by_code["AV-03"].edge(3).sharpening.damaged
    assert not by_code["AV-01"].edge(4).sharpening.damaged, "glints are no damage"
    assert settled_edge(by_code["AV-03"], by_code["AV-03"].edge(3), SettledRule()).counts


def test_the_plan_of_the_raft_is_short_of_test_line(demo):
    found = plan_of(demo, TRIAL_ID)
    assert any(
        said.startswith("Test line, spool 3 is short by")
        for said in map(shortfall_words, found.shortfalls)
    )
    assert not any("rope" in said for said in map(shortfall_words, found.shortfalls))
    assert [need.lot.kind for need in found.needs] == ["rope", "test_line"]
    assert [work.work.kind for work in found.work] == ["prepare", "verify"]
    assert (found.pace_learned, found.pace.cut_s) == (True, 38.0)
    assert found.repeats_learned == 7


def test_every_school_has_a_trial_with_an_answer(demo):
    with demo.read() as session:
        found = {trial.method.school: trial.id for trial in all_trials(session)}
    assert found.keys() == BY_SCHOOL.keys()
    for school in DEMO_SCHOOLS:
        answer = verdict(demo, found[school.method.school])
        assert all(r.state.stopped_by == "rule" for r in answer.runs), school.name
        assert (
            answer.analysis.comparisons
            or answer.analysis.figure_comparisons
            or answer.analysis.efforts
        )


def test_one_knife_in_two_finishes_and_two_blades_in_three_bundles(demo):
    finishes, bundles = verdict(demo, FINISH_TRIAL_ID), verdict(demo, BUNDLES_TRIAL_ID)
    assert answer_headline(finishes).startswith("To dull, polished outlasts coarse by")
    assert "6 runs of 2 arms of AV-02" in answer_standing(finishes)
    assert {r.run.block for r in bundles.runs} == {1, 2, 3}
    (pair,) = [c for c in bundles.analysis.comparisons if c.stage == bundles.stage]
    assert max(pair.ratio, 1 / pair.ratio) == pytest.approx(46 / 37, rel=0.1), "as it was made"
    assert not [n for n in bundles.analysis.notes if isinstance(n, Contradicting | OddEdge)]


def test_the_assay_catches_the_blade_that_is_not_what_it_was_sold_as(demo):
    said = {found.blade.code: found for found in assay_place(demo).blades}
    assert len(said) == 6
    assert {code for code, each in said.items() if each.assay.verdict == "excluded"} == {"AV-06"}
    (fitting,) = said["AV-06"].assay.steels_in
    assert fitting.grade.name == "1.2363"
    assert said["AV-01"].assay.outliers[0].shot == "3", "that one slipped"
    assert said["AV-04"].assay.blade.on_coating == 1
