"""Series files: what testers really save is read, and every fault is named at once with its
place.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import RefusedFileError
from kessik.interchange.csv_tables import neutralise, restore
from kessik.interchange.named_files import NamedFile
from kessik.interchange.series_csv import read_series
from kessik.services.files.trial_files import read_files


def read(text, name="raft.series.csv"):
    return read_series(name, text if isinstance(text, bytes) else text.encode())


def faults(text):
    return [(f.line, f.column, f.message) for f in read(text).faults.first]


def test_the_smallest_file_and_its_defaults():
    file = read("blade,count,check,value\nA,0,force,150\nA,1,force,170\n")
    (run,) = file.runs
    assert (run.trial, run.edge, run.run, run.count_unit) == ("raft", 1, 1, "cuts")
    assert [c.force_gf for c in run.series().checks] == [150, 170]


@pytest.mark.parametrize(
    "text",
    [
        "blade;count;check;value\nA;0,5;force;150,5\n",
        "blade\tcount\tcheck\tvalue\nA\t0.5\tforce\t150.5\n",
        "\ufeffblade,count,check,value\r\nA,0.5,force,150.5\r\n",
        'blade,count,check,value\n\n"A","0.5","force","150.5"\n\n',
    ],
    ids=["semicolons and decimal commas", "tabs", "BOM and CRLF", "quotes and blank lines"],
)
def test_files_as_spreadsheets_save_them(text):
    (run,) = read(text).runs
    assert (run.rows[0].check.count, run.rows[0].check.force_gf) == (0.5, 150.5)


def test_how_a_file_was_read_is_stated():
    assert (
        "semicolons and decimal commas"
        in read("blade;count;check;value\nA;0;force;150,5\n").table.notes[0]
    )


def test_newtons_are_taken_too():
    (run,) = read("blade,count,check,value,unit\nA,0,force,1.5,N\n").runs
    assert run.rows[0].check.force_gf == pytest.approx(152.957, abs=0.001)


def test_all_faults_are_listed_at_once_with_line_and_column():
    text = (
        "blade,count,check,value,struck,time\n"
        ",0,force,150,,\n"
        "A,-1,force,150,,\n"
        "A,two,force,150,,\n"
        "A,2,force,0,,\n"
        "A,3,forse,150,,\n"
        "A,4,force,,,\n"
        "A,5,force,150,perhaps,\n"
        "A,6,force,150,,2026-05-04\n"
    )
    found = faults(text)
    assert [(line, column) for line, column, _ in found] == [
        (2, "blade"),
        (3, "count"),
        (4, "count"),
        (5, "value"),
        (6, "check"),
        (7, "value"),
        (8, "struck"),
        (9, "time"),
    ]
    said = " | ".join(message for *_, message in found)
    for words in (
        "give 0 or more",
        "“two” is not a number",
        "0 gf is out of range",
        "is “force” meant?",
        "has no offset",
    ):
        assert words in said


def test_with_any_fault_nothing_is_read():
    assert read("blade,count,check,value\nA,0,force,150\nA,1,force,x\n").runs == ()


@pytest.mark.parametrize(
    ("text", "line", "words"),
    [
        ("", 1, "the file is empty"),
        ("\n\n", 1, "the file is empty"),
        ("blade,count,check,value\n", 1, "no rows"),
        ("blade,cuont,check\nA,1,force\n", 1, "is “cuont” meant?"),
        ("blade,count,count,check\nA,1,1,force\n", 1, "twice"),
        ("blade,count,check,value\nA,0,force,150,7,8\n", 2, "6 cells are here under 4 columns"),
        (b"blade,count,check,value\nA,0,force,150\nB\xe4,0,force,150\n", 3, "0xe4 is not UTF-8"),
        ("blade,count,check,value\nA,0,force,150\n".encode("utf-16"), 1, "not UTF-8"),
        (b"x" * (20_000_001), 1, "split it by trial"),
        ('blade,count,check\n"A,1,force\n', 1, "not readable as CSV"),
    ],
    ids=[
        "empty", "blank", "no rows", "misspelt column", "column twice", "too many cells",
        "latin-1", "utf-16",
        "too large", "open quote",
    ],
)  # fmt: skip  # a table is read by its rows
def test_files_that_are_no_series(text, line, words):
    found = faults(text)
    assert found[0][0] == line
    assert words in found[0][2]


def test_counts_may_not_fall_unless_seq_orders_them():
    assert (
        "stands after 5" in faults("blade,count,check,value\nA,5,force,150\nA,4,force,160\n")[0][2]
    )
    (run,) = read("blade,seq,count,check,value\nA,2,5,force,160\nA,1,4,force,150\n").runs
    assert [row.check.count for row in run.rows] == [4, 5]


def test_two_units_in_one_run_are_a_fault():
    text = "blade,count,count_unit,check,value\nA,1,m,force,150\nA,2,ft,force,160\n"
    assert "counted in ft and m" in faults(text)[0][2]


def test_unknown_columns_are_kept_with_the_row_and_reported():
    file = read("blade,count,check,value,weather\nA,0,force,150,rain\n")
    assert file.faults.count == 0
    assert file.runs[0].rows[0].extra == {"weather": "rain"}
    assert "weather" in file.table.notes[1]


def test_pass_fail_and_inspections():
    (run,) = read(
        "blade,count,check,outcome\nA,12,paper,pass\nA,24,inspect,glint\nA,36,inspect,clean\n"
    ).runs
    assert [c.outcome for c in run.series().checks] == ["pass", "fail", "pass"]
    assert "pass, fail or doubt" in faults("blade,count,check,outcome\nA,12,paper,glint\n")[0][2]


def test_two_blades_with_one_code_and_an_edge_twice():
    files = [
        NamedFile("r.series.csv", b"blade,count,check,value\nA,0,force,150\n"),
        NamedFile("r.blades.csv", b"blade,hardness_hrc\nA,58\nA,59\n"),
        NamedFile("r.edges.csv", b"blade,edge,side_angle_deg\nA,1,15\nA,1,95\n"),
    ]
    with pytest.raises(RefusedFileError) as refused:
        read_files(files)
    said = [str(fault) for fault in refused.value.faults]
    assert said[0] == "r.blades.csv:3: blade: the blade code A is listed twice, first on line 2"
    assert any("95 ° is out of range: give 45 ° or less" in s for s in said)
    assert any("this edge A 1 is listed twice" in s for s in said)


def test_a_series_is_needed_beside_its_runs():
    with pytest.raises(RefusedFileError, match="a series file"):
        read_files([NamedFile("r.runs.csv", b"blade,edge\nA,1\n")])


@given(st.text(max_size=30))
def test_neutralised_cells_come_back_as_they_were(text):
    marked = neutralise(text)
    assert restore(marked) == text
    assert not marked.startswith(("=", "+", "-", "@"))


def test_readings_before_and_after_a_dose_are_readings_and_looks_keep_what_was_seen():
    text = (
        "blade,count,check,value,unit,outcome,position_mm\n"
        "A,0,dose_start,150,gf,,24\nA,50,dose_end,1.5,N,,24\nA,50,dose_end,,,,\nA,50,inspect,,,chip,33\nA,50,effort,6.5,,,\n"
    )
    (run,) = read(text).runs
    start, end, mark, chip, effort = run.series().checks
    assert (start.kind, start.force_gf, start.position_mm) == ("force", 150, 24)
    assert end.force_gf == pytest.approx(152.957, abs=0.001)
    assert (mark.kind, mark.force_gf) == (
        "dose_end",
        None,
    ), "a mark without a reading is kept as a mark"
    assert (chip.outcome, chip.seen, chip.position_mm) == ("fail", "chip", 33)
    assert effort.value == 6.5


@pytest.mark.parametrize(
    ("row", "column"),
    [
        ("A,1,depth,,,", "value"),
        ("A,1,rank,-2,,", "value"),
        ("A,1,effort,11,,", "value"),
        ("A,1,inspect,,,dent", "outcome"),
        ("A,1,dose_end,0,gf,", "value"),
    ],
)
def test_a_look_that_cannot_be_names_its_column(row, column):
    assert [
        (line, col) for line, col, _ in faults(f"blade,count,check,value,unit,outcome\n{row}\n")
    ] == [(2, column)]
