"""The OpenAPI contract, driven by Schemathesis: whatever is sent, never a 500, and answers as
declared.
"""

import io
import shutil
from itertools import count

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from hypothesis.stateful import run_state_machine_as_test
from PIL import Image
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import response_schema_conformance, status_code_conformance

from kessik.api.app import create_app
from kessik.services.practice.playing import PlayedTrial
from kessik.store.database import Database
from tests.helpers.ledger import fill

CHECKS = [not_a_server_error, status_code_conformance, response_schema_conformance]
BRIEF = settings(
    max_examples=4,
    deadline=None,
    derandomize=True,
    suppress_health_check=list(HealthCheck),
    database=None,
)


class AtHome:
    """The application as a browser on its own machine meets it."""

    def __init__(self, app):
        self.app = app

    async def __call__(self, scope, receive, send):
        await self.app({**scope, "client": ("127.0.0.1", 50000)}, receive, send)


@pytest.fixture(autouse=True)
def played_at_once(monkeypatch):
    """A plan is played by processes of its own for a quarter of a minute; tests of its own see it
    through.
    """
    nothing = PlayedTrial(1, (), ())
    monkeypatch.setattr("kessik.services.practice.played.play", lambda _spec, _told: [nothing])


@pytest.fixture
def filled(database, hand, tmp_path):
    """A store with something of everything; the ids of it by the names that paths have for them."""
    (blade, edge), (_, other) = hand.make_trial("A", "B", schedule="every", every=4)
    run = hand.start(edge)
    at = hand.cut(run, 4)
    hand.read(run, 260, at)
    hand.send(run, "note", {"text": "rolled"}, at=at)
    stopped = hand.start(other)
    hand.cut(stopped, 2)
    hand.send(stopped, "stop", {"reason": "tired"}, at=2)
    lot = {"id": "lot-of-rope", "kind": "rope", "name": "Hemp", "unit": "m", "bought_amount": 50}
    assert hand.client.put("/api/lots/lot-of-rope", json=lot).status_code == 200
    made = io.BytesIO()
    Image.new("RGB", (20, 10)).save(made, "PNG")
    photo = hand.client.post(
        f"/api/blades/{blade}/photos", files={"photo": ("a.png", made.getvalue())}
    ).json()["hash"]
    camera = {"id": "camera-01", "kind": "camera", "name": "Lamp", "address": str(tmp_path)}
    assert hand.client.put("/api/instruments/camera-01", json=camera).status_code == 200
    batch = {"name": "Spring post", "blade_ids": [blade], "sent_on": "2026-05-04"}
    assert hand.client.put("/api/batches/batch-01", json=batch).status_code == 200
    readings = [{"element": "Cr", "percent": 12.0, "plus_minus_percent": 0.1}]
    shot = {"name": "1", "readings": readings, "batch_id": "batch-01"}
    assert hand.client.put(f"/api/blades/{blade}/shots/shot-0001", json=shot).status_code == 200
    method = hand.client.get("/api/soak-methods").json()[0]
    coupons = [{"id": "coupon-01", "name": "A"}, {"id": "coupon-02", "name": "B"}]
    soak = {"name": "Pack", "question": "Which?", "factor": "steel", "method": method}
    put = hand.client.put
    assert put("/api/soaks/soak-0001", json={**soak, "coupons": coupons}).status_code == 200
    begun = {"at_utc": "2026-05-04T08:00:00+00:00"}
    assert put("/api/soaks/soak-0001/started", json=begun).status_code == 200
    seen = {"coupon_id": "coupon-01", "side": "left", "stage": "wiped", "grade": 7, **begun}
    assert put("/api/soaks/soak-0001/looks/look-0001", json=seen).status_code == 200
    done = {"kind": "note", "said": "begun", **begun}
    assert put("/api/soaks/soak-0001/acts/act-00001", json=done).status_code == 200
    assert put("/api/blades/blade-gone", json={"id": "blade-gone", "code": "Z"}).is_success
    gone = {"kind": "blade", "owner_id": "blade-gone"}
    assert put("/api/bin/bin-00001", json=gone).status_code == 200
    ids = {
        "soak_id": "soak-0001",
        "look_id": "look-0001",
        "act_id": "act-00001",
        "batch_id": "batch-01",
        "shot_id": "shot-0001",
        "name": "1.2436",
        "trial_id": hand.trial,
        "run_id": run,
        "blade_id": blade,
        "edge_id": edge,
        "lot_id": "lot-of-rope",
        "content_hash": photo,
        "picture": photo,
        "instrument_id": "camera-01",
        "bin_id": "bin-00001",
    }
    return database, hand, ids


def schema_of(app):
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, headers={"host": "localhost"})
    return schema.exclude(
        path_regex=r"/follow$"
    )  # a stream has no end to wait for; it has tests of its own


def operations_of(app):
    return [found.ok() for found in schema_of(app).get_all_operations()]


def test_nothing_sent_makes_the_server_fail_or_breaks_what_is_kept(filled, tmp_path):
    """Each request is sent to an empty folder and to one in which it meets something."""
    database, hand, ids = filled
    empty = Database(tmp_path / "empty")
    home = AtHome(None)
    folders = [(create_app(empty, renews=False), {}), (create_app(database, renews=False), ids)]
    home.app, _ = folders[0]
    operations = operations_of(home)
    assert len(operations) >= 60, "the checker saw the contract"
    for operation in operations:
        fuzz(operation, home, folders)
    empty.close()
    pages = ["/api/today", "/api/shelf", "/api/lots", "/api/instruments", "/api/methods"]
    pages += ["/api/assays", "/api/grades", "/api/grades-alike", "/api/performance"]
    pages += ["/api/soaks", "/api/soaks-side-by-side", "/api/bin", "/api/backups"]
    trials = [t["trial"]["id"] for t in hand.client.get("/api/today").json()["trials"]]
    assert hand.client.get("/api/today").json()["failed"] == []
    for trial in trials[:3]:
        pages += [
            f"/api/trials/{trial}/{page}"
            for page in ("verdict", "line-up", "record", "plan", "files")
        ]
    if hand.client.get(f"/api/blades/{ids['blade_id']}").status_code == 200:
        pages += [f"/api/runs/{ids['run_id']}", f"/api/runs/{ids['run_id']}/log.csv"]
    for page in pages:
        assert hand.client.get(page).status_code == 200, page


def test_what_one_answer_leads_to_never_fails(client, database, tmp_path):
    """What is there, and what was made, is asked for, changed and deleted in any order: the links
    of the contract are followed, each time in a folder with something of everything.
    """
    fill(client)
    home = AtHome(create_app(None))
    folders = count()
    answered = []

    class Tester(schema_of(home).as_state_machine()):
        def setup(self):
            folder = shutil.copytree(database.folder, tmp_path / str(next(folders)))
            self.database = Database(folder, hurried=True)
            home.app = create_app(self.database, renews=False)

        def teardown(self):
            home.app.state.server.close()
            self.database.close()

        def get_call_kwargs(self, case):
            return {"headers": {"host": "localhost"}}

        def validate_response(self, response, case, **_more):
            answered.append(case.operation.label)
            if not all(case.path_parameters.values()):
                return  # an empty id makes another address
            case.validate_response(response, checks=CHECKS)

    run_state_machine_as_test(
        Tester, settings=settings(BRIEF, max_examples=8, stateful_step_count=12)
    )
    assert len(set(answered)) >= 25, "much of what takes an id was reached by a link"


def fuzz(operation, home, folders):
    """Whatever the contract allows, in each folder, at what is there."""

    @BRIEF
    @given(case=operation.as_strategy())
    def send(case):
        for home.app, ids in folders:
            for name in set(case.path_parameters or {}) & set(ids):
                case.path_parameters[name] = ids[name]
            case.call_and_validate(checks=CHECKS, headers={"host": "localhost"})

    send()
