"""`kessik standings`: lives in, where each blade stands out; the same from a file and a folder."""

import json

import pytest
from typer.testing import CliRunner

from kessik.cli.main import app

RUNNER = CliRunner()
HEAD = "trial,block,blade,grade,edge,lower,upper,unit,tester,maker,source\n"
TRIALS = {"T1": 1.0, "T2": 1.4, "T3": 0.8}
LIVES = {"A": 20.0, "B": 30.0, "C": 42.0}


def run(*words):
    return RUNNER.invoke(app, ["standings", *map(str, words)])


@pytest.fixture
def lives(tmp_path):
    rows = [
        f"{trial},,{blade},,{edge},{life * lot * off:.3f},{life * lot * off:.3f},cuts,me,,own"
        for trial, lot in TRIALS.items()
        for blade, life in LIVES.items()
        for edge, off in enumerate((0.96, 1.0, 1.05))
    ]
    rows += ["T9,,X,,1,50,60,cuts,me,,paper", "T9,,Y,,1,80,,cuts,me,,paper"]
    path = tmp_path / "a.lives.csv"
    path.write_text(HEAD + "\n".join(rows) + "\n")
    return path


def test_the_answer_is_as_the_format_page_says(lives):
    found = json.loads(run(lives, "--json").stdout)
    pairs = {(p["a"], p["b"]): p for p in found["pairs"]}
    assert set(pairs) == {("A", "B"), ("A", "C"), ("B", "C"), ("X", "Y")}
    assert pairs["A", "B"]["ratio"] == pytest.approx(20 / 30, rel=1e-3)
    assert pairs["A", "B"]["lower"] < 20 / 30 < pairs["A", "B"]["upper"]
    open_end = pairs["X", "Y"]
    assert (open_end["ratio"], open_end["lower"]) == (None, None)
    assert 0.6 < open_end["upper"] < 1.3
    assert found["ranks"]["C"] == [1, 1]
    assert found["ranks"]["A"] == [3, 3]
    assert sorted(map(sorted, found["islands"])) == [["A", "B", "C"], ["X", "Y"]]
    assert found["inconsistent"] == []


def test_the_table_and_the_csv_say_the_same(lives):
    table, sheet = run(lives, "--reference", "A"), run(lives, "--reference", "A", "--csv")
    assert "1st" in table.stdout
    assert "2.1 ×" in table.stdout
    header, first, *_ = sheet.stdout.splitlines()
    assert header == "island,blade,ratio,lower,upper,best,worst,trials,runs"
    assert first.startswith("1,C,2.1")


@pytest.mark.parametrize(
    ("row", "says"),
    [
        ("T,,A,,1,60,50,cuts,,,own", ":2: upper: this life ends at 50"),
        ("T,,A,,1,sixty,,cuts,,,own", ":2: lower:"),
        ("T,,A,,1,,,cuts,,,own", "no life"),
        ("T,,,,1,1,2,cuts,,,own", ":2: blade:"),
        ("T,,A,,1,1,2,cuts,,,own\nT,,B,,1,1,2,m,,,own", ":3: unit: this block counts cuts"),
    ],
)
def test_what_is_wrong_is_said_where_it_stands(tmp_path, row, says):
    path = tmp_path / "a.lives.csv"
    path.write_text(f"{HEAD}{row}\n")
    found = run(path)
    assert found.exit_code == 1
    assert says in found.stderr


def test_no_file_and_an_unknown_reference_are_refused(lives):
    assert run().exit_code == 2
    unknown = run(lives, "--reference", "Q")
    assert (unknown.exit_code, "called Q" in unknown.stderr) == (1, True)


def test_a_folder_gives_the_numbers_of_its_trials(built_demo):
    found = json.loads(run("--data", built_demo, "--json").stdout)
    assert found["inconsistent"] == [
        each["trial"] for each in found["doubts"] if each["blade"] == "AV-10"
    ]
    assert {"AV-15", "AV-16"} in [set(island) for island in found["islands"]]
    assert found["ranks"]["AV-12"][0] == 1
