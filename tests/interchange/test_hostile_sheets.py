"""Sheets that were made to hurt: each is refused in a sentence, or read as what it holds."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import CancelledError, RefusedFileError
from kessik.interchange.csv_tables import Column, neutralise, read_table, restore
from kessik.interchange.named_files import NamedFile
from kessik.interchange.sheets_apart import read_sheet_apart
from tests.helpers.hostile_sheets import HOSTILE, READ, cell, workbook


@pytest.mark.parametrize("name", HOSTILE)
def test_a_hostile_sheet_costs_a_sentence(name):
    file = NamedFile("results.xlsx", HOSTILE[name])
    if name in READ:
        assert read_sheet_apart(file).rows == (("1",),)
        return
    with pytest.raises(RefusedFileError) as refused:
        read_sheet_apart(file)
    (fault,) = refused.value.faults
    assert len(fault.message) < 200
    assert "root:" not in fault.message


def test_reading_ends_when_nobody_waits_any_more():
    def go_on():
        raise CancelledError("cancelled")

    with pytest.raises(CancelledError):
        read_sheet_apart(NamedFile("results.xlsx", workbook(cell("A1", 1))), go_on)


def test_a_workbook_is_read_from_its_own_top_left_with_what_was_noticed():
    rows = (
        '<row r="2"><c r="C2" t="str"><v>blade</v></c></row>'
        f'<row r="4"><c r="C4"><f>1+1</f></c>{cell("D4", 0.5)}</row>'
    )
    merged = '</sheetData><mergeCells><mergeCell ref="D4:E4"/></mergeCells><sheetData>'
    read = read_sheet_apart(NamedFile("a.xlsx", workbook(rows + merged)))
    assert read.rows == ((), ("", "", "blade"), (), ("", "", "", "0.5"))
    assert any("D4:E4" in note for note in read.notes)
    assert any("C4; open and save" in note for note in read.notes)


def test_a_trial_file_of_millions_of_commas_is_refused_at_its_line():
    table = read_table("a.looks.csv", HOSTILE["commas"][:15_000_000], (Column("blade"),))
    (fault,) = table.faults.first
    assert (fault.line, fault.message[:33]) == (2, "this line has 14999989 cells; up ")


@given(st.text(alphabet="'=+-@ \t\n1a", max_size=6))
def test_no_text_goes_out_as_a_formula_and_all_of_it_comes_back(text):
    out = neutralise(text)
    assert not out.lstrip().startswith(("=", "+", "-", "@"))
    assert restore(out) == text
