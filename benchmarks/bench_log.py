"""The bench log: durable acknowledgement, push to a second client, a run of 10,000 events; beside
references of the same run.
"""

import http.client
import json
import shutil
import socket
import sqlite3
import subprocess
import sys
import threading
import time
from pathlib import Path
from tempfile import mkdtemp
from uuid import uuid4

import numpy as np
from tests.conftest import bench_event

from benchmarks.speed import ROOT, timed
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from kessik.store.database import Database
from kessik.store.queries import bench_log

PROGRAMS = Path(sys.executable).parent
LONG_RUN = 10_000


def _free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def _wait(port):
    start = time.perf_counter()
    while time.perf_counter() - start < 60:
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return time.perf_counter() - start
        time.sleep(0.02)
    raise TimeoutError


class Client:
    """One connection; answers that are not 200 end the benchmark."""

    def __init__(self, port):
        self._link = http.client.HTTPConnection("127.0.0.1", port)

    def __call__(self, method, path, body=None):
        content = json.dumps(body) if body is not None else None
        self._link.request(method, path, content, {"Content-Type": "application/json"})
        answer = self._link.getresponse()
        said = answer.read()
        assert answer.status == 200, said
        return json.loads(said)


class Follower(threading.Thread):
    """A second client that listens to a run: when it was told of each count."""

    def __init__(self, port, run):
        super().__init__(daemon=True)
        self._port, self._run, self.heard = port, run, {}
        self.start()

    def run(self):
        link = http.client.HTTPConnection("127.0.0.1", self._port)
        link.request("GET", f"/api/runs/{self._run}/follow")
        for line in link.getresponse():
            if line.startswith(b"data:"):
                news = json.loads(line[5:])["run"]
                if news:
                    self.heard[news["state"]["count"]] = time.perf_counter()


def _tap(device, number):
    return {
        "kind": "cut",
        "device": device,
        "device_sequence": number + 1,
        "last_seen_position": 1,
        "count_at": number,
        "client_time": "2026-01-01T00:00:00+00:00",
        "payload": {"amount": 1},
    }


def _make_run(call):
    trial, blade, edge, run = (str(uuid4()) for _ in range(4))
    call("PUT", f"/api/trials/{trial}", {"id": trial, "name": "bench"})
    call(
        "PUT",
        f"/api/trials/{trial}/blades/{blade}",
        {"id": blade, "code": "A" + blade[:4], "edges": [{"id": edge, "number": 1}]},
    )
    call("PUT", f"/api/trials/{trial}/runs/{run}", {"id": run, "edge_id": edge})
    return run


def report(events: int) -> None:
    """Start-up, acknowledgement, push and the long run, over one server."""
    folder, port, noop_port = Path(mkdtemp()), _free_port(), _free_port()
    serve = [str(PROGRAMS / "kessik"), "serve", "--data", str(folder), "--port", str(port)]
    server = subprocess.Popen(serve, stdout=subprocess.DEVNULL)
    idle = None
    try:
        print(f"\nStart-up on an empty folder, to the first answer: {_wait(port):.2f} s")
        noop = [
            str(PROGRAMS / "uvicorn"),
            "benchmarks.noop:app",
            "--port",
            str(noop_port),
            "--log-level",
            "warning",
        ]
        idle = subprocess.Popen(noop, cwd=ROOT)
        _wait(noop_port)
        call = Client(port)
        report_acknowledgement(call, Client(noop_port), folder, events)
        report_push(call, port, events)
        report_long_run(call, port, folder)
    finally:
        for process in filter(None, (server, idle)):
            process.kill()
            process.wait()
        shutil.rmtree(folder, ignore_errors=True)


def report_acknowledgement(call, call_noop, folder, events) -> None:
    """Durable acknowledgement against a no-op PUT plus a bare durable insert, turn by turn."""
    run, device = _make_run(call), str(uuid4())
    bare = sqlite3.connect(folder / "bare.sqlite3", isolation_level=None)
    for setting in ("journal_mode=WAL", "synchronous=FULL"):
        bare.execute(f"PRAGMA {setting}")
    bare.execute("CREATE TABLE event (position INTEGER PRIMARY KEY, payload TEXT) STRICT")
    taps, noop, inserts = [], [], []
    for number in range(events):
        body, path = _tap(device, number), str(uuid4())
        taps += [*timed(lambda b=body, p=path: call("PUT", f"/api/runs/{run}/events/{p}", b), 1)]
        noop += [*timed(lambda b=body, p=path: call_noop("PUT", f"/noop/{p}", b), 1)]
        inserts += [
            *timed(lambda: bare.execute("INSERT INTO event (payload) VALUES (?)", ("x" * 200,)), 1)
        ]
    p50, p99 = np.percentile(taps[3:], [50, 99]) * 1e3
    ref50, ref99 = (np.percentile(noop[3:], [50, 99]) + np.percentile(inserts[3:], [50, 99])) * 1e3
    print(
        f"Durable acknowledgement of {events} taps on one run: p50 {p50:.1f} ms, p99 {p99:.1f} ms"
        " (wanted: < 25)"
    )
    print(f"No-op PUT plus a bare durable insert: p50 {ref50:.1f} ms, p99 {ref99:.1f} ms")
    print(f"Ratio: p50 {p50 / ref50:.2f}, p99 {p99 / ref99:.2f} (wanted: p99 <= 2)")


def report_push(call, port, events) -> None:
    """From the tap of one client to the news at another, beside the acknowledgement of the same
    tap.
    """
    run, device = _make_run(call), str(uuid4())
    follower = Follower(port, run)
    time.sleep(0.5)
    sent, acknowledged = {}, {}
    for number in range(events):
        sent[number + 1] = time.perf_counter()
        call("PUT", f"/api/runs/{run}/events/{uuid4()}", _tap(device, number))
        acknowledged[number + 1] = time.perf_counter()
        time.sleep(0.01)
    time.sleep(0.5)
    pushes = [1e3 * (follower.heard[n] - sent[n]) for n in sent if n in follower.heard]
    acks = [1e3 * (acknowledged[n] - sent[n]) for n in sent]
    p50, p99 = np.percentile(pushes, [50, 99])
    ack50, ack99 = np.percentile(acks, [50, 99])
    print(
        f"Tap to the news at a second client: p50 {p50:.1f} ms, p99 {p99:.1f} ms (wanted: < 1000)"
    )
    print(
        f"{len(pushes)} of {events} taps told each by itself; the same taps "
        f"acknowledged: p50 {ack50:.1f} ms, p99 {ack99:.1f} ms; ratio p50 {p50 / ack50:.2f}"
    )


def report_long_run(call, port, folder) -> None:
    """A run of 10,000 events, every tenth a reading: folded, opened, and tapped on, against reading
    its rows bare.
    """
    run, device = _make_run(call), f"long-{uuid4()}"
    made = []
    for n in range(LONG_RUN - 1):
        is_reading = n % 10 == 9
        count = n - n // 10
        payload = (
            {"check": "force", "value": 150.0 + 60 * (n / LONG_RUN), "unit": "gf"}
            if is_reading
            else {"amount": 1}
        )
        kind = "reading" if is_reading else "cut"
        made.append(
            bench_event(
                str(uuid4()), kind, device, n + 1, 1, count, "2026-01-01T00:00:00+00:00", payload
            )
        )
    database = Database(folder)
    with database.write() as session:
        bench_log.append_many(session, run, made, "2026-01-01T00:00:00+00:00")
    with database.read() as session:
        log = bench_log.events_of(session, run)
    call = Client(port)  # the server let the idle connection go meanwhile
    folded = 1e3 * np.median(timed(lambda: fold(log, force_limit_rope()), 5))
    rows = sqlite3.connect(folder / "kessik.sqlite3")

    def bare():
        found = rows.execute(
            "SELECT payload FROM event WHERE run_id = ? ORDER BY position", (run,)
        ).fetchall()
        return [json.loads(row[0]) for row in found]

    bare_ms = 1e3 * np.median(timed(bare, 5))
    first = 1e3 * timed(lambda: call("GET", f"/api/runs/{run}"), 1)[0]
    again = 1e3 * np.median(timed(lambda: call("GET", f"/api/runs/{run}"), 5))
    number = [LONG_RUN]

    def tap():
        number[0] += 1
        call("PUT", f"/api/runs/{run}/events/{uuid4()}", _tap(device, number[0]))

    taps = 1e3 * timed(tap, 30)
    print(f"Run of {LONG_RUN} events, every tenth a reading: folded in {folded:.0f} ms")
    print(f"Opened in {first:.0f} ms the first time, {again:.0f} ms again (wanted: < 500)")
    print(f"Its rows read bare: {bare_ms:.0f} ms; ratio {first / bare_ms:.1f}")
    print(
        f"One more tap on it: p50 {np.median(taps):.1f} ms, worst {taps.max():.1f} ms (wanted:"
        " < 25)"
    )
    database.close()
