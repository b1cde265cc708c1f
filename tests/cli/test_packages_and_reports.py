"""`kessik package`, `import` and `report`: out, in again, and onto paper."""

import pytest
from typer.testing import CliRunner

from kessik.cli.main import app

RUNNER = CliRunner()
SERIES = "blade,count,check,value\n" + "".join(
    f"{blade},{n},force,{150 + slope * n}\n"
    for blade, slope in (("A", 25), ("B", 15))
    for n in range(0, 24, 3)
)


def run(*words):
    return RUNNER.invoke(app, [str(word) for word in words])


@pytest.fixture
def folder(tmp_path):
    (tmp_path / "raft.series.csv").write_text(SERIES)
    made = run("import", tmp_path / "raft.series.csv", "--data", tmp_path / "mine")
    assert made.exit_code == 0, made.output
    return tmp_path


def test_a_package_goes_from_folder_to_folder_by_command(folder):
    package = folder / "raft.kessik.zip"
    nameless = run("package", package, "--data", folder / "mine")
    assert nameless.exit_code == 1
    assert "say once who sends this package" in nameless.output
    sent = run("package", package, "raft", "--data", folder / "mine", "--tester", "Rhea")
    assert sent.exit_code == 0, sent.output
    first = run("import", package, "--data", folder / "other")
    assert "From Rhea: 1 trial new here." in first.output
    again = run("import", package, "--data", folder / "other")
    assert "here already, and the same" in again.output


def test_a_wish_that_cannot_be_is_a_wrong_usage(folder):
    odd = run("package", folder / "p", "--data", folder / "mine", "--leave-out", "secrets")
    assert odd.exit_code == 2
    lost = run("package", folder / "p", "moon", "--data", folder / "mine", "--tester", "Rhea")
    assert lost.exit_code == 1
    assert "moon" in lost.output
    both = run("import", folder / "a.kessik.zip", folder / "raft.series.csv")
    assert both.exit_code == 2


def test_a_report_is_written_and_says_when_it_is_no_longer_todays(folder):
    out, mine = folder / "out", folder / "mine"
    written = run("report", "raft", "--data", mine, "--out", out)
    assert written.exit_code == 0, written.output
    names = {path.name for path in out.iterdir()}
    assert {"raft.html", "raft.pdf", "raft.curves.svg", "raft.lives.png"} <= names
    page = out / "raft.html"
    current = run("report", "raft", "--data", mine, "--check", page)
    assert (current.exit_code, "is today's" in current.output) == (0, True)
    old = page.read_text(encoding="utf-8").replace("content ", "content 0000", 2)
    page.write_text(old, encoding="utf-8")
    assert run("report", "raft", "--data", mine, "--check", page).exit_code == 1
    page.write_text("<p>Something else</p>", encoding="utf-8")
    assert "does not say what it was made from" in run(
        "report", "raft", "--data", mine, "--check", page
    ).output.replace("\n", " ")
