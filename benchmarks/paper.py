"""Results that exist already: ten thousand rows of a sheet in, beside reading the same rows bare;
and Today with 300 trials.
"""

import csv
import io
import shutil
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime
from pathlib import Path
from tempfile import mkdtemp

import numpy as np
from tests.conftest import here

from kessik.api.app import create_app
from kessik.core.moments import Moment
from kessik.interchange.named_files import NamedFile
from kessik.interchange.raw_sheets import read_sheet
from kessik.services.changes import RecentChanges
from kessik.services.paper.runs import Entered
from kessik.services.paper.sheet_import import bring_in
from kessik.services.paper.sheet_plans import Sheet, Target
from kessik.services.paper.sheets import preview
from kessik.services.record.bin import in_bin, restore
from kessik.store.database import Database, Session

ROWS, TRIALS = 10_000, 300


def report() -> None:
    """Both."""
    folder = Path(mkdtemp())
    try:
        report_rows(folder)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    folder = Path(mkdtemp())
    try:
        report_today(folder)
    finally:
        shutil.rmtree(folder, ignore_errors=True)


def _by_run(rows: int) -> str:
    rng = np.random.default_rng(1)
    lines = ["Knife;Edge;Steel;HRC;Fine (ft);Working (ft);Total;Remarks"]
    for n in range(rows):
        fine, working = (int(v) for v in rng.integers(20, 80, 2))
        blade, edge = n % 100, n // 100 + 1
        lines.append(f"K{blade};{edge};1.4034;57,5;{fine};{working};{fine + working};box {n}")
    return "\n".join(lines)


def _by_check(rows: int) -> str:
    rng = np.random.default_rng(2)
    lines = ["knife,edge,cuts,force (gf)"]
    for n in range(rows):
        run, count = divmod(n, 20)
        gf = 150 * np.exp(0.05 * count + 0.04 * rng.normal())
        lines.append(f"C{run % 50},{run // 50 + 1},{count},{gf:.1f}")
    return "\n".join(lines)


def report_rows(folder: Path) -> None:
    """Look over and bring in, a row a run and a row a check."""
    print(f"\nA sheet of {ROWS:,} rows")
    acts = RecentChanges()
    with Database(folder) as database:
        for name, text in (("a row a run", _by_run(ROWS)), ("a row a check", _by_check(ROWS))):
            file = NamedFile(f"{name}.csv", text.encode())
            bare = _seconds(lambda text=text: list(csv.reader(io.StringIO(text))))
            entered = Entered("", "", Moment(datetime.now(UTC).isoformat(timespec="milliseconds")))
            raw = read_sheet(file)
            start = time.perf_counter()
            seen = preview(database, raw, None, Target(), entered)
            looked = time.perf_counter() - start
            target = Target(name=name)
            start = time.perf_counter()
            with acts.recorded(name) as act:
                made = bring_in(database, Sheet(raw, seen.reading, entered, name), target)
            brought = time.perf_counter() - start
            print(
                f"  {name:14} {made.kept} runs: looked over {looked:.2f} s, in {brought:.2f} s"
                f" (wanted: < 5); its rows read bare: {1000 * bare:.0f} ms"
            )
            acts.offer(act)
            report_undo(database, acts, name)


def report_undo(database: Database, acts: RecentChanges, name: str) -> None:
    """How long all of it takes to be undone and to come back, and how long no tap gets through."""
    for verb, act in (
        ("undone", lambda: acts.undo(database, name)),
        ("restored", lambda: restore(database, in_bin(database)[0].id)),
    ):
        with _held(database) as held:
            whole = _seconds(act)
        print(
            f"    {verb} in {whole:.1f} s, the write lock held for {1000 * max(held):.0f} ms at"
            " most (wanted: <= 200)"
        )


@contextmanager
def _held(database: Database) -> Iterator[list[float]]:
    """How long each transaction that writes lasts."""
    held: list[float] = []
    write = database.write

    @contextmanager
    def timed() -> Iterator[Session]:
        with write() as session:
            start = time.perf_counter()
            yield session
        held.append(time.perf_counter() - start)

    database.write = timed
    try:
        yield held
    finally:
        database.write = write


def report_today(folder: Path) -> None:
    """Today with finished trials of results from sheets."""
    with Database(folder) as database:
        for n in range(TRIALS):
            text = "Knife;Fine (ft);Working (ft)\n" + "\n".join(
                f"T{n}-{blade};{20 + blade};{25 + blade}" for blade in range(4)
            )
            raw = read_sheet(NamedFile("t.csv", text.encode()))
            entered = Entered("", "", Moment(datetime.now(UTC).isoformat(timespec="milliseconds")))
            seen = preview(database, raw, None, Target(), entered)
            target = Target(name=f"Trial {n}")
            bring_in(database, Sheet(raw, seen.reading, entered, f"trial-{n}"), target)
        app = create_app(database, renews=False)
        app.state.server.answers.settle()
        with here(app) as client:
            client.get("/api/today")
            times = [_seconds(lambda: client.get("/api/today")) for _ in range(9)]
            size = len(client.get("/api/today").content)
            print(f"Today with {TRIALS} trials: {1000 * float(np.median(times)):.0f} ms warm,")
            print(f"  {size / 1000:.0f} kB")


def _seconds(work: Callable[[], object]) -> float:
    start = time.perf_counter()
    work()
    return time.perf_counter() - start
