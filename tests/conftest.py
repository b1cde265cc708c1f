"""What tests share: a data folder, an API client, and short ways to say a series."""

import os

os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

import shutil
import time
from datetime import UTC, datetime
from itertools import count
from pathlib import Path
from uuid import uuid4

import hypothesis
import pytest
from fastapi.testclient import TestClient

from kessik.api.app import create_app
from kessik.core.protocols.events import BenchEvent, read_payload
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.protocols.series import Check, RunSeries
from kessik.demo.building import build
from kessik.services.packages.opening import open_here
from kessik.store.database import Database
from kessik.store.queries.methods import method_body

hypothesis.settings.register_profile("no clock", deadline=None)  # a busy machine is no failing test
hypothesis.settings.load_profile("no clock")


class Reader(TestClient):
    """A client that asks once all answers are worked out, as a tester waits who is told that they
    are not; the bench shows none, and is not waited for.
    """

    def get(self, url, **kwargs):
        if not url.startswith("/api/runs/"):
            self.app.state.server.answers.settle()
        return super().get(url, **kwargs)


@pytest.fixture(scope="session")
def empty_folder(tmp_path_factory):
    """A data folder as a first start makes it."""
    folder = tmp_path_factory.mktemp("empty") / "data"
    Database(folder).close()
    return folder


@pytest.fixture
def database(tmp_path, empty_folder):
    opened = Database(shutil.copytree(empty_folder, tmp_path / "data"), hurried=True)
    yield opened
    opened.close()


@pytest.fixture
def packages_opened_here(monkeypatch):
    """What a process of its own does is done in this one: its start would take most of the time."""

    def here(package, folder, called, go_on=lambda: None):
        go_on()
        return open_here(package, folder, called)

    monkeypatch.setattr("kessik.services.packages.bringing.open_apart", here)


@pytest.fixture(scope="session")
def built_demo(tmp_path_factory):
    """A folder with the demo of today; built once for all workers, each has a copy."""
    own = tmp_path_factory.getbasetemp()
    built = (own.parent if "PYTEST_XDIST_WORKER" in os.environ else own) / "demo-built"
    done = built.with_suffix(".done")
    try:
        built.mkdir()
    except FileExistsError:
        deadline = time.monotonic() + 300
        while not done.exists():
            assert time.monotonic() < deadline, "the demo is not being built"
            time.sleep(0.2)
    else:
        opened = Database(built, hurried=True)
        build(opened, datetime.now(UTC).astimezone())
        opened.close()
        done.touch()
    return Path(shutil.copytree(built, tmp_path_factory.mktemp("demo") / "data"))


@pytest.fixture(scope="session")
def routes():
    """The routes of any server: what FastAPI makes of them at the first request is made once."""
    return create_app(None).router.routes


@pytest.fixture
def client(database, routes):
    app = create_app(database, renews=False)
    app.router.routes = routes
    with here(app) as opened:
        yield opened


def here(app, **settings):
    """A client on this machine, as its own browser is."""
    return Reader(app, base_url="http://127.0.0.1:8737", client=("127.0.0.1", 50000), **settings)


def bench_event(event_id, kind, device, sequence, seen, count_at, time, payload, position=0):
    """An event of the log from its plain parts, as the API reads them."""
    return BenchEvent(
        event_id, read_payload(kind, payload), device, sequence, seen, count_at, time, position
    )


def series(*readings, blade="A", edge=1, run=1, **rest):
    """A run from (count, gf) pairs."""
    checks = tuple(Check(float(n), "force", float(gf)) for n, gf in readings)
    return RunSeries(blade, edge, run, checks, **rest)


class BenchHand:
    """A tester with one device: starts runs and sends events through the API."""

    def __init__(self, client):
        self.client = client
        self.device = str(uuid4())
        self.sequence = count(1)
        self.trial = str(uuid4())

    def make_trial(self, *codes, **settings):
        body = {"id": self.trial, "name": "Raft rope", "rope_diameter_mm": 32, **settings}
        if {"schedule", "every", "school"} & body.keys():
            body["method"] = method_body(
                BY_SCHOOL[body.pop("school")]
                if "school" in body
                else force_limit_rope(
                    schedule=body.pop("schedule", "every"), every=body.pop("every", 1)
                )
            )
        assert self.client.put(f"/api/trials/{self.trial}", json=body).status_code == 200
        return [self.add_blade(code) for code in codes]

    def add_blade(self, code, **facts):
        blade, edge = str(uuid4()), str(uuid4())
        body = {"id": blade, "code": code, "edges": [{"id": edge, "number": 3}], **facts}
        answer = self.client.put(f"/api/trials/{self.trial}/blades/{blade}", json=body)
        assert answer.status_code == 200, answer.text
        return blade, edge

    def start(self, edge, **settings):
        run = str(uuid4())
        answer = self.client.put(
            f"/api/trials/{self.trial}/runs/{run}", json={"id": run, "edge_id": edge, **settings}
        )
        assert answer.status_code == 200, answer.text
        return run

    def event(self, kind, payload=None, *, at=0.0, seen=0):
        return {
            "kind": kind,
            "device": self.device,
            "device_sequence": next(self.sequence),
            "last_seen_position": seen,
            "count_at": at,
            "client_time": "2026-05-04T10:00:00+02:00",
            "payload": payload or {},
        }

    def send(self, run, kind, payload=None, *, at=0.0, seen=0, event_id=None):
        event_id = event_id or str(uuid4())
        answer = self.client.put(
            f"/api/runs/{run}/events/{event_id}", json=self.event(kind, payload, at=at, seen=seen)
        )
        answer.event_id = event_id
        return answer

    def cut(self, run, times=1, at=0.0):
        for n in range(times):
            assert self.send(run, "cut", {"amount": 1}, at=at + n).status_code == 200
        return at + times

    def judge(self, run, outcome, at, check="paper", **rest):
        answer = self.send(run, "outcome", {"check": check, "outcome": outcome, **rest}, at=at)
        assert answer.status_code == 200, answer.text
        return answer.json()["state"]

    def read(self, run, gf, at):
        answer = self.send(run, "reading", {"check": "force", "value": gf, "unit": "gf"}, at=at)
        assert answer.status_code == 200, answer.text
        return answer.json()["state"]

    def plan(self, run):
        return self.client.post(f"/api/runs/{run}/plan").json()["state"]


@pytest.fixture
def hand(client):
    return BenchHand(client)
