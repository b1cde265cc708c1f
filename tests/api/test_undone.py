"""Every act of a page can be undone, whole, as long as nothing was built on it."""

import io
from uuid import uuid4

import pytest
from PIL import Image
from sqlalchemy import text

from kessik.store.changes import UNDOABLE


def rows_of(database):
    with database.read() as session:
        return {
            table: sorted(map(tuple, session.execute(text(f"SELECT * FROM {table}"))), key=repr)
            for table in UNDOABLE
        }


def picture():
    made = io.BytesIO()
    Image.new("RGB", (20, 10)).save(made, "PNG")
    return {"photo": ("a.png", made.getvalue())}


class Shelf:
    """A hand with a trial, a batch, a lot and a soak; `do` an act, `undo` the last."""

    def __init__(self, hand):
        self.hand, self.client = hand, hand.client
        (self.blade, self.edge), _ = hand.make_trial("A", "B")
        self.trial = hand.trial
        put = self.client.put
        readings = [{"element": "Cr", "percent": 12.0, "plus_minus_percent": 0.1}]
        shot = {"name": "1", "readings": readings, "batch_id": "batch-01"}
        batch = {"name": "Spring post", "blade_ids": [self.blade], "sent_on": "2026-05-04"}
        method = self.client.get("/api/soak-methods").json()[0]
        coupons = [{"id": "coupon-01", "name": "A"}, {"id": "coupon-02", "name": "B"}]
        soak = {"name": "Pack", "question": "Which?", "factor": "steel", "method": method}
        for address, body in (
            ("/api/batches/batch-01", batch),
            (f"/api/blades/{self.blade}/shots/shot-0001", shot),
            ("/api/lots/lot-00001", {"id": "lot-00001", "kind": "rope", "name": "H", "unit": "m"}),
            ("/api/soaks/soak-0001", {**soak, "coupons": coupons}),
        ):
            assert put(address, json=body).is_success, address

    def do(self, verb, address, body=None, **rest):
        self.answer = self.client.request(verb, address.format(**vars(self)), json=body, **rest)
        assert self.answer.is_success, self.answer.text
        return self.answer.headers["kessik-change"].partition(" ")[2].replace("%20", " ")

    def undo(self):
        change = self.answer.headers["kessik-change"].split()[0]
        return self.client.post(f"/api/changes/{change}/undone")


@pytest.fixture
def shelf(hand):
    return Shelf(hand)


FACT = {"id": "fact-0001", "quantity": "hardness_hrc", "value": 60, "standing": "measured_here"}
BEGUN = {"at_utc": "2026-05-04T08:00:00+00:00"}
STRUCK = {"reason": "touched the tape"}
ACTS = [
    (
        "PUT",
        "/api/blades/{blade}/measurements/fact-0001",
        {"id": "fact-0001", **FACT},
        "fact added",
    ),
    ("PUT", "/api/trials/trial-0002", {"id": "trial-0002", "name": "Carton"}, "trial added"),
    ("PATCH", "/api/blades/{blade}", {"note": "lent twice"}, "blade changed"),
    ("PUT", "/api/blades/{blade}/archived", {"archived": True}, "blade changed"),
    ("PUT", "/api/blades/{blade}/edges/edge-00009", {"id": "edge-00009"}, "edge added"),
    ("DELETE", "/api/blades/{blade}/edges/{edge}", None, "edge removed"),
    ("DELETE", "/api/trials/{trial}/blades/{blade}", None, "place in the trial removed"),
    ("PUT", "/api/trials/{trial}/cautions", {"seen": True}, "trial changed"),
    ("PATCH", "/api/batches/batch-01", {"name": "Autumn"}, "batch changed"),
    ("PUT", "/api/blades/{blade}/shots/shot-0001/struck", STRUCK, "shot changed"),
    ("PUT", "/api/lots/lot-00001/archived", {"archived": True}, "lot changed"),
    ("PUT", "/api/soaks/soak-0001/started", BEGUN, "soak changed"),
    (
        "PUT",
        "/api/blades/{blade}/exposures/wet-00001",
        {"hours": 6, "medium": "rain"},
        "exposure added",
    ),
    (
        "PUT",
        "/api/toughness/tough-001",
        {"grade": "1.4034", "joules": 9, "specimen": "10 x 10"},
        "toughness added",
    ),
    ("PUT", "/api/grades/1.4034", {"usual_low_hrc": 55, "usual_high_hrc": 58}, "grade added"),
]


@pytest.mark.parametrize(("verb", "address", "body", "says"), ACTS, ids=lambda part: str(part)[:40])
def test_an_act_is_taken_back_whole(shelf, database, verb, address, body, says):
    before = rows_of(database)
    assert shelf.do(verb, address, body) == says
    assert rows_of(database) != before
    for _ in "once", "twice":
        assert shelf.undo().status_code == 204
        assert rows_of(database) == before


def test_a_picture_that_was_taken_away_is_there_again(shelf):
    page = f"/api/blades/{shelf.blade}"
    assert shelf.do("POST", page + "/photos", files=picture()) == "picture added"
    hash_ = shelf.answer.json()["hash"]
    assert shelf.do("DELETE", f"{page}/photos/{hash_}") == "picture removed"
    assert shelf.undo().status_code == 204
    assert [photo["hash"] for photo in shelf.client.get(page).json()["photos"]] == [hash_]
    assert shelf.client.get(f"/api/pictures/{hash_}").status_code == 200


def test_an_instrument_is_unplugged_and_plugged_in_again_with_it(shelf, tmp_path):
    camera = {"id": "camera-01", "kind": "camera", "name": "Lamp", "address": str(tmp_path)}
    desk = shelf.client.app.state.server.desk
    assert shelf.do("PUT", "/api/instruments/camera-01", camera) == "instrument added"
    assert shelf.do("PUT", "/api/instruments/camera-01/put-away") == "instrument changed"
    assert "camera-01" not in desk._ports
    assert shelf.undo().status_code == 204
    assert "camera-01" in desk._ports


def test_what_was_built_on_an_act_keeps_it(shelf, database):
    shelf.do("PUT", "/api/blades/{blade}/edges/edge-00009", {"id": "edge-00009"})
    added = shelf.answer
    shelf.hand.start("edge-00009")
    before = rows_of(database)
    assert (shelf.undo().status_code, shelf.undo().json()["field"]) == (409, "change")
    shelf.do("PATCH", "/api/blades/{blade}", {"note": "one"})
    first = shelf.answer
    shelf.do("PATCH", "/api/blades/{blade}", {"note": "two"})
    shelf.answer = first
    assert "changed again since" in shelf.undo().json()["detail"]
    assert shelf.client.get(f"/api/blades/{shelf.blade}").json()["blade"]["note"] == "two"
    assert added.headers["kessik-change"] != first.headers["kessik-change"]
    assert rows_of(database)["edge"] == before["edge"]


@pytest.mark.parametrize(
    ("act", "use", "says"),
    [
        (
            ("PUT", "/api/grades/shed steel", {"usual_low_hrc": 55, "usual_high_hrc": 58}),
            ("PATCH", "/api/blades/{blade}", {"claimed_grade": "shed steel"}),
            "blades are sold as it by now",
        ),
        (
            ("PUT", "/api/batches/batch-02", {"name": "Autumn"}),
            ("PUT", "/api/blades/{blade}/shots/shot-0002", {
                "name": "2", "batch_id": "batch-02",
                "readings": [{"element": "Cr", "percent": 12.0, "plus_minus_percent": 0.1}],
            }),
            "shots of it came in since",
        ),
    ],
)  # fmt: skip
def test_what_is_named_elsewhere_by_now_is_kept_and_said(shelf, database, act, use, says):
    shelf.do(*act)
    added = shelf.answer
    shelf.do(*use)
    before = rows_of(database)
    shelf.answer = added
    refused = shelf.undo()
    assert (refused.status_code, says in refused.json()["detail"]) == (409, True)
    assert rows_of(database) == before


def test_what_cannot_be_undone_is_not_offered(shelf):
    hand, client = shelf.hand, shelf.client
    covered = f"/api/trials/{hand.trial}/covered"
    assert client.put(covered, json={"covered": True}).is_success
    uncovered = client.put(covered, json={"covered": False})
    run = str(uuid4())
    started = client.put(
        f"/api/trials/{hand.trial}/runs/{run}", json={"id": run, "edge_id": shelf.edge}
    )
    asked = client.get("/api/shelf")
    for answer in (uncovered, started, asked):
        assert answer.is_success
        assert "kessik-change" not in answer.headers
    assert client.post(f"/api/changes/{uuid4()}/undone").status_code == 404
