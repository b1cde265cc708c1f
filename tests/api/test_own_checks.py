"""Checks of the tester's own: at the bench, on paper, in sheets, in files, and when they change.

The paper record: hair whittling in four grades, looked at every 10 cuts or so. A whittles at 0 and
10, splits at 22 and only cuts at 30, so its fine edge went between 22 and 30; B cuts at 20 already,
after splitting at 11.
"""

import io
import json
import zipfile
from uuid import uuid4

import pytest

from kessik.core.protocols.checks import CheckSpec, OwnCheck
from kessik.core.protocols.methods import Method, Stage, StopRule
from kessik.store.queries.methods import method_body

GRADES = ("whittles", "splits", "cuts", "slides")
WHITTLING = CheckSpec("hair whittling", 1, "loose hair", OwnCheck("scale", GRADES))
BITE = CheckSpec("bite depth", 1, "pine", OwnCheck("number", unit="mm", sharp_is="high"))
NAIL = CheckSpec("bite on a nail", 1, "thumb nail", OwnCheck("pass_fail"))


def graded(**changes):
    whole = {
        "checks": (WHITTLING,),
        "stages": (Stage("fine", WHITTLING.kind, lost_on=("cuts", "slides")),),
        "ends": (StopRule("limit", "fine"),),
        "schedule": "every",
        "every": 10,
        **changes,
    }
    return Method(**whole)


DOSE = graded(
    checks=(BITE, WHITTLING, NAIL), stages=(), ends=(StopRule("dose", amount=20),), schedule="ends"
)


@pytest.fixture
def trial(hand):
    """Two blades under the graded method; the edges of A and B."""
    (_, a), (_, b) = hand.make_trial("A", "B", method=method_body(graded()))
    return hand, a, b


def graded_run(hand, edge, *grades):
    run, count = hand.start(edge), 0
    for at, grade in grades:
        hand.cut(run, at - count, count)
        count = at
        hand.judge(run, grade, at, check=WHITTLING.kind)
    return run


def answer(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]


def brackets(hand):
    return {
        run["blade"]: (life["low"], life["high"])
        for run in answer(hand)["runs"]
        for life in [run["lives"]["fine"]]
    }


BY_HAND = {"A": (22, 30), "B": (11, 20)}
LOOKS = {
    "A": ((0, "whittles"), (10, "whittles"), (22, "splits"), (30, "cuts")),
    "B": ((0, "whittles"), (11, "splits"), (20, "cuts")),
}


def test_the_bench_gives_the_brackets_of_the_paper_record(trial):
    hand, a, b = trial
    graded_run(hand, a, *LOOKS["A"])
    graded_run(hand, b, *LOOKS["B"])
    assert brackets(hand) == BY_HAND
    assert answer(hand)["headline"].startswith("To the end of the fine edge, A outlasts B by")


def test_paper_gives_the_same_by_a_tally_and_by_totals(trial):
    hand, *_ = trial
    tally = "0 whittles\n10 1\n22 Splits\n30 cuts"  # a grade by its name, or by its place
    lines = [
        {"id": str(uuid4()), "cells": {"blade": "A", "edge": "3"}, "readings": tally},
        {"id": str(uuid4()), "cells": {"blade": "B", "edge": "3", "fine": "11-20"}, "readings": ""},
    ]
    body = {"lines": lines, "by": "Operator 1"}
    saved = hand.client.post(f"/api/trials/{hand.trial}/paper-runs", json=body)
    assert saved.status_code == 200, saved.text
    assert brackets(hand) == BY_HAND


def test_a_sheet_of_checks_gives_the_same(trial):
    hand, *_ = trial
    rows = [f"{blade};3;{at};{grade}" for blade in LOOKS for at, grade in LOOKS[blade]]
    sheet = "\n".join(["Knife;Edge;Cuts;Result", *rows])
    files = {"file": ("old.csv", sheet.encode())}
    form = {"trial_id": hand.trial}
    seen = hand.client.post("/api/sheet-previews", files=files, data=form).json()
    assert seen["reading"]["shape"] == "check"
    form["reading"] = json.dumps(seen["reading"])
    saved = hand.client.post("/api/sheet-imports", files=files, data=form)
    assert saved.status_code == 200, saved.text
    assert brackets(hand) == BY_HAND


def test_files_go_out_and_come_in_again_and_a_folder_that_does_not_know_it_says_so(trial):
    hand, a, b = trial
    graded_run(hand, a, *LOOKS["A"])
    graded_run(hand, b, *LOOKS["B"])
    archive = hand.client.get(f"/api/trials/{hand.trial}/files").content
    with zipfile.ZipFile(io.BytesIO(archive)) as files:
        read = {name: files.read(name) for name in files.namelist()}
    (series,) = [name for name in read if name.endswith(".series.csv")]
    alone = hand.client.post("/api/imports", files=[("files", (series, read[series]))])
    assert alone.status_code == 422
    fault = alone.json()["faults"][0]
    assert (fault["column"], "“hair whittling” is not one of" in fault["message"]) == (
        "check",
        True,
    )
    came = hand.client.post("/api/imports", files=[("files", each) for each in read.items()])
    assert came.status_code == 200, came.text
    hand.trial = came.json()["trials"][0]["id"]
    assert brackets(hand) == BY_HAND


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("outcome", {"check": WHITTLING.kind, "outcome": "shreds"}, "outcome"),
        ("outcome", {"check": WHITTLING.kind, "outcome": "pass"}, "outcome"),
        ("outcome", {"check": "tape", "outcome": "pass"}, "check"),
        ("reading", {"check": WHITTLING.kind, "value": 2}, "check"),
        ("reading", {"check": BITE.kind, "value": 2, "unit": "mm"}, "check"),
    ],
)
def test_what_it_cannot_show_is_refused_at_its_field(trial, kind, payload, field):
    hand, a, _ = trial
    refused = hand.send(hand.start(a), kind, payload)
    assert (refused.status_code, refused.json()["field"]) == (422, field)


def test_a_dose_is_answered_in_the_testers_own_words(hand):
    edges = [e for _, e in hand.make_trial("A", "B", method=method_body(DOSE))]
    for edge, mm, grade, nail in zip(
        edges, (2.1, 3.2), ("cuts", "splits"), ("fail", "pass"), strict=True
    ):
        run = hand.start(edge)
        hand.cut(run, 20)
        value = {"check": BITE.kind, "value": mm, "unit": "mm"}
        assert hand.send(run, "reading", value, at=20).status_code == 200
        hand.judge(run, grade, 20, check=WHITTLING.kind)
        hand.judge(run, nail, 20, check=NAIL.kind)
    said = answer(hand)["headline"]
    assert "B still passes “bite on a nail” and A no longer does" in said
    assert "bite depth, sharpest first: B 3.2 mm, A 2.1 mm" in said
    assert "hair whittling, sharpest first: B “splits”, A “cuts”" in said
    found = hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["trial"]["method"]
    assert any("done on the body" in caution for caution in found["all_cautions"])


def test_a_grade_taken_out_later_makes_a_version_that_old_runs_stay_apart_from(trial):
    hand, a, b = trial
    old = graded_run(hand, a, *LOOKS["A"])
    fewer = CheckSpec(WHITTLING.kind, 1, "loose hair", OwnCheck("scale", ("whittles", "slides")))
    changed = graded(checks=(fewer,), stages=(Stage("fine", fewer.kind, lost_on=("slides",)),))
    put = {"method": method_body(changed)}
    made = hand.client.put(f"/api/trials/{hand.trial}/method", json=put)
    assert made.status_code == 200, made.text
    graded_run(hand, b, (0, "whittles"), (11, "slides"))
    kept = hand.client.get(f"/api/runs/{old}").json()
    assert [c["seen"] for c in kept["state"]["checks"]] == [grade for _, grade in LOOKS["A"]]
    assert kept["state"]["stages"] == {"fine": 30}
    assert any("version 1" in note and "hair whittling" in note for note in answer(hand)["notes"])


def test_a_file_shows_what_its_check_can_show(trial):
    hand, a, _ = trial
    graded_run(hand, a, *LOOKS["A"])
    archive = hand.client.get(f"/api/trials/{hand.trial}/files").content
    with zipfile.ZipFile(io.BytesIO(archive)) as files:
        read = {name: files.read(name) for name in files.namelist()}
    (series,) = [name for name in read if name.endswith(".series.csv")]
    read[series] = read[series].replace(b"splits", b"pass")
    refused = hand.client.post("/api/imports", files=[("files", each) for each in read.items()])
    assert refused.status_code == 422
    fault = refused.json()["faults"][0]
    assert fault["column"] == "outcome"
    assert "shows one of whittles, splits, cuts, slides" in fault["message"]


def test_the_strop_brings_back_a_grade_and_not_a_pass(trial):
    hand, a, _ = trial
    run = graded_run(hand, a, *LOOKS["A"])
    assert hand.send(run, "strop", {"strokes": 10}, at=30).status_code == 200
    hand.judge(run, "splits", 30, check=WHITTLING.kind, stage="strop")
    found = hand.client.get(f"/api/runs/{run}").json()
    assert found["abilities_back"] == ["After 10 strokes “hair whittling” “splits”"]
