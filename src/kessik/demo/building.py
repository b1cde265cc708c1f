"""The demo in parts: the first is there before Kessik answers, the others fill in beside it.

`python -m kessik.demo.building FOLDER TODAY` makes the parts that are missing; it ends with its
standard input, as the server does that started it.
"""

import os
import sys
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from datetime import datetime
from pathlib import Path
from subprocess import PIPE, Popen
from threading import Thread

from kessik.demo.arms_and_blocks import build_arms_and_blocks
from kessik.demo.assays import build_assays
from kessik.demo.days import Days
from kessik.demo.scenario import TRIAL_ID, build_shelf_and_raft_trials, lot_ids
from kessik.demo.schools import build_schools
from kessik.demo.season import build_season
from kessik.demo.soaks import build_soaks
from kessik.demo.uses import build_uses
from kessik.services.bench.bench import Bench
from kessik.store.database import Database
from kessik.store.queries.trials import find_trial

_MARKS = "demo.parts"
"""A file of the folder: a line for each part begun, and one for each that is there."""


@dataclass(frozen=True)
class DemoPart:
    """One part: its name, what it is in words, and what makes it."""

    name: str
    says: str
    make: Callable[[Database, Days], None]


PARTS = (
    DemoPart("raft", "six blades, and the raft rope trial", build_shelf_and_raft_trials),
    DemoPart("assays", "shots of an analyser", build_assays),
    DemoPart(
        "schools",
        "a trial of every other way to cut",
        lambda db, days: build_schools(Bench(db), days, lot_ids()),
    ),
    DemoPart(
        "arms",
        "one blade under two finishes, and rope in bundles",
        lambda db, days: build_arms_and_blocks(Bench(db), days, lot_ids()),
    ),
    DemoPart("season", "three years of results for the standings", build_season),
    DemoPart("uses", "a use that a blade is chosen for", build_uses),
    DemoPart("soaks", "soaks with their pictures", build_soaks),
)


def build(db: Database, today: datetime) -> None:
    """Fill an empty database with the whole scenario; `today` carries the local offset. Built once,
    the same every time.
    """
    for part in PARTS:
        part.make(db, Days(today))


def build_first(folder: Path, today: datetime) -> None:
    """Make the first part where it is not there; what is begun and never ended is not begun
    again.
    """
    part = PARTS[0]
    if part.name in _marked(folder):
        return
    with Database(folder, hurried=True) as db:
        with db.read() as session:
            is_older = find_trial(session, TRIAL_ID) is not None
        if is_older:
            for each in PARTS:
                _mark(folder, each)
            return
        _mark(folder, part)
        part.make(db, Days(today))


@contextmanager
def filled_in(folder: Path, today: datetime) -> Iterator[None]:
    """The other parts are made in a process of their own while the block lasts."""
    if all(part.name in _marked(folder) for part in PARTS):
        yield
        return
    command = [sys.executable, "-m", "kessik.demo.building", str(folder), today.isoformat()]
    process = Popen(command, stdin=PIPE, start_new_session=True)
    try:
        yield
    finally:
        assert process.stdin is not None
        process.stdin.close()
        process.wait()


def _fill_in(folder: Path, today: datetime) -> None:
    Thread(target=_end_with_the_server, daemon=True).start()
    os.nice(10)
    with Database(folder, hurried=True) as db:
        for part in PARTS:
            if part.name not in _marked(folder):
                _mark(folder, part)
                part.make(db, Days(today))
                sys.stdout.write(f"Added to the demo: {part.says}.\n")
                sys.stdout.flush()


def _end_with_the_server() -> None:
    os.read(sys.stdin.fileno(), 1)  # comes back once the other end is closed
    os._exit(0)


def _marked(folder: Path) -> frozenset[str]:
    marks = folder / _MARKS
    return frozenset(marks.read_text().split()) if marks.exists() else frozenset()


def _mark(folder: Path, part: DemoPart) -> None:
    with (folder / _MARKS).open("a") as marks:
        marks.write(f"{part.name}\n")


if __name__ == "__main__":
    _fill_in(Path(sys.argv[1]), datetime.fromisoformat(sys.argv[2]))
