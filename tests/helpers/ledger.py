"""Every kind of write that names its id, one after the other, and what a folder holds after each:
for servers that are killed in the middle of one.
"""

import io
import json
import re
import sqlite3
from collections import Counter
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass
from typing import Any

from PIL import Image

from kessik.core.protocols.schools import BY_SCHOOL
from kessik.store.database import DATABASE_NAME
from kessik.store.queries.methods import method_body
from tests.helpers.files_sent import GOOD

AT = {"at_utc": "2026-05-04T08:00:00+00:00", "offset_minutes": 60}
LATER = {"at_utc": "2026-05-04T22:00:00+00:00", "offset_minutes": 60}
SHEET = "Knife;Edge;Fine;Working\n" + "".join(f"K{n};{n};3{n % 9};2{n % 7}\n" for n in range(1, 40))
SHOTS = (
    "blade,shot,element,percent,plus_minus,surface,normalised\n"
    "B-1,7,Cr,12.1,0.1,bare,no\nB-1,7,Fe,86,0.2,bare,no\n"
)
GRADES = "grade,element,least,most\nInvented 1,Cr,12,14\nInvented 1,C,0.4,0.5\n"


@dataclass(frozen=True)
class Write:
    """A request; what it sends may hang on what a server has by then."""

    verb: str
    path: str
    sends: Callable[[Any], dict[str, Any]]

    def send(self, client):
        return client.request(self.verb, f"/api/{self.path}", **self.sends(client))


def put(path, **body):
    return Write("PUT", path, lambda _: {"json": body})


def patch(path, **body):
    return Write("PATCH", path, lambda _: {"json": body})


def post(path, **body):
    return Write("POST", path, lambda _: {"json": body})


def delete(path):
    return Write("DELETE", path, lambda _: {})


def upload(path, field, name, content, **form):
    return Write("POST", path, lambda _: {"files": [(field, (name, content))], "data": form})


def event(number, kind, at, **payload):
    said = {
        "kind": kind,
        "device": "device-one",
        "device_sequence": number,
        "last_seen_position": 0,
        "count_at": at,
        "client_time": "2026-05-04T10:00:00+02:00",
        "payload": payload,
    }
    return put(f"runs/run-00001/events/event-{number:04}", **said)


def of_soak_method(client):
    methods = {m["key"]: m for m in client.get("/api/soak-methods").json()}
    coupons = [{"id": f"coupon-{n}", "name": name} for n, name in enumerate("ABC", 1)]
    body = {"name": "Pack", "question": "Which?", "factor": "steel"}
    body["method"] = methods["brine_overnight"]
    return {"json": {**body, "coupons": coupons}}


def sheet(import_id, into="", **form):
    """A sheet of results, read as the preview guesses, into the trial of a name or one of its
    own.
    """

    def sends(client):
        found = client.get("/api/today").json()["trials"] if into else []
        ids = [t["trial"]["id"] for t in found if t["trial"]["name"] == into]
        form.update({"trial_id": ids[0]} if ids else {})
        file = {"files": {"file": ("old.csv", SHEET.encode())}}
        seen = client.post("/api/sheet-previews", **file, data=form)
        reading = json.dumps(seen.json()["reading"])
        return {**file, "data": {"reading": reading, "import_id": import_id, **form}}

    return Write("POST", "sheet-imports", sends)


def picture():
    made = io.BytesIO()
    Image.new("RGB", (60, 40), (180, 170, 150)).save(made, "PNG")
    return made.getvalue()


def shelf():
    edge = {"id": "edge-0001", "number": 3}
    yield put("blades/blade-001", id="blade-001", code="B-1", edges=[edge])
    yield put("blades/blade-002", id="blade-002", code="B-2")
    yield patch("blades/blade-001", owner="Ida", price="40")
    yield put("blades/blade-002/edges/edge-0002", id="edge-0002", number=1, side_angle_deg=15)
    measured = {"quantity": "hardness_hrc", "value": 60.5, "standing": "measured_here"}
    yield put("blades/blade-001/measurements/measure-1", id="measure-1", **measured)
    yield put("measurements/measure-1/struck", reason="slipped")
    yield put("abrasives/abrasive-1", id="abrasive-1", name="Loam", kind="stone", size_um=8)
    steps = [{"abrasive": "Loam", "strokes_per_side": 30}]
    yield put("recipes/recipe-01", id="recipe-01", name="Bench set", steps=steps)
    yield put("recipes/recipe-02", id="recipe-02", name="Field set", steps=steps)
    yield delete("recipes/recipe-02")
    yield put("blades/blade-001/exposures/exposure-1", hours=6, medium="fresh water")
    tough = {"test": "charpy_plain", "joules": 21.5, "specimen": "10 x 10 x 55"}
    yield put("toughness/toughness-1", blade_id="blade-001", **tough, source="Own pendulum")
    yield put("toughness/toughness-1/struck", reason="slipped")
    yield upload("blades/blade-001/photos", "photo", "a.png", picture())


def stock():
    rope = {"kind": "rope", "name": "Hemp", "unit": "m", "bought_amount": 50}
    yield put("lots/lot-00001", id="lot-00001", **rope)
    yield put("lots/lot-00001/corrections/amend-01", amount=-2, reason="spoiled")
    tester = {"kind": "force", "name": "Tester", "address": "/dev/none"}
    yield put("instruments/tester-01", id="tester-01", **tester)
    checked = {"readings": [250, 252], "reference": "block"}
    yield put("instruments/tester-01/reference-checks/check-0001", id="check-0001", **checked)


def trial():
    rope = method_body(BY_SCHOOL["force_limit_rope"])
    told = {"id": "trial-001", "name": "Raft rope", "rope_diameter_mm": 32, "method": rope}
    yield put("trials/trial-001", **told)
    yield put("trials/trial-001/places/blade-001", role="")
    yield put("trials/trial-001/places/blade-002", role="low_reference")
    yield patch("trials/trial-001", question="Which lasts?", reason="asked")
    yield put("trials/trial-001/cautions", seen=True)
    yield put("trials/trial-001/plan", expected_life=20, prediction="B-1")
    yield put("trials/trial-001/runs/run-00001", id="run-00001", edge_id="edge-0001")
    yield event(1, "reading", 0, check="force", value=150, unit="gf")
    yield event(2, "cut", 0, amount=5)
    yield event(3, "reading", 5, check="force", value=260, unit="gf")
    yield event(4, "note", 5, text="rolled at the heel")
    yield event(5, "stop", 5, by="tester", reason="enough")
    changed = {"operator": "Ida", "note": "left hand", "reason": "asked"}
    yield patch("runs/run-00001", trace_id="trace-001", **changed)
    yield post("trials/trial-001/strikes", event_ids=["event-0003"], reason="read on the heel")


def paper():
    board = method_body(BY_SCHOOL["two_stage_board"])
    yield put("trials/trial-002", id="trial-002", name="Two stages", method=board)
    yield put("trials/trial-002/places/blade-002", role="")
    cells = {"blade": "B-2", "edge": "1", "fine": "30", "working": "25"}
    yield post("trials/trial-002/paper-runs", lines=[{"id": "line-0001", "cells": cells}], by="Ida")
    yield sheet("sheet-001", name="Ten years")
    yield sheet("sheet-002", into="Ten years", on_there="replace")
    files = ("files", "raft.series.csv", GOOD.replace("A,", "F,").encode())
    yield upload("imports", *files, import_id="import-01")


def corrosion():
    yield Write("PUT", "soaks/soak-0001", of_soak_method)
    yield put("soaks/soak-0001/started", **AT)
    yield patch("soaks/soak-0001", note="lid on")
    yield put("soaks/soak-0001/acts/act-00001", kind="note", said="topped up", **AT)
    seen = {"side": "left", "stage": "wiped", "grade": 7, **LATER}
    yield put("soaks/soak-0001/looks/look-0001", coupon_id="coupon-1", **seen)
    yield put("soaks/soak-0001/looks/look-0002", coupon_id="coupon-2", **{**seen, "grade": 5})
    yield put("soaks/soak-0001/acts/act-00002", kind="ended", said="done", **LATER)
    yield put("soaks/soak-0001/passes/pass-0001/1", grade=6, seen_by="Ida")
    yield put("soaks/soak-0001/looks/look-0001/struck", reason="slipped")
    yield upload("soaks/soak-0001/pictures", "photos", "a.png", picture())


def composition():
    yield put("batches/batch-01", name="Spring post", blade_ids=["blade-001"], sent_on="2026-05-04")
    yield patch("batches/batch-01", note="by courier")
    readings = [{"element": "Cr", "percent": 12.0, "plus_minus_percent": 0.1}]
    yield put("blades/blade-001/shots/shot-0001", name="1", readings=readings, batch_id="batch-01")
    yield put("blades/blade-001/shots/shot-0001/struck", reason="slipped")
    yield upload("shot-imports", "files", "p.shots.csv", SHOTS.encode(), batch_id="batch-01")
    yield put("grades/Invented 2", ranges=[{"element": "Cr", "low_percent": 4, "high_percent": 5}])
    yield put("grade-confirmations/1.2436", source="EN ISO 4957:2018")


def put_away():
    yield put("lots/lot-00001/archived", archived=True)
    yield put("trials/trial-002/archived", archived=True)
    yield put("bin/bin-00001", kind="run", owner_id="run-00001")
    yield put("bin/bin-00001/brought-back")
    yield put("bin/bin-00002", kind="trial", owner_id="trial-001", reason="begun anew")
    yield put("bin/bin-00002/brought-back")
    yield put("bin/bin-00003", kind="blade", owner_id="blade-001")
    yield delete("bin/bin-00003")
    yield delete("soaks/soak-0001")
    yield put("backups/rule", daily=5, weekly=2)
    yield post("backups")


_FILLING = (shelf, stock, trial, paper, corrosion, composition)
WRITES = [write for part in (*_FILLING, put_away) for write in part()]


def fill(client):
    """Send what leaves something of everything in a folder."""
    for part in _FILLING:
        for write in part():
            assert write.send(client).is_success, write.path


_OWN = ("alembic_version", "revision", "answer", "sheet_reading")
"""What a server makes of the rest by itself."""
_NUMBERS = ("position", "device_sequence", "check_sum", "last_seen_position")
_MADE = re.compile(r"[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}|20\d\d-\d\d-\d\d(T[\d:.]+\S*)?")
_SEEN = {
    "trial": "arriving IS NULL",
    "blade": "arriving IS NULL",
    "picture": "hash IN (SELECT hash FROM picture_use)",
    "edge": "blade_id IN (SELECT id FROM blade WHERE arriving IS NULL)",
    "measurement": "blade_id IN (SELECT id FROM blade WHERE arriving IS NULL)",
    "run": "trial_id IN (SELECT id FROM trial WHERE arriving IS NULL)",
    "trial_blade": "trial_id IN (SELECT id FROM trial WHERE arriving IS NULL)",
    "event": "run_id IN (SELECT run.id FROM run JOIN trial ON trial.id = run.trial_id"
    " WHERE arriving IS NULL)",
    "method": "id IN (SELECT method_id FROM trial WHERE arriving IS NULL)"
    " OR id NOT IN (SELECT method_id FROM trial WHERE method_id IS NOT NULL)",
}
"""What is on its way in is seen by nobody; a picture that nothing shows is deleted later."""


def held(folder):
    """What a folder holds, but for times and ids that a server makes: rows by their tables."""
    address = f"file:{folder / DATABASE_NAME}?mode=rw"
    with closing(sqlite3.connect(address, uri=True)) as connection:
        found = connection.execute("SELECT name FROM sqlite_master WHERE type = 'table'").fetchall()
        tables = [t for (t,) in found if not t.startswith("sqlite_") and t not in _OWN]
        return {table: _rows(connection, table) for table in tables}


def _rows(connection, table):
    found = connection.execute(f"SELECT * FROM {table} WHERE {_SEEN.get(table, 'TRUE')}")
    names = [column[0] for column in found.description]
    shown = [n for n, name in enumerate(names) if name not in _NUMBERS]
    if table == "bin":
        shown = [n for n in shown if names[n] != "content"]  # packed with times
    return Counter(tuple(_MADE.sub("*", str(row[n])) for n in shown) for row in found)


def differences(one, other):
    """What two holdings do not have in common, by tables."""
    return {
        table: ((one[table] - other[table]), (other[table] - one[table]))
        for table in one
        if one[table] != other[table]
    }
