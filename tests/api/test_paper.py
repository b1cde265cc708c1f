"""Finished runs from paper: each school as it writes down, worked out by hand; slips at a cell."""

import pytest

from tests.helpers.paper import Paper, line


@pytest.fixture
def paper(client):
    return Paper(client)


# What stands on paper, and the interval it is worth: worked out by hand.
SCHOOLS = {
    "two_stage_board": (
        {"fine": "30", "working": "25", "total": "55", "check_every": "5"},
        {"fine": ("bracketed", 25, 30), "working": ("bracketed", 50, 55)},
    ),
    "paper_stop_rope": (
        {"rough": "20", "working": "48-60", "check_every": "5"},
        {"rough": ("bracketed", 15, 20), "working": ("bracketed", 48, 60)},
    ),
    "push_cut_board": (
        {"deformation": "10-15", "fine": "40", "working": ">60", "check_every": "5"},
        {
            "deformation": ("bracketed", 10, 15),
            "fine": ("bracketed", 35, 40),
            "working": ("not_reached", 60, None),
        },
    ),
    "force_limit_rope": (
        {"keen": "10", "dull": "24", "check_every": "1", "start_gf": "150"},
        {"keen": ("bracketed", 9, 10), "dull": ("bracketed", 23, 24)},
    ),
}


@pytest.mark.parametrize("school", SCHOOLS)
def test_a_written_result_is_as_wide_as_the_gap_of_its_checks(paper, school):
    cells, lives = SCHOOLS[school]
    paper.make_trial("A", school=school)
    paper.kept(line("A", 3, **cells))
    assert paper.lives("A", 3) == lives
    assert "The one run is from paper" in " ".join(paper.verdict()["notes"])


def test_a_dose_and_an_effort_are_read_as_they_were_written(paper):
    paper.make_trial("A", "B", school="fixed_dose")
    paper.kept(
        line("A", 3, start_gf="150", end_gf="270,5", cut="50"),
        line("B", 3, start_gf="240", end_gf="330"),
    )
    changed = {r["blade"]: (r["start_gf"], r["end_gf"]) for r in paper.verdict()["runs"]}
    assert changed["A"] == pytest.approx((150, 270.5))
    assert changed["B"] == pytest.approx((240, 330))


def test_a_tally_is_the_series_it_would_have_been(paper):
    paper.make_trial("A", school="force_limit_rope")
    readings = "0 151\n8\t240\n16; 330,5\n24 420"
    (run,) = paper.kept(line("A", 3, readings))
    checks = paper.client.get(f"/api/runs/{run}").json()["state"]["checks"]
    assert [(c["count"], c["force_gf"]) for c in checks] == [
        (0, 151),
        (8, 240),
        (16, 330.5),
        (24, 420),
    ]
    assert paper.lives("A", 3)["dull"][0] == "crossed"


def test_two_stages_by_tally_and_a_verification(paper):
    paper.make_trial("A", school="two_stage_board")
    told = "10 p hair\n20 f hair\n30 p paper\n40 f paper"
    first, second = paper.kept(
        line("A", 3, told), line("A", 4, fine="19", working="20", check_every="2", verifies="3")
    )
    assert paper.lives("A", 3) == {"fine": ("bracketed", 10, 20), "working": ("bracketed", 30, 40)}
    record = paper.client.get(f"/api/trials/{paper.trial}/record").json()
    assert {r["id"]: r["verifies_run_id"] for r in record["runs"]}[second] == first


SLIPS = {
    "total": ({"fine": "30", "working": "28", "total": "55"}, "make 58, and the total says 55"),
    "fine": ({"fine": "48-40"}, "the last pass comes first"),
    "working": ({"working": "12x"}, "“12x” is not a number"),
    "edge": ({"fine": "30", "edge": "three"}, "is not a number"),
    "blade": ({"fine": "30", "blade": "Z"}, "there is no Z in this trial; A is"),
    "check_every": ({"fine": "30", "check_every": "0"}, "a gap of 0 is none"),
    "verifies": ({"fine": "30", "verifies": "9"}, "there is no run of edge 9"),
}


@pytest.mark.parametrize("column", SLIPS)
def test_a_slip_is_told_at_its_cell_and_nothing_is_kept(paper, column):
    cells, says = SLIPS[column]
    paper.make_trial("A", school="two_stage_board")
    good = line("A", 3, fine="20", working="10")
    answer = paper.keep(good, {"cells": {"blade": "A", "edge": "4", **cells}})
    assert answer.status_code == 422
    (fault,) = answer.json()["faults"]
    assert (fault["line"], fault["column"]) == (2, column)
    assert says in fault["message"]
    assert paper.client.get(f"/api/trials/{paper.trial}/record").json()["runs"] == []


def test_an_edge_is_cut_once_and_a_line_kept_once(paper):
    paper.make_trial("A", school="two_stage_board")
    same = {"id": "line-number-one", **line("A", 3, fine="20", working="10")}
    assert paper.kept(same) == paper.kept(same) == ["line-number-one"]
    again = paper.keep(line("A", 3, fine="22", working="9"))
    assert "edge 3 of A has been cut already" in again.json()["faults"][0]["message"]
    twice = paper.keep(line("A", 4, fine="20"), line("A", 4, fine="21"))
    assert "is in line 1 already" in twice.json()["faults"][0]["message"]


def test_an_id_of_another_run_is_refused(paper):
    paper.make_trial("A", school="two_stage_board")
    kept = {"id": "line-number-one", **line("A", 3, fine="20", working="10")}
    paper.kept(kept)
    other = Paper(paper.client)
    other.make_trial(school="two_stage_board")
    other.add_blade("B")
    refused = other.keep({"id": "line-number-one", **line("B", 3, fine="20", working="10")})
    assert (refused.status_code, refused.json()["field"]) == (409, "id")


def test_a_blind_trial_takes_its_codes_and_an_archived_blade_nothing(paper):
    (blade, _), _ = paper.make_trial("A", "B", school="two_stage_board")
    covered = {"covered": True, "seed": 3}
    paper.client.put(f"/api/trials/{paper.trial}/covered", json=covered)
    refused = paper.keep(line("A", 3, fine="20"))
    assert "this trial is blind: write the code" in refused.json()["faults"][0]["message"]
    form = paper.client.get(f"/api/trials/{paper.trial}/paper-form").json()
    paper.kept(line(form["arms"][0]["code"], 7, fine="20", working="10"))
    paper.client.put(f"/api/trials/{paper.trial}/covered", json={"covered": False, "seed": 3})
    paper.client.put(f"/api/blades/{blade}/archived", json={"archived": True})
    refused = paper.keep(line("A", 9, fine="20"))
    assert "A is archived" in refused.json()["faults"][0]["message"]


def test_a_line_takes_the_edge_length_that_the_runs_at_the_bench_had(paper):
    (_, edge), (_, other) = paper.make_trial("A", "B", school="push_cut_board")
    for each in (edge, other):
        paper.start(each, zone_from_mm=12, zone_to_mm=76)
    paper.kept(line("A", 4, deformation="30"), line("B", 4, deformation="35"))
    lengths = [c["shown"] for c in paper.verdict()["cells"] if c["variable"] == "edge_length_mm"]
    assert lengths == ["64 mm", "64 mm"]
