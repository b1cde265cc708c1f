"""What comes in while the bench counts: taps beside a file, beside followers and in a long run, and
memory.
"""

import http.client
import resource
import shutil
import subprocess
import threading
import time
from pathlib import Path
from tempfile import mkdtemp
from uuid import uuid4

import numpy as np

from benchmarks.bench_log import PROGRAMS, Client, Follower, _free_port, _make_run, _tap, _wait
from benchmarks.speed import timed

ROWS = 10_000
FOLLOWERS = 30


def report() -> None:
    """All of it over one server, and the memory of the largest body over a fresh one."""
    with _Serving() as (call, port, _):
        report_import(call, port)
        report_followers(call, port)
        report_long_run(call)
    report_memory()


class _Serving:
    def __enter__(self):
        self.folder, port = Path(mkdtemp()), _free_port()
        serve = [str(PROGRAMS / "kessik"), "serve", "--data", str(self.folder), "--port", str(port)]
        self.server = subprocess.Popen(serve, stdout=subprocess.DEVNULL)
        _wait(port)
        return Client(port), port, self.server.pid

    def __exit__(self, *_):
        self.server.kill()
        self.server.wait()
        shutil.rmtree(self.folder, ignore_errors=True)


def series(rows: int, runs: int = 40) -> bytes:
    """A series of so many readings, over so many runs."""
    lines = ["blade,edge,run,count,check,value,unit,note"]
    each = rows // runs
    for run in range(runs):
        for n in range(each):
            force_gf = 120 + 200 * (n / each) ** 0.6
            lines.append(f"B{run % 8},{run // 8 + 1},1,{n},force,{force_gf:.1f},gf,wiped")
    return "\n".join(lines).encode()


def upload(port: int, data: bytes) -> tuple[int, bytes]:
    """Send one file as the screen does; status and answer."""
    mark = uuid4().hex
    head = (
        f'--{mark}\r\nContent-Disposition: form-data; name="files";'
        ' filename="rows.series.csv"\r\n\r\n'
    )
    body = head.encode() + data + f"\r\n--{mark}--\r\n".encode()
    link = http.client.HTTPConnection("127.0.0.1", port, timeout=300)
    link.request(
        "POST", "/api/imports", body, {"Content-Type": f"multipart/form-data; boundary={mark}"}
    )
    answer = link.getresponse()
    return answer.status, answer.read()


def report_import(call, port) -> None:
    run, device = _make_run(call), str(uuid4())

    def tap(n):
        return timed(lambda: call("PUT", f"/api/runs/{run}/events/{uuid4()}", _tap(device, n)), 1)[
            0
        ]

    alone = [tap(n) for n in range(100)]
    taken: dict[str, float] = {}

    def bring():
        start = time.perf_counter()
        status, answer = upload(port, series(ROWS))
        assert status == 200, answer[:300]
        taken["s"] = time.perf_counter() - start

    import_thread = threading.Thread(target=bring)
    import_thread.start()
    beside, n = [], 100
    while import_thread.is_alive():
        beside.append(tap(n))
        n += 1
    p50, p99 = np.percentile(beside, [50, 99]) * 1e3
    longest, usual = 1e3 * max(beside), 1e3 * np.median(alone)
    print(f"\n{ROWS} rows came in within {taken['s']:.1f} s (wanted: <= 5)")
    print(
        f"{len(beside)} taps beside them: p50 {p50:.0f} ms, p99 {p99:.0f}, longest {longest:.0f}"
        " (wanted: <= 100)"
    )
    print(f"The same taps alone: p50 {usual:.1f} ms; ratio of p50 {p50 / usual:.1f}")


def report_followers(call, port) -> None:
    run, device = _make_run(call), str(uuid4())
    number = iter(range(10_000))

    def taps(count):
        found = []
        for _ in range(count):
            found += [
                *timed(
                    lambda: call(
                        "PUT", f"/api/runs/{run}/events/{uuid4()}", _tap(device, next(number))
                    ),
                    1,
                )
            ]
            time.sleep(0.01)
        return np.percentile(found, [50, 99]) * 1e3

    alone = taps(100)
    followers = [Follower(port, run) for _ in range(FOLLOWERS)]
    time.sleep(1)
    watched = taps(100)
    time.sleep(0.5)
    reached = sum(max(f.heard, default=0) == 200 for f in followers)
    ratio = watched[0] / alone[0]
    print(f"A tap with nobody watching: p50 {alone[0]:.1f} ms, p99 {alone[1]:.1f}")
    print(
        f"With {FOLLOWERS} followers: p50 {watched[0]:.1f} ms, p99 {watched[1]:.1f}; ratio"
        f" {ratio:.2f}"
    )
    print(f"{reached} of them know the last count")


def report_long_run(call) -> None:
    """A reading's acknowledgement at the start of a run and after 10,000 events, made over HTTP as
    a bench does.
    """
    run, device = _make_run(call), str(uuid4())
    number, readings = [0], {}

    def send(kind, payload, count):
        body = {**_tap(device, number[0]), "kind": kind, "payload": payload, "count_at": count}
        number[0] += 1
        return timed(lambda: call("PUT", f"/api/runs/{run}/events/{uuid4()}", body), 1)[0]

    count = 0
    for n in range(10_000):
        if n % 5 == 4:
            took = send(
                "reading", {"check": "force", "value": 120.0 + n / 100, "unit": "gf"}, count
            )
            readings[n] = took
        else:
            send("cut", {"amount": 1}, count)
            count += 1
    first = np.median([t for n, t in readings.items() if n < 500]) * 1e3
    last = np.median([t for n, t in readings.items() if n > 9_500]) * 1e3
    print(f"A reading's acknowledgement: {first:.1f} ms in the first 500 events of a run,")
    print(f"{last:.1f} ms in the last of 10,000; ratio {last / first:.2f}")


def report_memory() -> None:
    """Peak memory of the server while it takes the largest body, and of the command line before a
    50 MB file.
    """
    with _Serving() as (_, port, pid):
        before = _peak_mb(pid)
        data = series(50_000, runs=400)
        note = b"x" * ((19_900_000 - len(data)) // 50_000)
        data = data.replace(b"wiped", note)
        status, _ = upload(port, data)
        print(f"A body of {len(data) / 1e6:.0f} MB, 50,000 rows: answered {status}")
        print(
            f"The server's memory peaked at {_peak_mb(pid):.0f} MB, {before:.0f} before (wanted: <="
            " 300)"
        )
    with _Serving() as (_, port, pid):
        status, answer = upload(port, b"blade,count,check\n" + b"A,x,y\n" * 3_000_000)
        print(
            f"A body of 18 MB, 3,000,000 rows: answered {status}, {len(answer)} bytes;"
            f" {_peak_mb(pid):.0f} MB"
        )
    large = Path(mkdtemp()) / "large.series.csv"
    large.write_bytes(b"blade,count,check,value\n" + b"A,1,force,150\n" * 3_600_000)
    subprocess.run(
        [str(PROGRAMS / "kessik"), "analyse", str(large)], capture_output=True, check=False
    )
    peak = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss / 1024
    print(f"`kessik analyse` of a 50 MB file: largest child so far {peak:.0f} MB (wanted: <= 500)")


def _peak_mb(pid: int) -> float:
    line = next(
        x for x in Path(f"/proc/{pid}/status").read_text().splitlines() if x.startswith("VmHWM")
    )
    return int(line.split()[1]) / 1024
