"""Copies of a large folder while somebody cuts, and the worst sheets that anybody made so far."""

import shutil
import threading
import time
from contextlib import suppress
from pathlib import Path
from tempfile import mkdtemp

from sqlalchemy import text
from tests.helpers.hostile_sheets import HOSTILE

from kessik.core.errors import RefusedFileError
from kessik.interchange.named_files import NamedFile
from kessik.interchange.sheets_apart import read_sheet_apart
from kessik.store.database import DATABASE_NAME, Database

MEGABYTES, A_SECOND = 500, 10


def report() -> None:
    """How long a copy of 500 MB takes under ten commits a second, and the worst hostile sheet."""
    folder = Path(mkdtemp())
    try:
        _fill(folder)
        _report_copy(folder)
    finally:
        shutil.rmtree(folder, ignore_errors=True)
    _report_sheets()


def _fill(folder: Path) -> None:
    with Database(folder, hurried=True) as database, database.write() as session:
        session.execute(text("CREATE TABLE filler (id INTEGER PRIMARY KEY, x BLOB)"))
        for _ in range(MEGABYTES):
            session.execute(text("INSERT INTO filler (x) VALUES (randomblob(1000000))"))


def _report_copy(folder: Path) -> None:
    over, waits = threading.Event(), []
    with Database(folder) as database:

        def cut() -> None:
            while not over.is_set():
                start = time.perf_counter()
                with database.write() as session:
                    session.execute(text("UPDATE filler SET x = randomblob(2000) WHERE id = 1"))
                waits.append(time.perf_counter() - start)
                time.sleep(max(0.0, 1 / A_SECOND - waits[-1]))

        cutting = threading.Thread(target=cut)
        cutting.start()
        time.sleep(1)
        start = time.perf_counter()
        database.back_up("bench")
        took = time.perf_counter() - start
        log_mb = (folder / f"{DATABASE_NAME}-wal").stat().st_size / 1e6
        over.set()
        cutting.join()
    print(
        f"\nA copy of {MEGABYTES} MB under {A_SECOND} commits a second: {took:.1f} s"
        f" (wanted: <= 60), log {log_mb:.0f} MB, longest commit {1000 * max(waits):.0f} ms"
    )


def _report_sheets() -> None:
    worst, name = 0.0, ""
    for each, data in HOSTILE.items():
        start = time.perf_counter()
        with suppress(RefusedFileError):
            read_sheet_apart(NamedFile("results.xlsx", data))
        took = time.perf_counter() - start
        if took > worst:
            worst, name = took, each
    print(f"Worst of {len(HOSTILE)} hostile sheets: {worst:.2f} s, {name} (wanted: <= 2)")
