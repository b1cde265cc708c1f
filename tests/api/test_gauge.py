"""Gauge studies over the wire: the order, the answer, and files."""

STUDY = [
    {"part": part, "operator": operator, "value": value + off + tenth}
    for part, value in (("1", 150), ("2", 180), ("3", 240))
    for operator, off in (("A", 0), ("B", 12))
    for tenth in (-4, 4)
]


def test_a_study_is_read_in_its_order_and_answered_in_sentences(client):
    asked = {"parts": 3, "repeats": 2, "operator": ["A", "B"], "seed": 4}
    turns = client.get("/api/gauge-order", params=asked).json()
    assert len(turns) == 12
    assert turns == client.get("/api/gauge-order", params=asked).json()
    found = client.post("/api/gauge-studies", json={"readings": STUDY, "unit": "gf"}).json()
    assert found["sentences"][0].startswith("Two readings of one part by one operator differ by")
    assert [c["name"] for c in found["components"]][-2:] == ["gauge in all", "all readings"]
    assert {m["mean"] for m in found["means"] if m["part"] == "1"} == {150, 162}
    refused = client.get("/api/gauge-order", params={**asked, "operator": ["A", "A"]})
    assert (refused.status_code, refused.json()["field"]) == (422, "operators")


def test_studies_that_say_nothing_are_refused_in_words(client):
    once = client.post("/api/gauge-studies", json={"readings": STUDY[::4]})
    assert (once.status_code, once.json()["detail"]) == (
        422, "nobody read the same part twice: read every part again",
    )  # fmt: skip
    one = client.post("/api/gauge-studies", json={"readings": STUDY[:1]})
    assert one.status_code == 422
    equal = [{**reading, "value": 5} for reading in STUDY]
    assert client.post("/api/gauge-studies", json={"readings": equal}).status_code == 200
    of_one = client.post("/api/gauge-studies", json={"readings": STUDY[:2]}).json()
    assert "One operator: what operators add cannot be told." in of_one["notes"]


def test_a_file_is_read_or_refused_by_its_lines(client):
    sound = b"part,operator,trial,value,unit\n1,A,1,150,gf\n1,A,2,158,gf\n"
    read = client.post("/api/gauge-files", files={"file": ("a.gauge.csv", sound)}).json()
    assert (read["unit"], len(read["readings"])) == ("gf", 2)
    text = sound.replace(b"158", b"dull")
    refused = client.post("/api/gauge-files", files={"file": ("a.gauge.csv", text)})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["line"] == 3
