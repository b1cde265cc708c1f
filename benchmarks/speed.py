"""Speed, as ratios to references measured in the same run: analysis, durable acknowledgement, first load, start-up."""

import gzip
import http.client
import json
import shutil
import socket
import sqlite3
import subprocess
import sys
import time
from pathlib import Path
from tempfile import mkdtemp
from uuid import uuid4

import numpy as np
from scipy.optimize import curve_fit

from benchmarks.population import draw_bench, run_fixed
from kessik.core.sharpness.joint import life_masses, quantiles
from kessik.core.sharpness.posterior import ForceReadings, edge_likelihood

ROOT = Path(__file__).parent.parent


def timed(action, repeats):
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        action()
        times.append(time.perf_counter() - start)
    return np.array(times)


def report_analysis() -> None:
    """A 25-reading run, and 200 runs against curve_fit with a 200-draw bootstrap."""

    def analyse(readings):
        edge = edge_likelihood(readings, 400.0)
        (mass,) = life_masses([edge])
        return quantiles(edge.log_life, mass, (0.025, 0.5, 0.975))

    def of_size(count):
        n = np.arange(float(count))
        rng = np.random.default_rng(1)
        return ForceReadings(n, (150 + 250 * (n / (count - 3)) ** 0.6) * np.exp(0.06 * rng.normal(size=count)))

    analyse(of_size(25))
    one = np.median(timed(lambda: analyse(of_size(25)), 40))
    more = np.median(timed(lambda: analyse(of_size(50)), 40))
    print("\nAnalysis of a run, one core")
    print(f"25 readings: {1e3 * one:.1f} ms (wanted: <= 20); each reading more: {1e3 * (more - one) / 25:.2f} ms")
    runs = [run_fixed(draw_bench(seed, (8.0, 60.0)), 1) for seed in range(200)]
    ours = timed(lambda: [analyse(ForceReadings(r.counts, r.force_gf)) for r in runs], 1)[0]

    def power(n, start, rise, exponent):
        return start + rise * np.power(n, exponent)

    def bootstrap(run, rng):
        for draw in range(201):
            pick = np.arange(run.counts.size) if draw == 0 else rng.integers(0, run.counts.size, run.counts.size)
            try:
                curve_fit(power, run.counts[pick], run.force_gf[pick], p0=(150.0, 30.0, 0.6), maxfev=400)
            except (RuntimeError, TypeError, ValueError):
                continue

    rng = np.random.default_rng(2)
    sample = runs[::20]
    with np.errstate(all="ignore"):
        theirs = timed(lambda: [bootstrap(r, rng) for r in sample], 1)[0] * len(runs) / len(sample)
    print(f"200 runs: {ours:.1f} s; curve_fit with a 200-draw bootstrap: {theirs:.1f} s; ratio {ours / theirs:.3f}")


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


def _client(port):
    link = http.client.HTTPConnection("127.0.0.1", port)

    def call(method, path, body):
        link.request(method, path, json.dumps(body), {"Content-Type": "application/json"})
        answer = link.getresponse()
        said = answer.read()
        assert answer.status == 200, said

    return call


def report_server(events: int) -> None:
    """Start-up, and durable acknowledgement against a no-op PUT plus a bare durable insert."""
    folder, port, noop_port = Path(mkdtemp()), _free_port(), _free_port()
    programs = Path(sys.executable).parent
    serve = [str(programs / "kessik"), "serve", "--data", str(folder), "--port", str(port)]
    server = subprocess.Popen(serve, stdout=subprocess.DEVNULL)
    idle = None
    try:
        print(f"\nStart-up on an empty folder, to the first answer: {_wait(port):.2f} s")
        reference = [
            str(programs / "uvicorn"),
            "benchmarks.noop:app",
            "--port",
            str(noop_port),
            "--log-level",
            "warning",
        ]
        idle = subprocess.Popen(reference, cwd=ROOT)
        _wait(noop_port)
        call, call_noop = _client(port), _client(noop_port)
        trial, blade, edge, run, device = (str(uuid4()) for _ in range(5))
        call("PUT", f"/api/trials/{trial}", {"id": trial, "name": "bench"})
        edges = [{"id": edge, "number": 1}]
        call("PUT", f"/api/trials/{trial}/blades/{blade}", {"id": blade, "code": "A", "edges": edges})
        call("PUT", f"/api/trials/{trial}/runs/{run}", {"id": run, "edge_id": edge})

        def tap(number):
            return {
                "kind": "cut", "device": device, "device_sequence": number + 1, "last_seen_position": 1,
                "count_at": number, "client_time": "2026-01-01T00:00:00+00:00", "payload": {"amount": 1},
            }  # fmt: skip

        bare = sqlite3.connect(folder / "bare.sqlite3", isolation_level=None)
        bare.execute("PRAGMA journal_mode=WAL")
        bare.execute("PRAGMA synchronous=FULL")
        bare.execute("CREATE TABLE event (position INTEGER PRIMARY KEY, payload TEXT) STRICT")
        taps, noop, inserts = [], [], []
        for number in range(events):
            body, path = tap(number), str(uuid4())
            taps += [*timed(lambda b=body, p=path: call("PUT", f"/api/runs/{run}/events/{p}", b), 1)]
            noop += [*timed(lambda b=body, p=path: call_noop("PUT", f"/noop/{p}", b), 1)]
            inserts += [*timed(lambda: bare.execute("INSERT INTO event (payload) VALUES (?)", ("x" * 200,)), 1)]
        p50, p99 = np.percentile(taps[3:], [50, 99]) * 1e3
        ref50, ref99 = (np.percentile(noop[3:], [50, 99]) + np.percentile(inserts[3:], [50, 99])) * 1e3
        print(f"Durable acknowledgement of {events} taps on one run: p50 {p50:.1f} ms, p99 {p99:.1f} ms (wanted: < 25)")
        print(f"No-op PUT plus a bare durable insert: p50 {ref50:.1f} ms, p99 {ref99:.1f} ms")
        print(f"Ratio: p50 {p50 / ref50:.2f}, p99 {p99 / ref99:.2f} (wanted: <= 2)")
    finally:
        for process in filter(None, (server, idle)):
            process.terminate()
            process.wait()
        shutil.rmtree(folder, ignore_errors=True)


def report_first_load() -> None:
    """Scripts the first page loads, gzipped."""
    pages = ROOT / "src" / "kessik" / "web_dist"
    page = (pages / "index.html").read_text()
    scripts = [p for p in (pages / "assets").glob("*.js") if p.name in page]
    size = sum(len(gzip.compress(p.read_bytes())) for p in scripts) / 1e3
    print(f"\nFirst-load scripts: {size:.0f} kB gzip (wanted: <= 220)")
