"""Shots and grades files: what is written is read back whole, in any table's dialect, and every
fault stands at its line.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.composition.elements import ELEMENTS
from kessik.core.composition.grades import Grade, Range
from kessik.core.composition.library import our_grades
from kessik.core.composition.shots import ElementReading, Shot
from kessik.interchange.grades_csv import read_grades, write_grades
from kessik.interchange.shots_csv import read_shots, shots_of, write_shots

HEAD = "blade,shot,element,percent,plus_minus,detected,surface,normalised\n"
NAMES = st.text("abcXYZ019 .-+=@", min_size=1, max_size=12).filter(lambda t: t.strip() == t and t)
SYMBOLS = st.lists(st.sampled_from(sorted(ELEMENTS)), min_size=1, max_size=6, unique=True)
PERCENT = st.floats(0.001, 16.0).map(lambda value: round(value, 4))


@st.composite
def some_shots(draw):
    names = draw(st.lists(NAMES, min_size=1, max_size=3, unique=True))
    found = []
    for name in names:
        readings = []
        for symbol in draw(SYMBOLS.filter(lambda symbols: "Fe" not in symbols)):
            seen = draw(st.booleans())
            spread = draw(PERCENT) if seen else None
            readings.append(ElementReading(symbol, draw(PERCENT), spread, seen))
        surface = draw(st.sampled_from(["", "bare", "coated"]))
        mode = draw(st.sampled_from(["yes", "no", "unknown"]))
        found.append(Shot("", "", name, tuple(readings), surface, mode))
    return found


@given(some_shots(), NAMES)
def test_shots_survive_the_round_trip(shots, code):
    text = write_shots((code, shot) for shot in shots)
    table = read_shots("a.shots.csv", text.encode())
    assert table.faults.count == 0, table.faults.first
    read = shots_of(table.rows, "a.shots.csv")
    told = [(s.name, s.readings, s.surface, s.normalised) for s in read]
    assert told == [(s.name, s.readings, s.surface, s.normalised) for s in shots]
    assert {s.blade_id for s in read} == {code}
    assert [s.id for s in shots_of(table.rows, "a.shots.csv")] == [s.id for s in read]


@given(st.dictionaries(NAMES, SYMBOLS, min_size=1, max_size=4), st.data())
def test_grades_survive_the_round_trip(symbols_by_name, data):
    grades = []
    for name, symbols in symbols_by_name.items():
        ranges = []
        for symbol in symbols:
            low = data.draw(st.none() | st.floats(0.0, 10.0))
            high = data.draw(st.none() | st.floats(10.0, 15.0))
            ranges.append(Range(symbol, low, high, "claimed", "a sheet"))
        grades.append(Grade(name, ranges=tuple(ranges), standard="X 1", route="powder"))
    read, faults, _ = read_grades("g.grades.csv", write_grades(grades).encode())
    alike = {grade.name.replace(" ", "").replace("-", "").casefold() for grade in grades}
    if len(alike) < len(grades):
        assert faults.count, "two spellings of one name are told"
    else:
        assert (faults.count, read) == (0, grades)


def test_our_library_goes_out_and_comes_in_as_it_is():
    text = write_grades(our_grades().values())
    read, faults, _ = read_grades("library.grades.csv", text.encode())
    assert faults.count == 0
    assert [grade.ranges for grade in read] == [grade.ranges for grade in our_grades().values()]


def test_semicolons_and_decimal_commas_are_taken_and_said():
    text = HEAD.replace(",", ";") + "A;1;cr;12,5;0,1;;bare;no\nA;1;V;0,02;;no;;\n"
    table = read_shots("a.shots.csv", text.encode("utf-8-sig"))
    assert table.faults.count == 0
    (shot,) = shots_of(table.rows, "a.shots.csv")
    assert [(r.element, r.percent, r.detected) for r in shot.readings] == [
        ("Cr", 12.5, True),
        ("V", 0.02, False),
    ]
    assert "semicolons and decimal commas" in table.notes[0]


@pytest.mark.parametrize(
    ("rows", "told"),
    [
        (["A,1,Fe,90,0.1,,,", "A,1,Cr,17,0.1,,,"], {(3, "percent")}),
        (["A,1,Fe,40,0.1,,,"], {(2, "percent")}),
        (["A,1,Cr,12,0.1,,bare,", "A,1,V,1,0.1,,coated,"], {(3, "surface")}),
        (["A,1,Cr,12,,,,", "A,,V,1,0.1,,,"], {(2, "plus_minus"), (3, "shot")}),
        (["A,1,Cr,twelve,0.1,,,", "A,1,Cr,12,0.1,,,"], {(2, "percent"), (3, "element")}),
    ],
)
def test_every_fault_of_a_shot_stands_at_its_line(rows, told):
    faults = read_shots("a.shots.csv", (HEAD + "\n".join(rows) + "\n").encode()).faults
    assert {(fault.line, fault.column) for fault in faults.first} == told


def test_two_grades_of_one_name_are_told():
    text = "grade,standard,element,max_percent\nX,EN 1,Cr,1\nX,EN 2,V,1\nx ,EN 1,C,1\n"
    faults = read_grades("g.grades.csv", text.encode())[1]
    assert {(fault.line, fault.column) for fault in faults.first} == {(3, "grade"), (4, "grade")}
