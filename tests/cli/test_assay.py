"""`kessik assay`: shots in, the verdict on a claim out."""

import json

import pytest
from typer.testing import CliRunner

from kessik.cli.main import app

RUNNER = CliRunner()
HEAD = "blade,shot,element,percent,plus_minus,detected,surface,normalised\n"
PART = {"Cr": 5.2, "Mo": 1.0, "V": 0.23, "Mn": 0.55, "Si": 0.3, "Fe": 91.6}


@pytest.fixture
def shots(tmp_path):
    path = tmp_path / "a.shots.csv"
    rows = [f"AV-06,{n},{s},{p},0.05,,bare,no" for n in (1, 2) for s, p in PART.items()]
    path.write_text(HEAD + "\n".join(rows) + "\n")
    return path


def run(*words):
    return RUNNER.invoke(app, ["assay", *map(str, words)])


def test_the_answer_is_as_the_format_page_says(shots):
    found = json.loads(run(shots, "--claim", "1.2436", "--json").stdout)
    assert (found["blade"], found["claim"], found["verdict"]) == ("AV-06", "1.2436", "excluded")
    worst = found["excluded_by"][0]
    assert (worst["element"], worst["measured"], worst["low"]) == ("Cr", 5.2, 10.85)
    assert worst["z"] == pytest.approx((10.85 - 5.2) / (0.05**2 / 2 + 0.104**2) ** 0.5, rel=0.01)
    assert found["candidates"][0]["grade"] in ("1.2363", "SKD12", "A2")
    assert sum(c["fit"] for c in found["candidates"]) == pytest.approx(1, abs=1e-3)
    assert len(found["candidates"]) == found["grades_tried"]
    assert found["not_seen"][0] == "C"


def test_own_grades_stand_beside_the_library(shots, tmp_path):
    grades = tmp_path / "mine.grades.csv"
    header = "grade,element,min_percent,max_percent\n"
    mine = {"C": (0.5, 0.6), "Cr": (4.8, 5.5), "Mo": (0.9, 1.2), "V": (0.15, 0.35)}
    mine |= {"Mn": (0.4, 0.8), "Si": (0.1, 0.4), "P": ("", 0.03), "S": ("", 0.03)}
    grades.write_text(header + "".join(f"Mine,{e},{a},{b}\n" for e, (a, b) in mine.items()))
    alone = json.loads(run(shots, "--claim", "1.2363", "--json").stdout)
    beside = json.loads(run(shots, "--claim", "Mine", "--grades", grades, "--json").stdout)
    assert alone["verdict"] == "consistent"
    assert beside["verdict"] == "undecidable"
    assert {"1.2363", "SKD12"} <= set(beside["not_separable_from"])
    assert beside["grades_tried"] == alone["grades_tried"] + 1


def test_the_plain_answer_is_a_sentence(shots):
    said = run(shots, "--claim", "1.2436")
    assert said.exit_code == 0
    assert said.stdout.startswith("AV-06: 1.2436 is excluded: chromium reads 5.20 ± 0.11 %")


def test_a_claim_that_no_grade_bears_and_a_file_with_faults_are_refused(shots, tmp_path):
    unknown = run(shots, "--claim", "1.2437")
    assert unknown.exit_code == 1
    assert "is “1.2436”" in unknown.stderr
    bad = tmp_path / "b.shots.csv"
    bad.write_text(HEAD + "B,1,Cr,12,,,,\nB,1,Cr,-3,0.1,,,\nB,1,Qq,1,0.1,maybe,,\n")
    refused = run(bad, "--claim", "1.2436")
    assert refused.exit_code == 1
    assert [line.split(": ")[:2] for line in refused.stderr.splitlines()] == [
        ["b.shots.csv:2", "plus_minus"],
        ["b.shots.csv:3", "percent"],
        ["b.shots.csv:3", "element"],
        ["b.shots.csv:4", "detected"],
        ["b.shots.csv:4", "element"],
    ]
    empty = tmp_path / "c.shots.csv"
    empty.write_text("")
    assert "the file is empty" in run(empty).stderr
