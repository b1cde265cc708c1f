"""`kessik gauge`: a study in, components out."""

import json

import pytest
from typer.testing import CliRunner

from kessik.cli.main import app

RUNNER = CliRunner()
STUDY = """part,operator,trial,value,unit
a,x,1,10,gf
a,x,2,12,gf
b,x,1,20,gf
b,x,2,22,gf
"""


def run(path, *options):
    return RUNNER.invoke(app, ["gauge", str(path), *options])


@pytest.fixture
def study(tmp_path):
    path = tmp_path / "line.gauge.csv"
    path.write_text(STUDY)
    return path


def test_the_answer_is_the_one_worked_out_by_hand(study):
    """Error mean square 2, parts 100: part (100 - 2) / 2 = 49."""
    found = json.loads(run(study, "--json").stdout)
    assert found["components"]["repeatability"] == pytest.approx(2.0)
    assert found["components"]["part"] == pytest.approx(49.0)
    assert found["grr"] == pytest.approx(2.0)
    assert found["percent_contribution"] == pytest.approx(100 * 2 / 51)
    assert found["ndc"] == 6
    assert found["interaction"] == {"f": None, "p": None, "pooled": False}
    assert found["intervals"]["repeatability"][0] < 2.0 < found["intervals"]["repeatability"][1]


def test_it_is_readable_without_json(study):
    said = run(study)
    assert said.exit_code == 0
    assert "differ by up to 3.92 gf in 95 of 100" in " ".join(said.output.split())


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("b,x,3,many,gf", "is not a number"),
        ("b,x,2,23,gf", "stand in an earlier row"),
        ("b,x,3,23,N", "a study has one unit"),
        (",x,3,23,gf", "part"),
    ],
)
def test_a_faulty_row_is_named(study, row, said):
    study.write_text(f"{STUDY}{row}\n")
    answer = run(study, "--json")
    assert answer.exit_code == 1
    assert ":6:" in answer.output
    assert said in answer.output
