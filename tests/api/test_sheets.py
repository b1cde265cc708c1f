"""Sheets of results as testers keep them: guessed, looked over, mended, brought in."""

import io
import zipfile
from uuid import uuid4

import openpyxl
import pandas as pd
import pytest
import xlsxwriter

from tests.helpers.sheets import TWO_STAGE, Desk

NUMBERED = """Knife;Edge;Fine (ft);Working (ft);Total
A;3;30;25;55
B;3;40-45;20;
A;4;31;26;57
"""


@pytest.fixture
def desk(client):
    return Desk(client)


def test_a_sheet_is_guessed_looked_over_and_brought_in(desk):
    seen = desk.look(TWO_STAGE)
    assert seen["school"] == "two_stage_board"
    roles = ["blade", "steel", "hardness_hrc", "angle_deg", "fine", "working", "total", "note"]
    assert seen["reading"]["roles"] == roles
    assert (seen["new"], seen["there"], seen["faulty"]) == (3, 0, 0)
    assert [(b["code"], b["known"]) for b in seen["blades"]] == [("A", "new"), ("B", "new")]
    reading = {**seen["reading"], "check_every": "5"}
    made = desk.bring(TWO_STAGE, reading=reading, school=seen["school"], name="Ten years")
    assert (made["kept"], made["skipped"]) == (3, 0)
    assert desk.lives(made["trial_id"]) == {
        ("A", 1): {"fine": (25, 30), "working": (50, 55)},
        ("B", 1): {"fine": (40, 45), "working": (55, 65)},
        ("A", 2): {"fine": (26, 31), "working": (52, 57)},
    }
    shelf = desk.client.get("/api/shelf").json()["blades"]
    a = next(b["blade"] for b in shelf if b["blade"]["code"] == "A")
    assert a["claimed_grade"] == "1.4034"


def test_slips_stand_at_row_and_column_and_nothing_is_stored(desk):
    faulty = TWO_STAGE.replace("25;55", "25;56").replace("40-45", "4O")
    seen = desk.look(faulty)
    told = [(f["line"], f["column"]) for f in seen["faults"]]
    assert told == [(2, "G Total"), (3, "E Fine (ft)")]
    assert "make 55, and the total says 56" in seen["faults"][0]["message"]
    form = {"reading": seen["reading"], "school": seen["school"]}
    refused = desk.send("sheet-imports", faulty, **form)
    assert refused.status_code == 422
    assert [(f["line"], f["column"]) for f in refused.json()["faults"]] == told
    assert desk.client.get("/api/shelf").json()["blades"] == []
    assert desk.client.get("/api/today").json()["trials"] == []


def test_every_row_with_a_slip_is_marked_however_many_there_are(desk):
    rows = "".join(f"A;{n};30;25;{55 + n % 2}\n" for n in range(1, 501))
    seen = desk.look(f"Knife;Edge;Fine;Working;Total\n{rows}")
    assert (seen["new"], seen["faulty"], seen["fault_count"]) == (250, 250, 250)
    assert {line["status"] for line in seen["lines"]} == {"faulty"}


def test_rows_that_are_there_are_skipped_or_replaced(desk):
    numbered = NUMBERED
    seen = desk.look(numbered)
    form = {"reading": seen["reading"], "school": seen["school"]}
    trial = desk.bring(numbered, **form)["trial_id"]
    again = desk.look(numbered, trial_id=trial)
    assert (again["new"], again["there"]) == (0, 3)
    form = {"reading": seen["reading"], "trial_id": trial}
    assert desk.bring(numbered, **form)["skipped"] == 3
    other = numbered.replace(";30;25;55", ";32;25;57")
    made = desk.bring(other, **form, on_there="replace")
    assert (made["kept"], made["replaced"]) == (3, 3)
    assert desk.lives(trial)["A", 3]["fine"][1] == 32
    assert [entry["name"] for entry in desk.client.get("/api/bin").json()] == ["3 runs in old"]


def test_a_row_a_check_and_a_column_a_blade_are_the_same_series(desk):
    by_check = "blade,cuts,force (N)\n" + "".join(
        f"{blade},{n},{value}\n"
        for blade, values in (("A", (1.5, 2.5, 3.6)), ("B", (1.4, 2.0, 3.0)))
        for n, value in zip((0, 10, 20), values, strict=True)
    )
    wide = "cuts\tA\tB\n0\t1,5\t1,4\n10\t2,5\t2,0\n20\t3,6\t3,0\n"
    found = []
    for text in (by_check, wide):
        seen = desk.look(text)
        reading = {**seen["reading"], "force_unit": "N"}
        made = desk.bring(text, reading=reading, school="force_limit_rope", name=str(len(found)))
        verdict = desk.client.get(f"/api/trials/{made['trial_id']}/verdict").json()["answer"]
        found.append(
            {r["blade"]: [round(x["force_gf"], 3) for x in r["readings"]] for r in verdict["runs"]}
        )
        for blade in desk.client.get("/api/shelf").json()["blades"]:
            away = f"/api/blades/{blade['blade']['id']}/archived"
            desk.client.put(away, json={"archived": True})
            code = {"code": f"{blade['blade']['code']} {len(found)}"}
            desk.client.patch(f"/api/blades/{blade['blade']['id']}", json=code)
    assert found[0] == found[1]
    assert found[0]["A"][0] == pytest.approx(152.957)


def test_a_blade_that_is_there_hides_no_other_column(desk):
    wide = "cuts,A,B\n0,150,140\n10,300,2x\n20,420,390\n"
    seen = desk.look(wide, school="force_limit_rope")
    assert [(line["blade"], line["status"]) for line in seen["lines"]] == [
        ("B", "faulty"),
        ("A", "new"),
    ]
    (fault,) = seen["faults"]
    assert (fault["line"], fault["column"]) == (3, "C B")


def test_a_reading_is_remembered_for_sheets_of_the_same_heads(desk):
    seen = desk.look(TWO_STAGE)
    reading = {**seen["reading"], "check_every": "5"}
    form = {"reading": reading, "school": seen["school"], "reading_name": "Shed book"}
    trial = desk.bring(TWO_STAGE, **form)["trial_id"]
    again = desk.look(TWO_STAGE.replace("first try", "later"), trial_id=trial)
    assert [r["name"] for r in again["remembered"]] == ["Shed book"]
    assert again["remembered"][0]["reading"] == reading
    assert [b["known"] for b in again["blades"]] == ["in_trial", "in_trial"]


def book(maker):
    out = io.BytesIO()
    rows = [["Knife", "Fine (ft)", "Working (ft)"], ["A", 30, 25], ["B", 40.5, 20]]
    if maker == "openpyxl":
        made = openpyxl.Workbook()
        for row in rows:
            made.active.append(row)
        made.save(out)
    else:
        with xlsxwriter.Workbook(out) as made:
            sheet = made.add_worksheet()
            for n, row in enumerate(rows):
                sheet.write_row(n, 0, row)
    return out.getvalue()


def test_workbooks_of_two_makers_and_text_of_pandas_and_two_locales_read_alike(desk):
    texts = ["Knife,Fine (ft),Working (ft)\nA,30,25\nB,40.5,20\n",
             "Knife;Fine (ft);Working (ft)\r\nA;30;25\r\nB;40,5;20\r\n"]  # fmt: skip
    seen = [desk.look(book(maker), name="b.xlsx") for maker in ("openpyxl", "xlsxwriter")]
    frame = pd.DataFrame({"Knife": ["A", "B"], "Fine (ft)": [30.0, 40.5], "Working (ft)": [25, 20]})
    texts += [frame.to_csv(index=False), frame.to_csv(index=False, sep=";", decimal=",")]
    seen += [desk.look(text) for text in texts]
    says = [[(line["blade"], line["says"]) for line in each["lines"]] for each in seen]
    assert says == [[("A", "fine 30, working 25"), ("B", "fine 40.5, working 20")]] * 6


def odd_files():
    bomb = io.BytesIO()
    with zipfile.ZipFile(bomb, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("xl/workbook.xml", "<a/>")
        archive.writestr("xl/worksheets/sheet1.xml", b"0" * 250_000_000)
    return {
        "empty": (b"", "the file is empty"),
        "a password": (b"\xd0\xcf\x11\xe0" + b"0" * 600, "protected by a password"),
        "a zip bomb": (bomb.getvalue(), "it would unpack to 250 MB"),
        "no workbook": (b"PK\x03\x04rest", "this workbook cannot be read"),
        "too many rows": (b"a,b\n" + b"1,2\n" * 30_000, "more than 20000 rows"),
        "too many columns": (b",".join(b"x" for _ in range(5000)), "up to 200 can be read"),
        "binary": (b"\x80\x00\xff" * 200, "this is neither text"),
    }


@pytest.mark.parametrize("kind", odd_files())
def test_what_is_no_sheet_is_refused_in_a_sentence(desk, kind):
    data, says = odd_files()[kind]
    answer = desk.send("sheet-previews", data)
    assert answer.status_code == 422
    assert says in answer.json()["detail"]


def test_odd_sheets_are_read_as_far_as_they_say_something(desk):
    two_heads = "Knife,Fine,Working\n,ft,ft\nA,30,25\n"
    assert desk.look(two_heads)["heads"] == ["Knife", "Fine ft", "Working ft"]
    dated = "Knife,Fine,Working\nA,2026-05-03,25\n"
    (fault,) = desk.look(dated)["faults"]
    assert "a sheet makes one of 3-5" in fault["message"]
    made = openpyxl.Workbook()
    for row in (["Knife", "Fine", "Total"], ["A", 30, "=B2+25"], ["B", 20, None]):
        made.active.append(row)
    made.active.merge_cells("A3:A4")
    out = io.BytesIO()
    made.save(out)
    notes = " ".join(desk.look(out.getvalue(), name="f.xlsx")["notes"])
    assert "formulas without a value were read as empty: C2" in notes
    assert "merged cells hold one value, in their first cell: A3:A4" in notes


def test_a_blade_of_the_shelf_is_the_same_one_and_an_archived_one_is_asked_for(desk):
    blade = str(uuid4())
    desk.client.put(f"/api/blades/{blade}", json={"id": blade, "code": "a"})
    seen = desk.look(TWO_STAGE)
    assert next(b["known"] for b in seen["blades"] if b["code"] == "A") == "on_shelf"
    made = desk.bring(TWO_STAGE, reading=seen["reading"], school=seen["school"])
    assert len(desk.client.get("/api/shelf").json()["blades"]) == 2
    assert made["kept"] == 3
    desk.client.put(f"/api/blades/{blade}/archived", json={"archived": True})
    (fault, *_) = desk.look(TWO_STAGE)["faults"]
    assert "A is archived" in fault["message"]
