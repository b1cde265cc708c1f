"""A file in is a file out: what was imported is exported row for row, and analysed to the same
numbers.
"""

import csv
import io

import pytest

from kessik.core.comparison.matching import MatchingRule
from kessik.core.moments import Moment
from kessik.core.protocols.methods import Method, force_limit_rope
from kessik.interchange.analysis_json import analysis_json
from kessik.interchange.named_files import NamedFile
from kessik.services.files.imports import import_files
from kessik.services.files.trial_export import export_trial
from kessik.services.files.trial_files import read_files
from kessik.services.trials.verdicts import verdict
from tests.helpers.round_trip import BLADES, EDGES, SERIES

NOW = Moment("2026-05-04T08:00:00+00:00", 120)

RUNS = "blade,edge,run,lot,practice,zone_from_mm,zone_to_mm\nA,3,1,7,no,12,76\n"
FILES = [
    NamedFile("raft.series.csv", SERIES.encode()),
    NamedFile("raft.blades.csv", BLADES.encode()),
    NamedFile("raft.edges.csv", EDGES.encode()),
    NamedFile("raft.runs.csv", RUNS.encode()),
]


def rows(text):
    return list(csv.DictReader(io.StringIO(text)))


@pytest.fixture
def stored(database):
    return import_files(
        database, FILES, NOW, MatchingRule(), force_limit_rope(schedule="every")
    ).trials[0]


def test_every_row_comes_back(database, stored):
    out = export_trial(database, stored.id)
    assert rows(out["raft.series.csv"]) == rows(SERIES)
    blade, _ = rows(out["raft.blades.csv"])
    assert {k: v for k, v in blade.items() if v} == rows(BLADES)[0]
    edge = rows(out["raft.edges.csv"])[0]
    assert {k: v for k, v in edge.items() if v} == rows(EDGES)[0], (
        "unknown columns stay with their row"
    )
    run = next(r for r in rows(out["raft.runs.csv"]) if r["blade"] == "A")
    assert {k: run[k] for k in rows(RUNS)[0]} == rows(RUNS)[0]


def test_the_screen_and_the_file_give_the_same_numbers(database, stored):
    (read,) = read_files(FILES).trials
    from_file = read.analysis(MatchingRule(), Method())
    from_store = verdict(database, stored.id).analysis
    assert analysis_json({"Raft": from_store}, 300, 400) == analysis_json(
        {"Raft": from_file}, 300, 400
    )


def test_nothing_of_a_faulty_import_is_kept(client):
    files = [
        ("files", ("bad.series.csv", "blade,count,check,value\nA,0,force,150\nA,1,force,none\n"))
    ]
    answer = client.post("/api/imports", files=files)
    assert answer.status_code == 422
    assert answer.json()["faults"] == [
        {
            "file": "bad.series.csv",
            "line": 3,
            "column": "value",
            "message": "“none” is not a number",
        }
    ]
    assert client.get("/api/today").json()["trials"] == []
