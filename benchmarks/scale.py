"""A folder of 200 trials, 2,000 runs and 60,000 events: Today, answers, plans and the bench beside
them; and how quickly each command starts, against importing what it needs.
"""

import shutil
import subprocess
import sys
import threading
import time
from datetime import UTC, datetime
from pathlib import Path
from tempfile import mkdtemp
from urllib.request import urlopen
from uuid import uuid4

import numpy as np
from sqlalchemy import event

from benchmarks.bench_log import PROGRAMS, Client, _free_port, _make_run, _tap, _wait
from benchmarks.speed import timed
from kessik.api.app import create_app
from kessik.core.comparison.matching import MatchingRule
from kessik.core.moments import Moment
from kessik.core.protocols.methods import force_limit_rope
from kessik.interchange.named_files import NamedFile
from kessik.services.files.imports import import_files
from kessik.services.today import what_waits
from kessik.store.database import Database

TRIALS, BLADES, EDGES = 200, 5, 2
COUNTS = (0, 0, 1, 3, 6, 9, 12, 15, 18, 20, 22, 24, 26, 28, 30, 32)


def report() -> None:
    """Start ratios, then everything over one made folder."""
    report_starts()
    folder = Path(mkdtemp())
    try:
        _make(folder)
        report_background(folder)
        report_pages(folder)
        report_cpu(folder)
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _series(trial: int) -> str:
    rng = np.random.default_rng(trial)
    lines = ["blade,edge,run,count,check,value,unit"]
    for blade in range(BLADES):
        for edge in range(1, EDGES + 1):
            life = 18 * 1.2**blade * np.exp(0.04 * rng.normal())
            for count in COUNTS:
                force_gf = (150 + 250 * (count / life) ** 0.6) * np.exp(0.05 * rng.normal())
                lines.append(f"T{trial}-{blade},{edge},1,{count},force,{force_gf:.1f},gf")
    return "\n".join(lines)


def _make(folder: Path) -> None:
    now = Moment(datetime.now(UTC).isoformat())
    with Database(folder) as database:
        for trial in range(TRIALS):
            file = NamedFile(f"trial-{trial}.series.csv", _series(trial).encode())
            import_files(database, [file], now, MatchingRule(), force_limit_rope())
        with database.read() as session:
            runs, events = (
                session.connection().exec_driver_sql(f"SELECT count(*) FROM {table}").scalar()
                for table in ("run", "event")
            )
    print(f"\nA folder of {TRIALS} trials, {runs} runs, {events} events")


class _Serving:
    def __init__(self, folder: Path) -> None:
        self.folder, self.port = folder, _free_port()

    def __enter__(self):
        serve = [PROGRAMS / "kessik", "serve", "--data", self.folder, "--port", str(self.port)]
        self.server = subprocess.Popen([*map(str, serve)], stdout=subprocess.DEVNULL)
        _wait(self.port)
        return Client(self.port)

    def __exit__(self, *_):
        self.server.kill()
        self.server.wait()


def report_background(folder: Path) -> None:
    """All answers from nothing while a bench hammers; then one new reading."""
    with _Serving(folder) as call:
        run, device = _make_run(call), str(uuid4())
        taps, n, start = [], 0, time.perf_counter()
        over = threading.Event()
        left: list[int] = []

        def watch():
            other = Client(call._link.port)
            while not over.wait(1.0):
                left.append(other("GET", "/api/today")["working_out"])
                if left[-1] <= 1:
                    over.set()

        threading.Thread(target=watch).start()
        while not over.is_set():
            tap = lambda: call("PUT", f"/api/runs/{run}/events/{uuid4()}", _tap(device, n))  # noqa: B023, E731
            taps.append(timed(tap, 1)[0])
            n += 1
            time.sleep(0.02)
        took = time.perf_counter() - start
        p50, p99 = 1e3 * np.percentile(taps, [50, 99])
        print(f"All answers from nothing in the background: {took:.0f} s")
        print(
            f"{len(taps)} taps beside: p50 {p50:.1f} ms, p99 {p99:.1f} (wanted: <= 25),"
            f" longest {1e3 * max(taps):.0f}"
        )


def report_pages(folder: Path) -> None:
    """Today, a verdict after one more reading, and a plan tried out."""
    with _Serving(folder) as call:
        while call("GET", "/api/today")["working_out"]:
            time.sleep(0.5)
        warm = 1e3 * timed(lambda: call("GET", "/api/today"), 20)
        trials = call("GET", "/api/today")["trials"]
        entry = next(t for t in trials if t["trial"]["name"].startswith("trial-"))
        trial, run = entry["trial"]["id"], entry["runs"][0]["id"]
        print(f"Today warm: p50 {np.median(warm):.0f} ms, worst {warm.max():.0f} (wanted: <= 150)")
        log = call("GET", f"/api/runs/{run}")["log"]
        reading = next(e["id"] for e in log if e["kind"] == "reading")
        strike = {**_tap(str(uuid4()), 0), "kind": "strike"}
        strike["payload"] = {"target": reading, "reason": "not wiped"}
        start = time.perf_counter()
        call("PUT", f"/api/runs/{run}/events/{uuid4()}", strike)
        seen = set()
        while (behind := call("GET", f"/api/trials/{trial}/verdict")["working_out"]) or not seen:
            seen.add(behind)
            time.sleep(0.01)
        took = time.perf_counter() - start
        print(
            f"One reading changed: its verdict renewed within {took:.2f} s (wanted: <= 1),"
            f" {max(seen)} trial touched"
        )
        plan = {"edges_per_blade": 4, "wanted_percent": 10}
        tried = 1e3 * timed(lambda: call("POST", f"/api/trials/{trial}/plan/try", plan), 10)
        print(f"A plan tried out: p50 {np.median(tried):.0f} ms (wanted: <= 100)")


def report_cpu(folder: Path) -> None:
    """Processor time an answer takes from nothing, and what Today asks of the store."""
    with Database(folder) as database:
        answers = create_app(database).state.server.answers
        with database.write() as session:
            session.connection().exec_driver_sql("DELETE FROM answer")
        some = answers.behind()[:20]
        start = time.process_time()
        for trial_id in some:
            answers.renew(trial_id)
        each = (time.process_time() - start) / len(some)
        print(f"An answer from nothing: {each:.2f} s of one core (wanted: <= 0.5)")
        answers.settle()
        asked: list[str] = []
        event.listen(
            database.engine, "before_cursor_execute", lambda *given: asked.append(given[2])
        )
        answers.todays()
        what_waits(database, Moment(datetime.now(UTC).isoformat()))
        count = sum(1 for each in asked if each != "BEGIN")
        print(f"Queries of Today: {count} (wanted: <= 25)")


_STARTS = (
    ("kessik --help", ["--help"], "import typer, rich.console", 2.5),
    (
        "kessik analyse",
        ["analyse", "{file}"],
        "import numpy, scipy.special, scipy.optimize, typer, rich.console;"
        "from kessik.core.comparison.analysis import analyse;"
        "from kessik.services.files.trial_files import read_files",
        1.3,
    ),
)


def report_starts() -> None:
    """Commands against importing what they cannot do without, each in a process of its own."""
    folder = Path(mkdtemp())
    file = folder / "small.series.csv"
    file.write_text("\n".join(_series(0).splitlines()[:33]), encoding="utf-8")
    print("\nStart")
    for name, command, needed, wanted in _STARTS:
        told = [part.format(file=file) for part in command]
        ours = _seconds([str(PROGRAMS / "kessik"), *told])
        bare = _seconds([sys.executable, "-c", needed])
        print(
            f"{name}: {ours:.2f} s; importing what it needs: {bare:.2f} s;"
            f" ratio {ours / bare:.2f} (wanted: <= {wanted})"
        )
    bare = _seconds([sys.executable, "-c", "import fastapi, sqlalchemy.orm, numpy"])
    starts = [_first_answers(folder / f"data-{n}") for n in range(3)]
    page, answer = np.median(starts, axis=0)
    print(
        f"kessik serve, to the first page: {page:.2f} s, to the first answer of the API:"
        f" {answer:.2f} s; importing FastAPI, SQLAlchemy and NumPy: {bare:.2f} s;"
        f" ratios {page / bare:.2f} (wanted: <= 1.5) and {answer / bare:.2f}"
    )
    shutil.rmtree(folder, ignore_errors=True)


def _seconds(command: list[str]) -> float:
    def once():
        subprocess.run(command, check=True, stdout=subprocess.DEVNULL)

    once()
    return float(np.median(timed(once, 5)))


def _first_answers(folder: Path) -> tuple[float, float]:
    """Seconds until the page is there, and until the API answers."""
    Database(folder).close()
    start = time.perf_counter()
    serving = _Serving(folder)
    with serving as call:
        with urlopen(f"http://127.0.0.1:{serving.port}/") as page:
            page.read()
        paged = time.perf_counter() - start
        call("GET", "/api/instruments")
        return paged, time.perf_counter() - start
