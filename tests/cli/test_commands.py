"""The command line: JSON as the file format page says, exit codes, and every fault on a line of its
own.
"""

import json

import jsonschema
import pytest
from benchmarks.population import draw_bench
from typer.testing import CliRunner

from kessik.cli.main import app
from tests.helpers.round_trip import BLADES, EDGES, SERIES

RUNNER = CliRunner()

NUMBER = {"type": ["number", "null"]}
LIFE = {
    "type": "object",
    "required": ["estimate", "low", "high", "status", "by_rule"],
    "properties": {
        "estimate": NUMBER,
        "low": NUMBER,
        "high": NUMBER,
        "status": {"enum": ["crossed", "bracketed", "not_reached", "before_first_check"]},
        "extrapolated": {"const": True},
        "by_rule": {
            "type": "object",
            "required": ["value", "rule", "schedule"],
            "properties": {
                "value": NUMBER,
                "rule": {"type": "string"},
                "schedule": {"type": "string"},
            },
            "additionalProperties": False,
        },
    },
    "additionalProperties": False,
}
LIVES = {"type": "object", "additionalProperties": LIFE}


def exactly(**properties):
    return {
        "type": "object",
        "required": list(properties),
        "properties": properties,
        "additionalProperties": False,
    }


TEXT, WHOLE, TEXTS = (
    {"type": "string"},
    {"type": "integer"},
    {"type": "array", "items": {"type": "string"}},
)
VERDICTS = {
    "enum": [
        "longer",
        "shorter",
        "too_close",
        "not_enough_evidence",
        "confounded",
        "both_not_reached",
    ]
}
ANALYSIS = exactly(
    schema={"const": 1},
    analysis=exactly(version=TEXT, keen_gf={"type": "number"}, dull_gf={"type": "number"}),
    runs={
        "type": "array",
        "items": exactly(
            trial=TEXT, blade=TEXT, edge=WHOLE, run=WHOLE, readings=WHOLE, count_unit=TEXT,
            start_gf=NUMBER,
            end_gf=NUMBER, change_percent=NUMBER, life=LIVES,
        ),
    },
    blades={
        "type": "array",
        "items": exactly(
            trial=TEXT, blade=TEXT, edges=WHOLE, life=LIVES, spread_percent=NUMBER, notes=TEXTS
        ),
    },
    comparisons={
        "type": "array",
        "items": exactly(
            trial=TEXT, a=TEXT, b=TEXT, stage=TEXT, ratio={"type": "number"},
            low={"type": "number"},
            high={"type": "number"}, verdict=VERDICTS, scope=TEXT, pending=TEXTS, reasons=TEXTS,
            edges_to_settle={"type": ["integer", "null"]},
        ),
    },
)  # fmt: skip  # a table is read by its rows
NEXT = exactly(
    next_count=NUMBER, readings=WHOLE, expected={"type": "object"}, stop={"type": "boolean"},
    why=TEXT
)  # fmt: skip  # a table is read by its rows


def call(*arguments):
    return RUNNER.invoke(app, [str(a) for a in arguments])


@pytest.fixture
def folder(tmp_path):
    force_only = "\n".join(line for line in SERIES.splitlines() if ",B," not in line) + "\n"
    for name, text in (
        ("raft.series.csv", SERIES),
        ("a.series.csv", force_only),
        ("raft.blades.csv", BLADES),
        ("raft.edges.csv", EDGES),
    ):
        (tmp_path / name).write_text(text)
    return tmp_path


def test_analyse_prints_the_documented_json(folder):
    answer = call(
        "analyse",
        folder / "raft.series.csv",
        "--blades",
        folder / "raft.blades.csv",
        "--edges",
        folder / "raft.edges.csv",
        "--json",
    )
    assert answer.exit_code == 0
    found = json.loads(answer.stdout)
    jsonschema.validate(found, ANALYSIS)
    a, b = found["runs"]
    assert a["life"]["dull"]["status"] == "crossed"
    assert a["life"]["dull"]["by_rule"]["value"] == 12
    assert a["change_percent"] == pytest.approx(100 * (a["end_gf"] / a["start_gf"] - 1))
    assert b["count_unit"] == "m"
    assert b["life"]["working"] == {
        "estimate": None,
        "low": 48,
        "high": 60,
        "status": "bracketed",
        "by_rule": {"value": 60, "rule": "first failed check", "schedule": "every 12"},
    }
    assert "keen" not in b["life"], "a stage without data is absent"


def test_without_a_json_switch_people_can_read_it(folder):
    answer = call("analyse", folder / "a.series.csv")
    assert answer.exit_code == 0
    assert "A alone, to dull:" in answer.stdout
    assert "cuts" in answer.stdout


def test_limits_are_the_testers_choice(folder):
    at = [
        json.loads(
            call(
                "analyse", folder / "a.series.csv", "--json", "--keen", keen, "--dull", dull
            ).stdout
        )
        for keen, dull in ((300, 400), (280, 340))
    ]
    lives = [found["runs"][0]["life"]["dull"]["estimate"] for found in at]
    assert lives[1] < lives[0]


def test_next_check_leads_a_run_to_its_stop(tmp_path):
    bench, path = draw_bench(11, (20.0, 30.0)), tmp_path / "run.series.csv"
    rows = ["blade,count,check,value", f"A,0,force,{bench.read(0):.0f}"]
    for _ in range(60):
        path.write_text("\n".join(rows) + "\n")
        answer = json.loads(call("next-check", path, "--json").stdout)
        jsonschema.validate(answer, NEXT)
        if answer["stop"]:
            break
        rows += [
            f"A,{answer['next_count']:g},force,{bench.read(answer['next_count']):.0f}"
            for _ in range(answer["readings"])
        ]
    assert answer["stop"]
    assert answer["next_count"] is None
    assert answer["expected"]["dull"]["status"] == "crossed"
    assert answer["expected"]["dull"]["low"] < bench.edge.life < answer["expected"]["dull"]["high"]


def test_faults_go_to_standard_error_one_line_each(tmp_path):
    path = tmp_path / "bad.series.csv"
    path.write_text("blade,count,check,value\n,0,force,150\nA,x,force,150\n")
    answer = call("analyse", path, "--json")
    assert answer.exit_code == 1
    assert answer.stdout == ""
    assert answer.stderr.splitlines() == [
        "bad.series.csv:2: blade: this cell is empty and must not be",
        "bad.series.csv:3: count: “x” is not a number",
    ]


@pytest.mark.parametrize(
    ("arguments", "code"),
    [
        (["analyse"], 2),
        (["analyse", "missing.csv"], 1),
        (["analyse", "missing.csv", "--factor", "colour"], 2),
        (["analyse", "missing.csv", "--keen", "500"], 2),
        (["no-such-command"], 2),
        (["export", "nobody", "--data", "."], 1),
    ],
)
def test_exit_codes(arguments, code, tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    assert call(*arguments).exit_code == code


def test_import_then_export_is_the_same_series(folder, tmp_path):
    data, out = tmp_path / "data", tmp_path / "out"
    assert (
        call(
            "import", folder / "raft.series.csv", folder / "raft.blades.csv", "--data", data
        ).exit_code
        == 0
    )
    assert call("export", "Raft", "--data", data, "--out", out).exit_code == 0
    before, after = (
        json.loads(call("analyse", path, "--json").stdout)
        for path in (folder / "raft.series.csv", out / "raft.series.csv")
    )
    assert before == after


def test_blades_and_edges_files_alone_go_onto_the_shelf(tmp_path):
    blades, edges = tmp_path / "loan.blades.csv", tmp_path / "loan.edges.csv"
    blades.write_text(
        "blade,claimed_grade,loan_from,loan_due\nAV-07,1.2379,Corran Forge,2026-06-01\n"
    )
    edges.write_text("blade,edge,side_angle_deg,made_on\nAV-07,3,15,2026-05-01\n")
    answer = call("import", blades, edges, "--data", tmp_path / "data")
    assert answer.exit_code == 0
    assert "on the shelf: AV-07" in answer.stdout
    bad = tmp_path / "bad.edges.csv"
    bad.write_text("blade,edge,side_angle_deg\nAV-07,4,50\nGhost,1,15\n")
    refused = call("import", bad, "--data", tmp_path / "data")
    assert refused.exit_code == 1
    assert (
        "bad.edges.csv:2: side_angle_deg: 50 ° is out of range: give 45 ° or less" in refused.stderr
    )


def test_edges_that_the_file_says_do_not_count_are_left_out_of_its_comparison(tmp_path):
    rows = [
        f"{blade},{edge},{n},force,{150 + 250 * (n / life) ** 0.6:.0f}"
        for blade, edge, life in (
            ("A", 1, 6),
            ("A", 3, 20),
            ("A", 4, 20.5),
            ("B", 3, 30),
            ("B", 4, 31),
        )
        for n in range(0, int(life) + 4, 2)
    ]
    series, edges = tmp_path / "raft.series.csv", tmp_path / "raft.edges.csv"
    series.write_text("\n".join(["blade,edge,count,check,value", *rows]) + "\n")
    edges.write_text("blade,edge,settled\nA,1,no\n")
    alone = json.loads(call("analyse", series, "--json").stdout)
    ruled = json.loads(call("analyse", series, "--edges", edges, "--json").stdout)
    jsonschema.validate(ruled, ANALYSIS)

    def dull(found):
        return next(c for c in found["comparisons"] if c["stage"] == "dull")

    assert dull(ruled)["ratio"] == pytest.approx(1.5, rel=0.06)
    assert dull(ruled)["verdict"] == "longer"
    assert dull(alone) != dull(ruled)
    assert len(ruled["runs"]) == 5, "the run itself stays in the record"
    read = call("analyse", series, "--edges", edges)
    assert "A, edge 1 is left out: decided by the tester: as in the file" in read.stdout.replace(
        "'", ""
    )


def test_edges_that_contradict_each_other_are_named_with_their_blade(tmp_path):
    rows = ["blade,edge,count,check,outcome"]
    for edge, life in ((1, 190), (2, 410)):
        rows += [f"A,{edge},{life - 2},paper,pass", f"A,{edge},{life},paper,fail"]
    file = tmp_path / "odd.series.csv"
    file.write_text("\n".join(rows))
    found = json.loads(call("analyse", file, "--json").stdout)
    (blade,) = found["blades"]
    assert any("edges 1 and 2 contradict each other" in note for note in blade["notes"])


def imported(file, data):
    return RUNNER.invoke(app, ["import", str(file), "--data", str(data)])


def test_the_same_files_twice_are_recognised(tmp_path):
    file = tmp_path / "old.series.csv"
    file.write_text("blade,count,check,value\nA,0,force,150\nA,9,force,420\nA,10,force,430\n")
    first = imported(file, tmp_path / "data")
    again = imported(file, tmp_path / "data")
    assert again.stdout.splitlines()[0] == (
        "These files were imported before; nothing was imported again."
    )
    assert again.stdout.splitlines()[-1] == first.stdout.splitlines()[-1]


def test_a_sheet_of_results_names_the_reader_that_fits(tmp_path):
    file = tmp_path / "season.csv"
    file.write_text("Knife,Fine ft,Total ft\nA,140,225\n")
    refused = imported(file, tmp_path / "data")
    assert refused.exit_code == 1
    assert "season.csv:1: this is a sheet of results and no series" in refused.stderr
