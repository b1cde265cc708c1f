"""Reports: the numbers of the answer, on paper; the same data give the same bytes."""

import io
import json
import re
from uuid import uuid4

import openpyxl
import pypdf
import pytest

from tests.helpers.paper import Paper, line

LONG = "Нож старого плотника Ελληνικό μαχαίρι 刀 सूरी " * 4


@pytest.fixture
def trial(client):
    paper = Paper(client)
    paper.make_trial("A", "B", school="force_limit_rope", question="Which of the two?")
    paper.kept(*(line(code, n, dull=at) for code, n, at in (
        ("A", 3, "18-20"), ("A", 4, "20-22"), ("B", 3, "30-33"), ("B", 4, "33-36"),
    )))  # fmt: skip
    return paper.trial


def report(client, *trials, kind="pdf", **wish):
    body = {"trials": list(trials), "kind": kind, **wish}
    answer = client.post("/api/reports", json=body)
    assert answer.status_code == 200, answer.text
    return answer.content


def read_back(content):
    """The words of a PDF, in one line."""
    pages = pypdf.PdfReader(io.BytesIO(content)).pages
    return re.sub(r"\s+", " ", " ".join(page.extract_text() for page in pages))


def test_the_pdf_says_what_the_answer_says_number_for_number(client, trial):
    answer = client.get(f"/api/trials/{trial}/verdict").json()["answer"]
    said = read_back(report(client, trial))
    assert answer["headline"] in said
    for blade in answer["ladder"]:
        for life in blade["lives"].values():
            assert life["words"] in said
    for pair in answer["comparisons"]:
        assert pair["size"] in said
        assert pair["interval"] in said
    assert "Which of the two?" in said
    assert "What this does not show" in said


def test_the_workbook_holds_the_numbers_and_works_out_the_plain_ones(client, trial):
    answer = client.get(f"/api/trials/{trial}/verdict").json()["answer"]
    content = report(client, trial, kind="xlsx")
    assert content == report(client, trial, kind="xlsx"), "the same bytes"
    book = openpyxl.load_workbook(io.BytesIO(content))
    edges = list(book["Edges"].iter_rows(min_row=2, values_only=True))
    said = [(r["blade"], r["run"]["edge"], life["words"])
            for r in answer["runs"] for life in r["lives"].values()]  # fmt: skip
    assert [(row[1], row[2], row[8]) for row in edges] == said
    assert edges[0][10] == '=IF(F2="","",LN(F2))'
    ladder = {b["blade"]: b["lives"][answer["stage"]] for b in answer["ladder"]}
    for row in book["Blades"].iter_rows(min_row=2, values_only=True):
        if row[2] == answer["stage"]:
            assert row[3] == pytest.approx(ladder[row[1]]["estimate"], rel=1e-12)
            assert row[8].startswith("=IFERROR(EXP(AVERAGEIFS(Edges!$K:$K,")
    readings = sum(len(run["readings"]) for run in answer["runs"])
    assert book["Readings"].max_row == 1 + readings


def test_the_pdf_can_be_read_aloud(client, trial):
    found = pypdf.PdfReader(io.BytesIO(report(client, trial)))
    root = found.trailer["/Root"]
    assert root["/MarkInfo"]["/Marked"] is True or root["/MarkInfo"]["/Marked"]
    assert root["/Lang"] == "en"
    assert "/StructTreeRoot" in root
    assert found.metadata.title == "Raft rope"
    told = [m for m in found.metadata.values() if "analysis" in str(m)]
    assert told, "it says what it was made from"


def test_one_source_gives_the_same_bytes_and_words(client, trial):
    assert report(client, trial) == report(client, trial)
    page = report(client, trial, kind="html").decode()
    assert page == report(client, trial, kind="html").decode()
    headline = client.get(f"/api/trials/{trial}/verdict").json()["answer"]["headline"]
    assert headline in page
    assert "http://" not in page.replace("http://www.w3.org/2000/svg", "")
    assert "<script" not in page


def test_what_is_left_out_is_not_in_it(client, trial):
    (blade, *_) = client.get(f"/api/trials/{trial}/line-up").json()["blades"]
    change = {"owner": "Corran Hidden", "price": "777 kr", "note": "Secret nick"}
    assert client.patch(f"/api/blades/{blade['id']}", json=change).status_code == 200
    everything = report(client, trial, kind="html").decode()
    assert all(word in everything for word in change.values())
    bare = report(client, trial, kind="html", leave_out=["owners", "prices", "notes"]).decode()
    assert not any(word in bare for word in change.values())


def test_a_report_says_when_its_answer_is_no_longer_todays(client, trial):
    last = f"/api/trials/{trial}/last-report"
    assert client.get(last).json() == {"made_utc": "", "is_current": True}
    report(client, trial)
    assert client.get(last).json()["is_current"]
    assert client.patch(f"/api/trials/{trial}", json={"question": "Another?"}).status_code == 200
    assert not client.get(last).json()["is_current"]
    report(client, trial)
    assert client.get(last).json()["is_current"]


def test_names_of_200_letters_in_four_scripts_are_printed_as_far_as_fonts_go(client, trial):
    name = LONG[:200].strip()
    assert client.patch(f"/api/trials/{trial}", json={"name": name}).status_code == 200
    assert name in report(client, trial, kind="html").decode()
    said = read_back(report(client, trial))
    assert "Нож старого плотника" in said
    assert "Ελληνικό" in said
    assert "stand as ?" in said


def test_a_trial_without_runs_is_a_report_of_its_plan(client):
    paper = Paper(client)
    paper.make_trial("A", "B", school="force_limit_rope")
    said = read_back(report(client, paper.trial))
    assert "No reading has been taken yet." in said
    assert "Method" in said


def test_forty_blades_find_room(client):
    paper = Paper(client)
    paper.make_trial(*(f"N{n:02}" for n in range(40)), school="force_limit_rope")
    said = read_back(report(client, paper.trial))
    assert all(f"N{n:02}" in said for n in range(40))


def test_a_trial_that_is_hidden_still_has_no_report(hand):
    hand.make_trial("A", "B")
    client, trial = hand.client, hand.trial
    blind = client.put(f"/api/trials/{trial}/covered", json={"covered": True, "seed": 3})
    assert blind.status_code == 200, blind.text
    answer = client.post("/api/reports", json={"trials": [trial]})
    assert answer.status_code == 409
    assert "a report would show it" in answer.json()["detail"]


def test_no_such_trial_or_chart_is_said_plainly(client, trial):
    assert client.post("/api/reports", json={"trials": [str(uuid4())]}).status_code == 404
    assert client.post("/api/reports", json={"trials": []}).status_code == 422
    assert client.get(f"/api/trials/{trial}/charts/moon").status_code == 404


def test_a_chart_is_a_picture_with_its_caption(client, trial):
    drawn = client.get(f"/api/trials/{trial}/charts/lives")
    assert drawn.headers["content-type"] == "image/svg+xml"
    assert ">A<" in drawn.text
    png = client.get(f"/api/trials/{trial}/charts/lives", params={"kind": "png"})
    assert png.content.startswith(b"\x89PNG")


def test_a_season_has_its_standings_first(client, trial):
    second = Paper(client)
    second.make_trial("=A", "=B", name="Second", school="force_limit_rope")
    second.kept(line("=A", 5, dull="18-20"), line("=B", 5, dull="28-31"))
    client.get("/api/today")
    said = read_back(report(client, trial, second.trial, with_standings=True))
    assert said.index("Standings") < said.index("Raft rope", 40)
    assert json.dumps("2 trials")[1:-1] in said


def test_a_card_is_a_picture_of_one_blade(client, trial):
    (blade, *_) = client.get(f"/api/trials/{trial}/line-up").json()["blades"]
    card = client.get(f"/api/blades/{blade['id']}/card")
    assert card.content.startswith(b"\x89PNG")
    assert card.content == client.get(f"/api/blades/{blade['id']}/card").content
    client.patch(f"/api/blades/{blade['id']}", json={"owner": "Corran Forge"})
    named = client.get(f"/api/blades/{blade['id']}/card").content
    bare = client.get(f"/api/blades/{blade['id']}/card", params={"leave_out": "owners"}).content
    assert named != card.content
    assert bare == card.content
    assert client.get(f"/api/blades/{uuid4()}/card").status_code == 404
