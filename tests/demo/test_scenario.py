"""The demo: the same every time, dated in the days before it is started, and showing what it is there to show."""

from datetime import UTC, datetime, timedelta, timezone

import pytest

from kessik.demo.scenario import TRIAL_ID, build
from kessik.services.today import next_step
from kessik.services.verdicts import verdict
from kessik.store.database import Database

TODAY = datetime(2026, 5, 20, 9, 30, tzinfo=timezone(timedelta(hours=2)))


@pytest.fixture(scope="module")
def answer(tmp_path_factory):
    database = Database(tmp_path_factory.mktemp("demo"))
    build(database, TODAY)
    return verdict(database, TRIAL_ID)


def test_three_fair_blades_with_two_edges_each_and_one_run_in_progress(answer):
    stopped = {}
    for r in answer.runs:
        if r.state.status == "stopped":
            stopped.setdefault(r.blade.code, []).append(r.edge.number)
    assert stopped == {"AV-01": [3, 4], "AV-02": [3, 4], "AV-03": [3], "AV-05": [3, 4]}
    (open_run,) = [r for r in answer.runs if r.state.status == "cutting"]
    assert (open_run.blade.code, open_run.state.count) == ("AV-05", 21)
    assert next_step(answer).run_id == open_run.run.id


def test_the_unfair_blade_is_flagged_and_left_out_of_the_ranking(answer):
    (spoiled,) = [c for c in answer.analysis.cells if c.state == "confounded"]
    assert (spoiled.blade, spoiled.variable) == ("AV-03", "thickness_behind_edge_mm")
    assert all(c.verdict == "confounded" for c in answer.analysis.comparisons if "AV-03" in (c.a, c.b))
    assert "AV-03 is not ranked" in answer.headline


def test_the_pending_hardness_is_named_and_shrinks_the_scope(answer):
    assert answer.analysis.pending == ("hardness of AV-05 is only claimed",)
    scopes = {(c.a, c.b): c.scope for c in answer.analysis.comparisons if c.stage == "dull"}
    assert scopes["AV-01", "AV-02"] == "the steel as usually hardened"
    assert scopes["AV-01", "AV-05"] == "these blades"


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


def test_it_is_the_same_every_time(answer, tmp_path):
    again = Database(tmp_path)
    build(again, datetime(2027, 1, 3, 23, 59, tzinfo=UTC))
    other = verdict(again, TRIAL_ID)
    assert other.headline == answer.headline
    readings = [[c.check.force_gf for c in r.state.checks] for r in answer.runs]
    assert [[c.check.force_gf for c in r.state.checks] for r in other.runs] == readings
