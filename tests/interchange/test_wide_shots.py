"""Result files with one row a shot, as analysers export them."""

import pytest

from kessik.core.composition.shots import in_one_sigma
from kessik.interchange.shots_csv import read_shots, shots_of
from kessik.interchange.wide_shots import read_wide

COMMAS = """Sample,Reading No,Cr %,Cr +/-,V ppm,V +/-,W,W err,Mode
AV-06,1,11.92,0.06,2400,60,<LOD,0.02,alloy
AV-06,2,"11,85",0.05,2380,70,<0.03,,alloy
AV-07,3,5.2,0.1,,,0.71,0.03,alloy
"""
SEMICOLONS = "blade;shot;Cr;Cr ±;Mo;Mo ±\nAV-06;1;11,92;0,06;0,83;0,02\n"


def shots_in(text):
    table = read_shots("a.shots.csv", text.encode())
    assert table.faults.count == 0, table.faults
    return shots_of(table.rows, table.file)


def said(shot):
    return {r.element: (r.percent, r.plus_minus_percent, r.detected) for r in shot.readings}


def test_a_row_a_shot_is_read_as_a_row_an_element():
    first, second, third = shots_in(COMMAS)
    assert (first.blade_id, first.name, third.blade_id) == ("AV-06", "1", "AV-07")
    assert said(first) == {
        "Cr": (11.92, 0.06, True),
        "V": (pytest.approx(0.24), pytest.approx(0.006), True),
        "W": (0.02, 0.02, False),
    }
    assert said(second)["Cr"] == (11.85, 0.05, True)
    assert said(second)["W"] == (0.03, None, False)
    assert set(said(third)) == {"Cr", "W"}, "an empty cell was not read"
    assert said(shots_in(SEMICOLONS)[0]) == {"Cr": (11.92, 0.06, True), "Mo": (0.83, 0.02, True)}


def test_below_a_limit_that_is_not_told_was_not_read():
    (shot,) = shots_in("blade,shot,Cr,Cr ±,W,Mo,Mo ±\nA,1,12,0.1,<LOD,0.8,0.05\n")
    assert set(said(shot)) == {"Cr", "Mo"}


def test_two_standard_deviations_are_halved_and_the_shot_stays_the_same_one():
    (shot,) = shots_in(SEMICOLONS)
    halved = in_one_sigma(shot, "two_sigma")
    assert said(halved) == {"Cr": (11.92, 0.03, True), "Mo": (0.83, 0.01, True)}
    assert halved.id == shot.id
    assert in_one_sigma(shot, "one_sigma") == shot


@pytest.mark.parametrize(
    ("text", "line", "column"),
    [
        ("blade,shot,Cr,Cr ±,Mo\nA,1,a lot,0.1,0.5\n", 2, "Cr"),
        ("blade,shot,Cr,Mo\nA,1,12,0.5\n", 2, "plus_minus"),
        ("blade,shot,Cr,Cr ±,Mo,Mo ±\nA,1,120,0.1,0.5,0.1\n", 2, "percent"),
        ("shot,Cr,Cr ±,Mo,Mo ±\n1,12,0.1,0.5,0.1\n", 1, "blade"),
        ("blade,shot,Cr,Mo\nA,1,,\n", 1, ""),
    ],
)
def test_what_cannot_be_read_is_named_by_its_line_and_column(text, line, column):
    faults = read_shots("a.shots.csv", text.encode()).faults
    assert (line, column) in {(fault.line, fault.column) for fault in faults.first}


def test_a_file_with_a_row_an_element_is_left_to_its_own_reader():
    assert read_wide("a.csv", b"blade,shot,element,percent,plus_minus\nA,1,Cr,12,0.1\n") is None
    assert read_wide("a.csv", b"") is None
