"""Pass and fail through the files and back: every record keeps what it says, and every stage has
its place.
"""

import csv
import io
import zipfile

SERIES = "blade,edge,count,count_unit,check,outcome\n" + "\n".join(
    f"{blade},{edge},{count},ft,{check},{said}"
    for blade, edge, fine, total in (("A", 1, 20, 60), ("A", 2, 21, 61), ("B", 1, 20, 90))
    for check, at in (("hair_sample", fine), ("paper", total))
    for count, said in ((at - 1, "pass"), (at + 1, "fail"))
)
RUNS = (
    "blade,edge,verifies_run,block,check_every\nA,1,,morning,\nA,2,1,evening,\nB,1,,evening,2.5\n"
)


def imported(client, series, runs=""):
    files = [("files", ("Stages.series.csv", series))]
    files += [("files", ("Stages.runs.csv", runs))] if runs else []
    made = client.post("/api/imports", files=files)
    assert made.status_code == 200, made.text
    return made.json()


def answer(client, trial):
    return client.get(f"/api/trials/{trial}/verdict").json()["answer"]


def test_every_stage_has_its_place_and_they_add_up_to_the_total(client):
    trial = imported(client, SERIES)["trials"][0]["id"]
    found = answer(client, trial)
    assert found["stage"] == "working"
    assert [other["stage"] for other in found["other_stages"]] == ["fine"]
    assert found["sums"][0] == "A, edge 1: fine 20 + working 40 = total 60 ft"
    whole = next(line for line in found["sums"] if line.startswith("A: "))
    fine, working, total = (float(word) for word in whole.split() if word[0].isdigit())
    assert abs(fine + working - total) < 0.15, "what is shown reconciles"
    assert {pair["tag"] for pair in found["comparisons"]} == {"B lasts longer"}


def test_blocks_verification_and_gaps_survive_the_files(client):
    trial = imported(client, SERIES, RUNS)["trials"][0]["id"]
    told = answer(client, trial)
    verified = "A, edge 2 verifies edge 1 to working: 60 and 61 ft agree within 1.7 %"
    assert any(note.startswith(verified) for note in told["notes"])
    packed = client.get(f"/api/trials/{trial}/files").content
    with zipfile.ZipFile(io.BytesIO(packed)) as archive:
        files = {name: archive.read(name).decode() for name in archive.namelist()}
    runs = next(text for name, text in files.items() if name.endswith(".runs.csv"))
    rows = {(row["blade"], row["edge"]): row for row in csv.DictReader(io.StringIO(runs))}
    assert (rows["A", "1"]["block"], rows["A", "1"]["verifies_run"]) == ("1", "")
    assert (rows["A", "2"]["block"], rows["A", "2"]["verifies_run"]) == ("2", "1/1")
    assert rows["B", "1"]["check_every"] == "2.5"
    again = client.post(
        "/api/imports",
        files=[("files", (name, text)) for name, text in files.items()],
    ).json()["trials"][0]["id"]
    assert answer(client, again)["notes"] == told["notes"]
    assert answer(client, again)["headline"] == told["headline"]


def test_totals_without_a_gap_are_asked_about_once_when_they_come_in(client):
    lone = "blade,edge,count,check,outcome\nA,1,84,paper,fail\nA,2,90,paper,fail\n"
    (question,) = [n for n in imported(client, lone)["notes"] if "how often was checked" in n]
    assert question.startswith("Stages: 2 runs written down as totals")
